import { describe, expect, it } from "vitest";
import { validate } from "../input";
import { DEFAULT_LIMITS, DEFAULT_SHOP, type Shop, shopSchema } from "./settings";

const says = (change: Partial<Record<keyof Shop, unknown>>) => {
  try {
    validate(shopSchema, { ...DEFAULT_SHOP, ...change });
    return "taken";
  } catch (error) {
    return (error as Error).message;
  }
};
const machine = {
  id: "m1",
  name: "Fen smoker",
  ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: 300,
};

describe("shop settings", () => {
  it("have a source for every limit, and the trade's defaults", () => {
    for (const limit of Object.values(DEFAULT_LIMITS)) expect(limit.source).toBe("shop default");
    expect(DEFAULT_LIMITS).toMatchObject({
      trimGood: { value: 0.05 },
      trimAct: { value: 0.1 },
      machineProof: { value: 0.85 },
      smokeAutoOff: { value: 300 },
      steadyTime: { value: 5 },
    });
    expect(DEFAULT_LIMITS.warmCoolant.value).toBeCloseTo(348.15, 9);
  });

  it.each<[Partial<Record<keyof Shop, unknown>>, RegExp]>([
    [{}, /^taken$/],
    [{ machines: [machine] }, /^taken$/],
    [{ name: "" }, /Name the shop/],
    [{ limits: { ...DEFAULT_LIMITS, trimAct: { value: 0.2, source: " " } } }, /where this limit comes from/],
    [{ limits: { ...DEFAULT_LIMITS, trimAct: { value: Number.NaN, source: "us" } } }, /trimAct/],
    [{ limits: { ...DEFAULT_LIMITS, courage: { value: 1, source: "us" } } }, /courage/],
    [{ house: { totalTrim: "guess" } }, /totalTrim/],
    [{ machines: [{ ...machine, ratedPressure: { value: 13, unit: "psi" } }] }, /out of range for rated pressure. Did you mean/],
    [{ machines: [{ ...machine, ratedPressure: { value: 13, unit: "inH2O", kind: "absolute" } }] }, /gauge, not absolute/],
    [{ machines: [{ ...machine, maxFlow: { value: 12, unit: "inH2O" } }] }, /unit "inH2O" is not known here/],
    [{ machines: [{ ...machine, autoOff: 3 }] }, /at least 10 s/],
  ])("%j", (change, message) => {
    expect(says(change)).toMatch(message);
  });
});
