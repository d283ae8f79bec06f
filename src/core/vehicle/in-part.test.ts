import { describe, expect, it } from "vitest";
import { CHECKS, type CheckId, judgeCheck, stillNeeded } from "../checks";
import * as vapour from "../checks/evap.fixture";
import * as good from "../checks/records.fixture";
import { airflow, survey } from "../checks/records.fixture";
import { contextOf, NATURAL, smokeRun, VAPOUR } from "../core.fixture";
import { validate } from "../input";
import { foldJob } from "../journal";
import { NOW, SHOP, Writer } from "../journal/journal.fixture";
import { vehicleFacts, vehicleName } from "./complete";
import { FITTED_SYSTEMS, OPEN_FACTS, type OpenFact, type VehicleRecord, vehicleFields } from "./facts";

const LITTLE: VehicleRecord = { fuel: "petrol", displacement: { value: 1.6, unit: "L" } };
const little = contextOf(LITTLE);

describe("a vehicle known in part", () => {
  it("needs its fuel and displacement, and no more", () => {
    expect(validate(vehicleFields.schema, LITTLE)).toMatchObject(LITTLE);
    expect(() => validate(vehicleFields.schema, { fuel: "petrol" })).toThrow(/displacement/i);
    expect(() => validate(vehicleFields.schema, { displacement: LITTLE.displacement })).toThrow(/fuel/i);
  });

  it("names what nobody gave, and takes nothing for given that was", () => {
    expect(little.vehicle.unknown).toEqual(OPEN_FACTS);
    expect(vehicleFacts({ ...LITTLE, banks: 2 })).toMatchObject({ banks: 2, unknown: ["induction", "metering", "fitted"] });
    expect(vehicleFacts(NATURAL)).toBe(NATURAL);
    expect(vehicleFacts(LITTLE)).toBe(vehicleFacts(LITTLE));
    expect(vehicleFacts({ ...LITTLE, fitted: undefined }).fitted).toEqual(little.vehicle.fitted);
  });

  it("is called by what is known of it", () => {
    expect(vehicleName(little.vehicle)).toBe("Petrol 1.6 L");
    expect(vehicleName(NATURAL)).toMatch(new RegExp(`^${NATURAL.make} ${NATURAL.model} · ${NATURAL.year}$`));
  });

  it("is cleared by nothing that rests on what is not known, and says what is still needed", () => {
    for (const [kind, record] of [
      ["smoke", smokeRun()],
      ["trims", survey({})],
      ["airflow", airflow],
    ] as const) {
      const whole = judgeCheck(kind, record, contextOf(NATURAL));
      expect(whole.outcome, kind).toBe("pass");
      const verdict = judgeCheck(kind, record, little);
      expect(verdict, kind).toMatchObject({ outcome: "unsure", zones: [] });
      expect(verdict.observation, kind).toBeUndefined();
      expect(verdict.tested, kind).toBeUndefined();
      expect(verdict.reasons[0], kind).toMatch(/not known of this vehicle yet: /);
    }
    expect(stillNeeded("trims", little)).toMatch(/induction, air metering, banks/);
    expect(stillNeeded("trims", contextOf(NATURAL))).toBeUndefined();
    expect(stillNeeded("hold", little)).toBeUndefined();
  });

  it("leaves what was found found", () => {
    const run = smokeRun(4.5, { seen: [{ joint: "pcv-hose", at: 60 }], noSmokeOutside: false });
    const verdict = judgeCheck("smoke", run, little);
    expect(verdict).toMatchObject({ outcome: "fail", observation: "smoke-at:pcv-hose" });
    expect(verdict.reasons.at(-1)).toMatch(/induction, fitted systems/);
  });

  it("rules out no reading by what it only takes to be so", () => {
    const boosted = {
      ...airflow,
      points: airflow.points.map((p, i) => (i === 0 ? p : { ...p, map: { value: 150, unit: "kPa", kind: "absolute" } })),
    };
    expect(judgeCheck("airflow", boosted, contextOf(NATURAL)).outcome).toBe("void");
    expect(judgeCheck("airflow", boosted, little).outcome).not.toBe("void");
  });

  it("gets its proof once the rest is said: nothing has to be read again", () => {
    const job = new Writer();
    job.add("vehicle", LITTLE);
    job.add("check", { check: "smoke", record: smokeRun() });
    expect(foldJob(job.entries, SHOP, NOW).checks[0]?.verdict.outcome).toBe("unsure");
    job.add("vehicle", NATURAL);
    expect(foldJob(job.entries, SHOP, NOW).checks[0]?.verdict.outcome).toBe("pass");
  });

  it("is not handed over without a name to know it by", () => {
    const job = new Writer();
    job.add("vehicle", LITTLE);
    const blocks = () => foldJob(job.entries, SHOP, NOW).blocks.handOver.map((b) => b.reason);
    expect(blocks()).toContain("Type the registration or VIN: which car is it?");
    job.add("vehicle", { ...LITTLE, registration: "FW 12 ABC" });
    expect(blocks()).not.toContain("Type the registration or VIN: which car is it?");
  });
});

/** A good record of each kind, all of which can be taken on the same well-fitted car. */
const RECORDS: readonly (readonly [CheckId, object])[] = [
  ["trims", survey({})],
  ["probe", good.probe({ reaction: 0 })],
  ["vacuum", good.vacuum],
  ["airflow", airflow],
  ["crankcase", good.crankcase],
  ["smoke", smokeRun()],
  ["pinch", good.pinch],
  ["hold", good.hold],
  ["valve", good.valve],
  ["output", good.output],
  ["circuit", good.circuit],
  ["chain", good.chain],
  ["borescope", good.borescope],
  ["evap-smoke", vapour.evapSmokeRun()],
  ["decay", vapour.decayRecord(0)],
  ["pulldown", vapour.pulldownTrace()],
  ["cap", vapour.capRecord()],
  ["tank-sensor", vapour.tankSensorRecord()],
  ["vent-path", vapour.ventPathRecord()],
];
/** Values that each fact could be as well. */
const OTHERWISE: Readonly<Record<OpenFact, readonly Partial<VehicleRecord>[]>> = {
  induction: [{ induction: "natural" }, { induction: "turbo" }],
  metering: [{ metering: "maf" }, { metering: "map" }],
  banks: [{ banks: 1 }, { banks: 2 }],
  fitted: [{ fitted: VAPOUR.fitted }, { fitted: FITTED_SYSTEMS }],
};

describe("what a check says it needs to know of a vehicle", () => {
  const whole: VehicleRecord = { ...VAPOUR, fitted: FITTED_SYSTEMS };
  it.each(RECORDS)("%s: a fact that it does not name does not turn its verdict", (kind, record) => {
    const outcome = (facts: VehicleRecord) => judgeCheck(kind, record, contextOf(facts)).outcome;
    expect(outcome(whole)).not.toBe("void");
    for (const fact of OPEN_FACTS.filter((f) => !CHECKS[kind].needs?.includes(f))) {
      const outcomes = (OTHERWISE[fact] as readonly Partial<VehicleRecord>[])
        .map((change) => outcome({ ...whole, ...change }))
        // Of a part that the car then has not, a record says nothing: that is said by itself.
        .filter((o) => o !== "void");
      expect(new Set(outcomes).size, fact).toBeLessThanOrEqual(1);
    }
  });

  it("is more than nothing where it names any: not knowing it takes the pass away", () => {
    for (const [kind, record] of RECORDS) {
      const needs = CHECKS[kind].needs ?? [];
      for (const fact of needs) {
        const verdict = judgeCheck(kind, record, contextOf({ ...whole, [fact]: undefined }));
        expect(verdict.outcome, `${kind} without ${fact}`).not.toBe("pass");
      }
    }
  });

  it("is told apart from the same facts when somebody gave them", () => {
    const job = new Writer();
    job.add("vehicle", LITTLE);
    job.add("check", { check: "smoke", record: smokeRun() });
    const outcome = () => foldJob(job.entries, SHOP, NOW).checks[0]?.verdict.outcome;
    expect(outcome()).toBe("unsure");
    const { unknown: _, ...assumed } = little.vehicle;
    job.add("vehicle", assumed);
    expect(outcome()).toBe("pass");
    job.add("vehicle", LITTLE);
    expect(outcome()).toBe("unsure");
  });
});
