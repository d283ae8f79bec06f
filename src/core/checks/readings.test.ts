import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO, VAPOUR } from "../core.fixture";
import { BadInput, validate } from "../input";
import { fromSi, type Quantity, toSi } from "../units";
import { type VehicleFacts, vehicleFacts } from "../vehicle";
import { CHECK_IDS, CHECKS, type CheckId, judgeCheck } from ".";
import * as vapour from "./evap.fixture";
import { exampleOf } from "./example.fixture";
import type { InstrumentUse } from "./fields";
import { withReadings } from "./readings";
import * as good from "./records.fixture";

type Gauged = object & { readonly instrument: InstrumentUse };
/** A record of each kind that is read on a gauge or meter, and a car that it suits. */
const GAUGED: Partial<Record<CheckId, readonly [Gauged, VehicleFacts]>> = {
  vacuum: [good.vacuum, NATURAL],
  crankcase: [
    good.crankcase,
    {
      ...NATURAL,
      crankcaseBand: {
        low: { value: -2000, unit: "Pa", kind: "gauge" },
        high: { value: 0, unit: "Pa", kind: "gauge" },
      },
    },
  ],
  hold: [good.hold, NATURAL],
  valve: [good.valve, NATURAL],
  circuit: [good.circuit, NATURAL],
  chain: [good.chain, NATURAL],
  "pressure-test": [good.pressure, TURBO],
  "back-pressure": [good.backPressure, NATURAL],
  "bench-part": [good.benchPart, NATURAL],
  decay: [vapour.decayRecord(0), VAPOUR],
  cap: [vapour.capRecord(), VAPOUR],
  "tank-sensor": [vapour.tankSensorRecord(), VAPOUR],
};
const KINDS = CHECK_IDS.filter((id) => "instrument" in CHECKS[id].fields.members);
/** The record it is tried with: one of the tests' own, or its example. */
function gauged(kind: CheckId): readonly [Gauged, VehicleFacts] {
  const { record, vehicle } = exampleOf(kind);
  return GAUGED[kind] ?? [record as Gauged, vehicleFacts(vehicle)];
}

/** The furthest reading of the record's instrument, SI. */
function furthest(kind: CheckId, record: Gauged): number {
  let most = 0;
  withReadings(CHECKS[kind].fields.members, record, record.instrument.division.unit, (si) => {
    most = Math.max(most, Math.abs(si));
    return si;
  });
  return most;
}
const ending = (record: Gauged, si: number): Gauged => {
  const { unit } = record.instrument.division;
  return { ...record, instrument: { ...record.instrument, end: fromSi(si, unit) as Quantity } };
};
const outcome = (kind: CheckId, record: object, vehicle: VehicleFacts) =>
  judgeCheck(kind, validate<object>(CHECKS[kind].fields.schema, record), contextOf(vehicle));

describe("a gauge whose scale ends", () => {
  it("is tried here for every check that is read on one", () => {
    expect(KINDS).toEqual(expect.arrayContaining(Object.keys(GAUGED)));
  });

  it.each(KINDS)("%s: clears nothing that stood at its end, and reads nothing beyond it", (kind) => {
    const [record, vehicle] = gauged(kind);
    const plain = outcome(kind, record, vehicle);
    expect(plain.outcome).toBe("pass");
    const top = furthest(kind, record);
    expect(top).toBeGreaterThan(0);
    const division = toSi(record.instrument.division);
    expect(outcome(kind, ending(record, 1.5 * top + 2 * division), vehicle)).toEqual(plain);
    const at = outcome(kind, ending(record, top), vehicle);
    expect(at.outcome).toBe("unsure");
    expect(at.reasons[0]).toMatch(/end of its scale.*that or more/);
    expect(at.observation).toBeUndefined();
    expect(at.zones).toEqual([]);
    expect(top / 2).toBeGreaterThan(1.1 * division);
    expect(outcome(kind, ending(record, top / 2), vehicle).outcome).toBe("void");
  });

  it("keeps a fault that was read at its end, and says that it was that or more", () => {
    const blocked = {
      ...good.backPressure,
      raised: { value: 60, unit: "kPa", kind: "gauge" },
      snap: { value: 60, unit: "kPa", kind: "gauge" },
    } as Gauged & object;
    const verdict = outcome("back-pressure", ending(blocked, 60e3), NATURAL);
    expect(verdict.outcome).toBe("fail");
    expect(verdict.reasons[0]).toMatch(/that or more/);
  });

  it("ends further up than one division, in what it measures, or is refused", () => {
    const refused = (end: object) => () =>
      validate(CHECKS.hold.fields.schema, { ...good.hold, instrument: { ...good.hold.instrument, end } });
    expect(refused({ value: 30, unit: "inHg" })).not.toThrow();
    for (const end of [
      { value: 0.05, unit: "inHg" },
      { value: 0, unit: "inHg" },
      { value: 20, unit: "V" },
      { value: 20, unit: "mm" },
    ])
      expect(refused(end)).toThrow(BadInput);
  });
});

describe("what is read on the instrument", () => {
  const doubled = (kind: CheckId, record: object, unit: "inHg" | "bar") =>
    withReadings(CHECKS[kind].fields.members, record, unit, (si) => 2 * si);

  it("is what its field says, under whatever name: a supply that was gauged, and none that a stage was set to", () => {
    const supply = { value: 20, unit: "inHg", kind: "vacuum" } as const;
    expect(doubled("chain", { supply }, "inHg")).toMatchObject({ supply: { value: 40 } });
    const stage = { value: 6, unit: "bar", kind: "gauge" } as const;
    const test = { supply: stage, ratings: { tool: stage }, maxBoost: stage, steps: [{ pressure: stage }] };
    expect(doubled("pressure-test", test, "bar")).toEqual({ ...test, steps: [{ pressure: { ...stage, value: 12 } }] });
  });

  it("is a bare number in the record's own unit where its field is one, and no other number", () => {
    const state = { start: 20, end: 10, seconds: 60 };
    expect(doubled("valve", { unit: "inHg", rest: state, commanded: 10 }, "inHg")).toEqual({
      unit: "inHg",
      rest: { start: 40, end: 20, seconds: 60 },
      commanded: 10,
    });
  });
});
