import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FUELS, type GasFuel, lambdaOf, lambdaWithin } from "./exhaust";

const none = { co: 0, o2: 0, hc: 0 };
const fuels = Object.keys(FUELS) as GasFuel[];

describe("lambda from exhaust gas", () => {
  it.each(fuels)("is exactly one where nothing is left over, burning %s", (fuel) => {
    expect(lambdaOf({ ...none, co2: 14.7 }, fuel)).toBeCloseTo(1, 12);
  });
  it("is what published composition gives: 14.23 % carbon dioxide with 2.025 % oxygen is 1.100", () => {
    expect(lambdaOf({ ...none, co2: 14.23, o2: 2.025 })).toBeCloseTo(1.1, 3);
    expect(lambdaOf({ co: 0, co2: 12, o2: 0, hc: 0, no: 0 })).toBeCloseTo(1, 12);
  });
  it("rises with oxygen and falls with what did not burn", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 16, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        (co2, o2, more) => {
          const at = { co: 0.2, co2, o2, hc: 60 };
          expect(lambdaOf({ ...at, o2: o2 + more })).toBeGreaterThan(lambdaOf(at));
          expect(lambdaOf({ ...at, co: 0.2 + more })).toBeLessThan(lambdaOf(at));
          expect(lambdaOf({ ...at, hc: 60 + 500 * more })).toBeLessThan(lambdaOf(at));
        },
      ),
    );
  });
  it("cannot tell a lean mixture from good exhaust thinned with a tenth of air: both read alike", () => {
    const burntLean = lambdaWithin({ ...none, co2: 14.2, o2: 2.0 });
    const thinned = lambdaWithin({ ...none, co2: 14.1, o2: 2.1 });
    expect(burntLean.low).toBeLessThan(thinned.value);
    expect(burntLean.high).toBeGreaterThan(thinned.value);
  });
  it("has an interval that holds the value, wider the coarser the share", () => {
    const { value, low, high } = lambdaWithin({ co: 0.3, co2: 14.8, o2: 0.4, hc: 80 });
    expect(low).toBeLessThan(value);
    expect(high).toBeGreaterThan(value);
    expect(high - low).toBeLessThan(0.05);
  });
  it("refuses an exhaust that is none", () => {
    expect(() => lambdaOf({ ...none, co2: 0, o2: 20.9 })).toThrow(/nothing burned/);
    expect(() => lambdaOf({ ...none, co2: 14, o2: -0.1 })).toThrow(RangeError);
    expect(() => lambdaOf({ co: 40, co2: 40, o2: 40, hc: 0 })).toThrow(RangeError);
  });
});
