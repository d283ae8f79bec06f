import { describe, expect, it } from "vitest";
import type { Machine } from "../../shop/settings";
import { EMPTY_EVAP_SMOKE, type EvapSmokeDraft, evapSmokeFields, evapSmokeRunOf } from "../evap-smoke";
import { provedEarlier, sampled, sighted, smokeRunOf } from "./draft";
import { smokeFields } from "./fields";

const machine: Machine = {
  id: "m",
  name: "Smoker",
  ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: 600,
  kind: "low-pressure",
  service: [],
};
const START = Date.parse("2026-03-02T10:00:00Z");
const conditions = {
  ambient: { value: 1006, unit: "hPa", kind: "absolute" },
  bayTemperature: { value: 17, unit: "°C" },
} as const;
const begun: EvapSmokeDraft = {
  ...EMPTY_EVAP_SMOKE,
  entry: "air-meter",
  heaterOn: START - 90_000,
  startedAt: START,
  fuelLevel: "45 ",
  zeroed: true,
};
const known = { conditions, leak: undefined, outputTime: 180, gas: "inert" } as const;

describe("a smoke run on its way", () => {
  it("is no record before it begins, without conditions, or on a vapour system without its fuel level", () => {
    expect(smokeRunOf({ ...begun, startedAt: null }, machine, conditions, START)).toBeUndefined();
    expect(smokeRunOf(begun, machine, undefined, START)).toBeUndefined();
    expect(evapSmokeRunOf({ ...begun, fuelLevel: "half" }, machine, known, START)).toBeUndefined();
    expect(smokeRunOf({ ...begun, zeroed: undefined }, machine, conditions, START)).toBeUndefined();
    expect(smokeFields.schema.isValidSync(smokeRunOf(begun, machine, conditions, START), { strict: true })).toBe(true);
    expect(evapSmokeFields.schema.isValidSync(evapSmokeRunOf(begun, machine, known, START), { strict: true })).toBe(true);
  });

  it("counts its time from the moment the hose went on", () => {
    let draft = sampled(begun, 12, 0, START + 1000);
    draft = sampled(draft, 11, 4, START + 3000);
    // Still moving: one reading.
    draft = sampled(draft, 10.5, 5, START + 3300);
    draft = sighted(sighted({ ...draft, noSmokeOutside: true }, "pcv-hose", START + 40_000), "pcv-hose", START + 50_000);
    expect(smokeRunOf(draft, machine, conditions, START + 61_000)).toMatchObject({
      heaterOnAt: -90,
      samples: [
        [1, 12, 0],
        [3.3, 10.5, 5],
      ],
      seen: [{ joint: "pcv-hose", at: 50 }],
      noSmokeOutside: false,
      endedAt: 61,
    });
  });

  it("has no proof that nobody gave or nobody can read, whatever was ticked", () => {
    const ticked = { ...begun, ballAtBottom: true, smokeSeen: true };
    const proofOf = (draft: EvapSmokeDraft, by = machine) => smokeRunOf(draft, by, conditions, START)?.proof;
    expect(proofOf({ ...ticked, proofPressure: "13" })).toBeUndefined();
    expect(proofOf({ ...ticked, proved: true })).toBeUndefined();
    expect(proofOf({ ...ticked, proved: true, proofPressure: "13 stone" })).toBeUndefined();
    for (const unsaid of ["ballAtBottom", "smokeSeen"])
      expect(proofOf({ ...ticked, [unsaid]: undefined, proved: true, proofPressure: "13" })).toBeUndefined();
    expect(proofOf({ ...ticked, proved: true, proofPressure: "13" })).toMatchObject({ pressure: { value: 13, unit: "inH2O" } });
    // A plain machine has no gauge to read.
    expect(proofOf({ ...ticked, proved: true }, { ...machine, kind: "plain" })).toEqual({ ballAtBottom: true, smokeSeen: true });
    expect(provedEarlier({ ...begun, proved: true, provedAt: new Date(START + 1).toISOString() })).toBe(false);
    expect(provedEarlier({ ...begun, proved: true, provedAt: new Date(START - 1).toISOString() })).toBe(true);
  });

  it("keeps of the vapour system what was read: the vent's command, the regulator, and cap-offs with a ball before them", () => {
    const capOff = { joint: "neck-hose", before: "1,9", hoseSide: "0.2", portSide: "", blankProved: true };
    const draft = { ...begun, ventAt: START - 5000, regulated: "0.4 psi", capOffs: [capOff, { ...capOff, before: "" }] };
    expect(evapSmokeRunOf(draft, machine, known, START)).toMatchObject({
      vent: { by: "command", at: -5, seconds: 180 },
      fuelLevel: 45,
      regulated: { value: 0.4, unit: "psi" },
      capOffs: [{ joint: "neck-hose", before: 1.9, hoseSide: 0.2, blankProved: true }],
    });
    expect(evapSmokeRunOf({ ...draft, vent: "plug", regulated: "" }, machine, known, START)).toMatchObject({
      vent: { by: "plug" },
    });
  });
});
