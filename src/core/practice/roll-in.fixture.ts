import { CHECKS, type CheckId } from "../checks";
import { FAMILY_IDS } from "../faults";
import { validate } from "../input";
import type { EntryKind } from "../journal/entries";
import { foldJob } from "../journal/fold";
import { minute, SHOP, Writer } from "../journal/journal.fixture";
import { seededNoise } from "../maths/random";
import { candidatesOf } from "../suspects";
import { ANSWERS, type Answered } from "./answers";
import { type PracticeCase, practiceCase } from "./case";
import { debriefOf } from "./debrief";
import { readCheck, type Setup } from "./readers";
import { worldOf } from "./world";

const NIGHT = 720;

/** A case rolled in, and what is done at its car: every step by the bay's own clock, as the bench writes it. */
export function rollIn(code: string, given: PracticeCase = practiceCase(code)) {
  const job = new Writer();
  let now = 0;
  const add = (kind: EntryKind, body: object, minutes = 1) => {
    now += minutes;
    return job.add(kind, body as never, { at: minutes > 1 ? { from: minute(now - minutes), to: minute(now) } : minute(now) });
  };
  const world = () => worldOf(given, job.entries);
  const answer = (of: Answered, minutes = 1) => add(of, ANSWERS[of](world(), given, minute(now)), minutes);
  const state = () => foldJob(job.entries, SHOP, Date.parse(minute(now + 1)));
  add("opened", { number: 1, practice: code });
  add("vehicle", given.facts);
  add("story", given.story);
  answer("codes");
  answer("conditions");
  return {
    given,
    answer,
    state,
    add,
    world,
    /** Verdict of a check that is read off the car as it stands */
    check(kind: CheckId, chosen?: Setup): string {
      const { car, light, instruments } = world();
      const way = candidatesOf(car.context, FAMILY_IDS).find((c) => c.check === kind);
      const setup = chosen ?? { joint: way?.place, entry: way?.place };
      const read = readCheck(kind, { car, noise: seededNoise(job.entries.length), light, instruments }, setup);
      const schema = CHECKS[kind].fields.schema;
      const taken = schema.describe().fields.source?.type === "object";
      const record = taken ? { ...read, source: { kind: "typed" } } : read;
      add("check", { check: kind, record: validate<object>(schema, record) });
      const { outcome, headline } = state().checks.at(-1)?.verdict ?? {};
      return `${outcome}: ${headline}`;
    },
    repair(joint: string, what: string) {
      const finding = add("finding", { joint, what, evidence: [], confirmed: "seen" });
      add("repair", {
        finding,
        what: `${what}: renewed`,
        permanence: "permanent",
        labourMinutes: 20,
        parts: [],
        otherChanges: [],
        authorised: true,
      });
    },
    night() {
      now += 1;
      add("bay", { act: "wait", minutes: NIGHT }, NIGHT);
    },
    /** The complaint, cleared codes, a drive, every module read again. */
    proveBase() {
      answer("complaint-tried");
      add("codes-cleared", {});
      answer("drive", 35);
      answer("codes");
    },
    blocked: () => state().blocks.close.map((b) => b.reason),
    /** Handed over and heard of a week later. */
    told() {
      add("handover", { customerNote: "Found, renewed and measured." });
      return debriefOf(given, job.entries, SHOP);
    },
  };
}
