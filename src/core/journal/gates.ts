import { CHECKS, type CheckId, jointName } from "../checks";
import { EVAP_ZONES } from "../checks/evap-fields";
import { entriesFor } from "../checks/evap-smoke";
import type { ValveRecord } from "../checks/valve";
import { inSentence } from "../sentence";
import { isVapourCode, isVapourLeak } from "../suspects";
import { layoutOf } from "../vehicle";
import { type Bodies, type JournalEntry, spanOf } from "./entries";
import type { Block, CheckState, JobState, RepairState, StationId, StationState } from "./state";
import { STATIONS } from "./state";

type Facts = Pick<
  JobState,
  | "vehicle"
  | "story"
  | "codes"
  | "codesRead"
  | "checks"
  | "findings"
  | "repairs"
  | "offCar"
  | "complaint"
  | "conditions"
  | "monitor"
>;

const standing = (repairs: readonly RepairState[]) => repairs.filter((r) => !r.undone);

/** A check that owes a proof: its kind, and the part where the kind is about one part. */
interface Owed {
  readonly check: CheckId;
  readonly part?: string;
  /** A valve's seat that leaked cold is proved cold */
  readonly temperature?: string;
}

/** Eyes find but do not measure, and a branch shut off only locates: what they found is answered by the measured checks. */
const LOCATORS: readonly CheckId[] = ["look", "pinch"];
/** Kinds that judge one part by itself: each part owes its own proof. */
const BY_PART: readonly CheckId[] = ["hold", "valve", "output", "circuit", "borescope"];

/** Kinds that put one question in two ways: smoke and decay both say whether the vapour system is tight. */
const TIGHTNESS: readonly CheckId[] = ["evap-smoke", "decay"];

const temperatureOf = (c: CheckState) => (c.record as Partial<ValveRecord>).temperature;

const owedBy = (c: CheckState): Owed => ({
  check: c.check,
  ...(c.place && BY_PART.includes(c.check) ? { part: c.place } : {}),
  ...(c.check === "valve" ? { temperature: temperatureOf(c) as string } : {}),
});
const sameQuestion = (a: CheckId, b: CheckId) => a === b || (TIGHTNESS.includes(a) && TIGHTNESS.includes(b));
const answers = (c: CheckState, owed: Owed) =>
  sameQuestion(c.check, owed.check) && !c.onBench && (owed.part === undefined || c.place === owed.part);

/** Checks that said "faulty" before the last repair: each must say otherwise after it. */
function proofOwed(checks: readonly CheckState[]): Owed[] {
  const owed: Owed[] = [];
  for (const c of checks) {
    if (LOCATORS.includes(c.check) || c.onBench || c.verdict.outcome !== "fail" || c.afterRepair !== "before") continue;
    if (!owed.some((o) => answers(c, o))) owed.push(owedBy(c));
  }
  return owed;
}

/**
 * The word that counts of an owed check after the last repair, void ones left out: they prove nothing. The newest where
 * that is bad; otherwise the newest under the temperature at which it was faulty, or failing that any.
 */
function newestAfter(checks: readonly CheckState[], owed: Owed): CheckState | undefined {
  const after = checks.filter((c) => answers(c, owed) && c.afterRepair === "after" && c.verdict.outcome !== "void");
  const newest = after.at(-1);
  if (newest?.verdict.outcome === "fail" || !owed.temperature) return newest;
  return after.findLast((c) => temperatureOf(c) === owed.temperature) ?? newest;
}

/** Everything that blocks closing and handing over, in the order a technician would deal with it. */
export function blocksOf(facts: Facts & { readonly clearedAfter: boolean; readonly now: number }): JobState["blocks"] {
  const handOver: Block[] = [];
  for (const item of facts.offCar.filter((i) => i.open)) {
    handOver.push({
      station: "prove",
      reason: item.commanded
        ? `Still commanded: ${item.what}. Release it: nothing is judged while it stands`
        : item.swappedBack
          ? `The old part is back in: ${item.swappedBack}. Put the good one back`
          : `Still off the car: ${item.what}`,
    });
  }
  for (const repair of standing(facts.repairs).filter((r) => r.body.permanence === "bypass")) {
    handOver.push({ station: "fix", reason: `A diagnostic bypass is no repair and must be undone: ${repair.body.what}` });
  }
  if (!facts.vehicle) handOver.push({ station: "story", reason: "The vehicle's facts are missing" });

  const close: Block[] = [...handOver];
  if (!facts.story) close.push({ station: "story", reason: "The complaint has not been written down" });
  for (const finding of facts.findings.filter((f) => !f.repairedBy)) {
    close.push({ station: "fix", reason: `Found and not repaired: ${finding.body.what}` });
  }
  const repaired = standing(facts.repairs).length > 0;
  if (!repaired) close.push({ station: "fix", reason: "Nothing has been repaired: hand over conditionally, or go on" });
  if (repaired) {
    const owed = proofOwed(facts.checks);
    for (const one of owed) {
      const proof = newestAfter(facts.checks, one);
      const name = nameOf(one, facts);
      if (!proof) {
        const unclear = facts.checks.some((c) => answers(c, one) && c.afterRepair === "unknown");
        const isVoid = facts.checks.some((c) => answers(c, one) && c.afterRepair === "after");
        close.push({
          station: "prove",
          reason: isVoid
            ? `The ${name} after the last repair is void and counts for nothing: do it again`
            : unclear
              ? `A ${name} may have been taken before the repair: its device had not seen it. Do it again`
              : `The ${name} has not been repeated after the last repair`,
        });
      } else if (proof.verdict.outcome === "fail") {
        close.push({ station: "prove", reason: `After the repair the ${name} still says: ${proof.verdict.headline}` });
      } else if (proof.verdict.outcome === "unsure") {
        close.push({
          station: "prove",
          reason: `After the repair the ${name} is not sure yet: ${proof.verdict.reasons[0] ?? proof.verdict.headline}`,
        });
      } else if (one.temperature && temperatureOf(proof) !== one.temperature) {
        close.push({
          station: "prove",
          reason: `The ${name} was faulty ${one.temperature} and has been proved otherwise only: test it ${one.temperature} again`,
        });
      }
    }
    close.push(...untestedRepairs(facts), ...vapourBlocks(facts));
    if (owed.length === 0) {
      close.push({ station: "prove", reason: "No check showed the fault before the repair, so none can show that it is gone" });
    }
    for (const check of facts.checks.filter(
      (c) =>
        c.afterRepair === "after" &&
        c.verdict.outcome === "fail" &&
        !LOCATORS.includes(c.check) &&
        !c.onBench &&
        !owed.some((o) => answers(c, o)) &&
        newestAfter(facts.checks, owedBy(c)) === c,
    )) {
      close.push({ station: "prove", reason: `After the repair: ${check.verdict.headline}` });
    }
    if (facts.complaint?.afterRepair !== "after") {
      close.push({ station: "prove", reason: "The complaint has not been tried again after the last repair" });
    } else if (facts.complaint.result === "remains") {
      close.push({ station: "prove", reason: "Readings may be good, but the complaint remains" });
    }
    if (facts.codes.some((c) => !c.asideReason) && !facts.clearedAfter) {
      close.push({ station: "prove", reason: "The codes have not been cleared after the last repair" });
    }
  }
  return { close, handOver };
}

/**
 * What an EVAP code asks for after the repair: every zone of the system proved tight, whatever an entry hid or could not
 * reach proved from another, and the car's own monitor run and passed.
 */
function vapourBlocks({ vehicle, codes, checks, monitor }: Facts): Block[] {
  const chased = codes.filter((c) => !c.asideReason).map((c) => c.code);
  if (!vehicle || !chased.some(isVapourCode)) return [];
  const blocks: Block[] = [];
  const layout = layoutOf(vehicle);
  const after = checks.filter((c) => c.afterRepair === "after" && !c.onBench && c.verdict.outcome === "pass");
  const held = after.filter((c) => TIGHTNESS.includes(c.check));
  if (chased.some(isVapourLeak)) {
    const tight = new Set(held.flatMap((c) => c.verdict.zones.filter((z) => z.state === "tight").map((z) => z.zone)));
    const zones = layout.zones.filter((z) => EVAP_ZONES.includes(z.id) && z.id !== "vent-hose" && !tight.has(z.id));
    const tested = new Set(after.flatMap((c) => c.tested));
    const hidden = layout.joints.filter(
      (j) => j.kind === "seal" && EVAP_ZONES.includes(j.from) && tight.has(j.from) && !tested.has(j.id),
    );
    const [entry] = entriesFor(layout, { zones: zones.map((z) => z.id), joints: hidden.map((j) => j.id) });
    const from = entry ? `: prove it from the ${inSentence(entry.name)}` : "";
    if (zones.length > 0) {
      blocks.push({
        station: "prove",
        reason: `Not proved tight since the repair: ${zones.map((z) => inSentence(z.name)).join(", ")}${from}`,
      });
    }
    for (const joint of hidden) {
      const how =
        joint.id === "filler-cap" ? ": test it by itself, or prove it from another entry" : `: prove it from a second entry`;
      blocks.push({ station: "prove", reason: `${joint.name} was hidden by the adapter and is untested since the repair${how}` });
    }
  }
  if (monitor?.afterRepair !== "after" || monitor.result === "not-complete") {
    blocks.push({
      station: "prove",
      reason: "The car's own EVAP monitor has not run since the repair: plan it, or hand over conditionally",
    });
  } else if (monitor.result === "failed") {
    blocks.push({ station: "prove", reason: "The car's own EVAP monitor ran after the repair and failed" });
  }
  return blocks;
}

const nameOf = (owed: Owed, { vehicle }: Pick<Facts, "vehicle">) => {
  const kind = inSentence(CHECKS[owed.check].name);
  const part = owed.part && vehicle ? inSentence(jointName(layoutOf(vehicle), owed.part)) : owed.part;
  return part ? `${kind} of the ${part}` : kind;
};

/** Repaired places that smoke had shown leaking, and that no smoke run after the repair has put to the test. */
function untestedRepairs({ findings, checks }: Pick<Facts, "findings" | "checks">): Block[] {
  const passed = checks.filter(
    (c) => (c.check === "smoke" || TIGHTNESS.includes(c.check)) && c.afterRepair === "after" && c.verdict.outcome === "pass",
  );
  if (passed.length === 0) return [];
  return findings
    .filter(({ repairedBy, body }) => repairedBy && checks.some((c) => c.verdict.zones.some((z) => z.joint === body.joint)))
    .filter(({ body }) => !passed.some((c) => c.tested.includes(body.joint)))
    .map(({ body }) => ({
      station: "prove",
      reason: `The smoke run after the repair did not put its place to the test: ${body.what}. Let smoke in elsewhere, and show that it arrives there`,
    }));
}

/**
 * What changed between the last failing and the first good reading of the same check, when it was more than one thing:
 * the fault is cured, its cause unproved. A change taken back for a check settles it: bad again, it was the cure; still
 * good, it was not.
 */
export function confoundedChanges(
  checks: readonly CheckState[],
  repairs: readonly RepairState[],
  displaced: readonly (JournalEntry & { readonly body: Bodies["displaced"] })[],
  restored: ReadonlyMap<string, number>,
): string[] {
  const good = checks.find((c) => c.afterRepair === "after" && c.verdict.outcome === "pass" && !LOCATORS.includes(c.check));
  if (!good) return [];
  const same = checks.filter((c) => answers(c, owedBy(good)));
  const bad = same.filter((c) => c.verdict.outcome === "fail" && ms(c.at) < ms(good.at)).at(-1);
  if (!bad) return [];
  const changes = repairs
    .filter((r) => !r.undone && ms(r.at) >= ms(bad.at) && ms(r.at) <= ms(good.at))
    .flatMap((r) => [r.body.what, ...r.body.otherChanges]);
  let open = [...changes];
  for (const item of displaced) {
    const { swappedBack } = item.body;
    if (!swappedBack || !changes.includes(swappedBack)) continue;
    const until = restored.get(item.id) ?? Number.POSITIVE_INFINITY;
    const tried = same.find((c) => ms(c.at) >= spanOf(item.at).from && ms(c.at) <= until && c.verdict.outcome !== "void");
    if (tried?.verdict.outcome === "fail") return [];
    if (tried?.verdict.outcome === "pass") open = open.filter((c) => c !== swappedBack);
  }
  return open.length > 1 ? open : [];
}

const ms = (at: CheckState["at"]) => Date.parse(typeof at === "string" ? at : at.from);

/** State of every station, and the one that comes next with its reason. */
export function stationsOf(job: Facts & Pick<JobState, "status" | "blocks" | "next">): {
  states: Record<StationId, StationState>;
  next: { station: StationId; reason: string };
} {
  const done = job.status === "closed" || job.status === "handed-over";
  const has = (kind: CheckId) => job.checks.some((c) => c.check === kind && c.verdict.outcome !== "void");
  const measured = job.checks.some((c) => c.check !== "look" && c.verdict.outcome !== "void");
  // A survey tells the kind of fault; only a place, shown or found, ends the checking.
  const placed = job.findings.length > 0 || job.checks.some((c) => c.verdict.zones.some((z) => z.state === "leaking"));
  const confirmed = job.findings.some((f) => f.body.confirmed);
  const repaired = standing(job.repairs).length > 0;
  const proveBlocks = job.blocks.close.filter((b) => b.station === "prove");
  const fixBlocks = job.blocks.close.filter((b) => b.station === "fix");
  const pick = (settled: boolean, started: boolean): StationState => (settled ? "settled" : started ? "going-on" : "untouched");
  const states: Record<StationId, StationState> = {
    story: pick(Boolean(job.story && job.vehicle), Boolean(job.vehicle)),
    scan: pick(job.codesRead, false),
    look: pick(has("look"), false),
    suspects: pick(repaired || confirmed, job.codesRead || measured),
    check: pick(
      measured && placed,
      job.checks.some((c) => c.check !== "look"),
    ),
    find: pick(confirmed, job.findings.length > 0),
    fix: pick(repaired && fixBlocks.length === 0, repaired),
    prove: pick(repaired && proveBlocks.length === 0, repaired && job.checks.some((c) => c.afterRepair === "after")),
    handover: pick(done, false),
  };
  const next = nextOf(states, job);
  if (!done) states[next.station] = "needs-you";
  if (job.status === "review") states.handover = "needs-you";
  return { states, next };
}

const NEXT_REASON: Record<StationId, string> = {
  story: "Write down the complaint and the vehicle's facts",
  scan: "Read the codes of every module",
  look: "Eyes and hands before any tool",
  suspects: "Weigh what could explain it",
  check: "Run the best next check",
  find: "Pin it to one joint and confirm it",
  fix: "Repair what was found",
  prove: "Prove the repair",
  handover: "Everything is proved: hand over",
};

function nextOf(
  states: Record<StationId, StationState>,
  job: Pick<JobState, "blocks" | "status" | "repairs" | "next">,
): { station: StationId; reason: string } {
  const [block] = job.blocks.close;
  if (job.status === "review") return { station: "prove", reason: block?.reason ?? NEXT_REASON.prove };
  if (job.status === "closed") return { station: "handover", reason: "Closed" };
  // Once something is repaired, what closing still asks for comes before a station that was passed over.
  if (standing(job.repairs).length > 0) {
    if (block) return { station: block.station, reason: block.reason };
    return { station: "handover", reason: job.status === "handed-over" ? "Handed over: close it" : NEXT_REASON.handover };
  }
  for (const station of STATIONS) {
    // Suspects are weighed by the app; they never hold up the line by themselves.
    if (station === "suspects" || states[station] === "settled") continue;
    const asked = job.blocks.close.find((b) => b.station === station);
    if (station === "fix" && asked) return { station, reason: asked.reason };
    const best = station === "check" ? job.next.find((n) => n.check !== "look") : undefined;
    return { station, reason: best ? `Best next check: ${inSentence(best.name)}` : NEXT_REASON[station] };
  }
  return { station: "handover", reason: NEXT_REASON.handover };
}
