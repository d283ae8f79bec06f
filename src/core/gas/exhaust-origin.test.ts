import { describe, expect, it } from "vitest";
import { judgeExhaust, type ReadExhaust } from "./exhaust-origin";

const sound: ReadExhaust = { fuel: "petrol", co: 0.1, co2: 14.9, o2: 0.1, hc: 30 };
/** Lean at the tail, about λ 1.10. */
const lean: ReadExhaust = { ...sound, co: 0, co2: 14.2, o2: 2.0, hc: 20 };
const said = (change: Partial<ReadExhaust>, of = lean) => {
  const { outcome, origin, reasons } = judgeExhaust({ ...of, ...change });
  return [outcome, origin, reasons.join("; ")] as const;
};

describe("what an exhaust's gases say", () => {
  it("is how much air there is; where it came in they never say by themselves", () => {
    expect(said({}, sound).slice(0, 2)).toEqual(["pass", "cannot-tell"]);
    expect(said({}).slice(0, 2)).toEqual(["fail", "cannot-tell"]);
    expect(said({})[2]).toMatch(/read alike/);
    expect(judgeExhaust(lean).excessAir).toBeCloseTo(0.1, 2);
    // Good exhaust thinned with a tenth of air reads the same, and gets the same answer.
    expect(said({ co2: 14.1, o2: 2.1 }).slice(0, 2)).toEqual(["fail", "cannot-tell"]);
  });
  it("is told by the ECU's own reading before the catalyst, and by that in closed loop only", () => {
    expect(said({ ecuLambda: 1.0, loop: "closed" }).slice(0, 2)).toEqual(["fail", "exhaust"]);
    expect(said({ ecuLambda: 1.09, loop: "closed" }).slice(0, 2)).toEqual(["fail", "mixture"]);
    expect(said({ ecuLambda: 1.0, loop: "open" }).slice(0, 2)).toEqual(["fail", "cannot-tell"]);
    expect(said({ ecuLambda: 1.0 }).slice(0, 2)).toEqual(["fail", "cannot-tell"]);
    expect(said({ ecuLambda: 0.9, loop: "closed" }).slice(0, 2)).toEqual(["fail", "cannot-tell"]);
  });
  it("is a cylinder that does not burn where fuel and air come out together, before any leak", () => {
    expect(said({ co: 2, o2: 2.5, co2: 12 })[2]).toMatch(/does not burn/);
  });
  it("is too little air where it is rich, and nothing where the analyser cannot tell", () => {
    expect(said({ co: 3, co2: 12.5, o2: 0.1 }).slice(0, 2)).toEqual(["fail", "mixture"]);
    expect(said({ co: 0.1, co2: 14.6, o2: 0.8 })[0]).toBe("unsure");
  });
  it("is refused where it cannot be", () => {
    expect(() => judgeExhaust({ ...lean, ecuLambda: 14.7 })).toThrow(/lambda/);
    expect(() => judgeExhaust({ ...lean, co2: 0 })).toThrow(/nothing burned/);
  });
});
