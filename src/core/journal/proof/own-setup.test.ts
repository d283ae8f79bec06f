import { describe, expect, it } from "vitest";
import { CHECK_IDS, CHECKS, type CheckContext, type CheckId, type Claim, judgeCheck, type Plan } from "../../checks";
import { FAMILY_IDS } from "../../faults";
import { validate } from "../../input";
import { seededNoise } from "../../maths/random";
import { caseOf } from "../../practice/case";
import { readCheck } from "../../practice/readers";
import { Writer } from "../journal.fixture";
import { evidenceOf } from "./evidence";
import { settle } from "./obligations";
import { resolveLines } from "./order";
import { jointIds, lastWorkOf, touchesOf } from "./touches";

interface Shown {
  readonly record: object;
  readonly context: CheckContext;
  readonly good: readonly Claim[];
  readonly displaces: Plan["displaces"];
}

/** A check of a sound car that says something good of it, with what its own plan takes off, plugs or commands. */
function shownBy(kind: CheckId): Shown | undefined {
  for (const family of FAMILY_IDS)
    for (let vehicle = 0; vehicle < 6; vehicle++) {
      const { car } = caseOf({ family, vehicle, faults: [{ cause: 0, size: 0.5 }], symptoms: 0, misleads: false });
      const context = { ...car.context, practice: true as const };
      const places = CHECKS[kind].places?.(context) ?? [undefined];
      for (const place of places.slice(0, 4)) {
        try {
          const bay = { car: { ...car, faults: [] }, noise: seededNoise(7) };
          const record = validate<object>(
            CHECKS[kind].fields.schema,
            readCheck(kind, bay, place ? { joint: place, entry: place } : {}),
          );
          const good = CHECKS[kind].claims(record, judgeCheck(kind, record, context), context).filter((c) => c.says === "good");
          const { displaces } = CHECKS[kind].plan(context, {
            blocked: [],
            heldOpen: [],
            ...record,
            runBy: "fused-lead",
            power: "12v",
          });
          if (good.length > 0 && displaces.length > 0) return { record, context, good, displaces };
        } catch {
          // This check is not for such a car, or no reader knows it.
        }
      }
    }
  return undefined;
}

const SHOWN = CHECK_IDS.flatMap((kind) => {
  const shown = shownBy(kind);
  return shown ? [[kind, shown] as const] : [];
});

describe("what a check takes off, plugs or commands for itself", () => {
  it("is tried for many kinds", () => {
    expect(SHOWN.map(([kind]) => kind)).toEqual(
      expect.arrayContaining(["secondary-air", "back-pressure", "output", "hold", "valve", "smoke", "evap-smoke", "cap"]),
    );
  });

  it.each(SHOWN)(
    "%s: listed, read good, put back: what it showed stands, and each place owes a look at its seat at most",
    (check, shown) => {
      const { record, context, good, displaces } = shown;
      const job = new Writer();
      job.add("opened", { number: 1 });
      job.add("vehicle", context.vehicle);
      const items = displaces.map(({ joint, what, commanded }) =>
        job.add("displaced", {
          what,
          ...(joint ? { joint } : {}),
          ...(commanded ? { commanded: { seconds: 60 } } : {}),
        }),
      );
      job.add("check", { check, record });
      for (const item of items) job.add("restored", { item });
      const { lines, retracted } = resolveLines(job.entries);
      const evidence = evidenceOf(
        lines,
        retracted,
        context,
        (line) => judgeCheck(check, line.body.record, context),
        () => undefined,
      );
      const touches = touchesOf(lines, evidence);
      const facts = {
        evidence,
        touches,
        orders: [],
        joints: jointIds(context.layout),
        layout: context.layout,
        banks: undefined,
        aside: new Set<string>(),
        lastWork: lastWorkOf(touches),
      };
      const owed = settle(
        good.map((claim) => ({ claim: { ...claim, metBy: undefined } as never, by: { check }, bads: [] })),
        facts,
      );
      expect(owed.filter((o) => o.missing && o.question !== "seated").map((o) => `${o.atom} ${o.missing} ${o.because}`)).toEqual(
        [],
      );
    },
  );
});
