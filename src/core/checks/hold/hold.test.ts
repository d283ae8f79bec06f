import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { gauge, hold as record } from "../records.fixture";
import { type HoldRecord, judgeHold, lossIn60 } from ".";

const context = contextOf(NATURAL);
const says = (change: Partial<HoldRecord>) => judgeHold({ ...record, ...change }, context);

describe("loss in 60 s", () => {
  it("is the share lost, brought to 60 s by a leak that falls with its vacuum", () => {
    expect(
      lossIn60(
        [
          [0, 20],
          [60, 19],
        ],
        0.1,
      ).share,
    ).toBeCloseTo(0.05, 9);
    expect(
      lossIn60(
        [
          [0, 20],
          [120, 18.05],
        ],
        0.1,
      ).share,
    ).toBeCloseTo(0.05, 9);
    const coarse = lossIn60(
      [
        [0, 20],
        [60, 19],
      ],
      0.5,
    );
    expect(coarse.low).toBeLessThan(0.05);
    expect(coarse.high).toBeGreaterThan(0.05);
  });
});

describe("hold test", () => {
  it("passes what holds still and wiggled and moves at once", () => {
    expect(says({})).toMatchObject({ outcome: "pass", observation: "hold-good", tested: ["booster-diaphragm"] });
  });

  it("fails what loses its vacuum left alone", () => {
    const verdict = says({
      still: [
        [0, 20],
        [60, 12],
      ],
    });
    expect(verdict).toMatchObject({ outcome: "fail", observation: "hold-leaks:booster-diaphragm" });
    expect(verdict.headline).toMatch(/40 % in 60 s/);
  });

  it("calls a part that holds until it is wiggled intermittent, which is a fault", () => {
    const verdict = says({
      wiggled: [
        [0, 20],
        [20, 14],
      ],
    });
    expect(verdict).toMatchObject({ outcome: "fail", observation: "hold-leaks:booster-diaphragm" });
    expect(verdict.headline).toMatch(/holds until it is wiggled: intermittent/);
  });

  it("is not sure while nobody wiggled it, while it was watched too briefly, or at the limit", () => {
    expect(says({ wiggled: [] }).headline).toMatch(/not wiggled yet/);
    expect(
      says({
        still: [
          [0, 20],
          [10, 20],
        ],
      }).headline,
    ).toMatch(/10 s only/);
    expect(
      says({
        still: [
          [0, 20],
          [60, 19],
        ],
      }).outcome,
    ).toBe("unsure");
    expect(says({ strokes: 9 }).headline).toMatch(/only after 9 strokes/);
  });

  it("looks beyond the diaphragm when it holds and does not move", () => {
    expect(says({ moved: false })).toMatchObject({ outcome: "fail", observation: "hold-stuck:booster-diaphragm" });
    expect(says({ freeByHand: false }).headline).toMatch(/stiff by hand/);
  });

  it("says so when the gauge is too coarse for the limit", () => {
    expect(says({ instrument: gauge({ division: 0.5 }) }).reasons.join()).toMatch(/too coarse/);
  });
});
