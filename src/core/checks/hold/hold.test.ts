import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL } from "../../core.fixture";
import { validate } from "../../input";
import { CHECKS, judgeCheck } from "..";
import { gauge, hold as record } from "../records.fixture";
import { type HoldRecord, holdFields, judgeHold, lossIn60 } from ".";

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

describe("what moves", () => {
  const drawn = { moved: true, reach: "full", back: "free", venting: "free" } as const;
  it.each<[string, Partial<HoldRecord>, string, RegExp]>([
    ["all the way and back", drawn, "pass", /holds/],
    ["and sticks on its way back", { ...drawn, back: "sticks" }, "fail", /sticks on its way back/],
    ["and goes back slowly", { ...drawn, back: "slow" }, "fail", /goes back slowly/],
    ["not all the way", { ...drawn, reach: "short" }, "fail", /does not come all the way/],
    ["and is not let go", { ...drawn, venting: "blocked" }, "fail", /vent port does not vent/],
  ])("%s", (_, change, outcome, headline) => {
    expect(says(change)).toMatchObject({ outcome });
    expect(says(change).headline).toMatch(headline);
  });
  it("cannot be drawn in before it starts", () => {
    const vacuum = (value: number) => ({ value, unit: "inHg", kind: "vacuum" });
    expect(() => validate(holdFields.schema, { ...record, startsAt: vacuum(14), fullAt: vacuum(5) })).toThrow(
      /before it starts to move/,
    );
    expect(() => validate(holdFields.schema, { ...record, startsAt: vacuum(5), fullAt: vacuum(14) })).not.toThrow();
  });
});

describe("a shared supply", () => {
  const diesel = contextOf(DIESEL);
  const supply = (end: number, isolated?: string[]) => {
    const held: HoldRecord = {
      ...record,
      joint: "flap-line",
      part: "line",
      still: [
        [0, 20],
        [60, end],
      ],
      wiggled: [
        [0, 20],
        [40, end],
      ],
      ...(isolated ? { isolated } : {}),
    };
    return { record: held, verdict: judgeHold(held, diesel) };
  };
  const says = (...runs: ReturnType<typeof supply>[]) => CHECKS.hold.together?.(runs, diesel.layout);

  it("is told apart by its branches: what changes with one off convicts it, what stays clears it", () => {
    expect(says(supply(8))).toBeUndefined();
    const boost = says(supply(8), supply(19.8, ["boost-solenoid"]), supply(8, ["egr-solenoid"]));
    expect(boost?.within).toEqual(expect.arrayContaining(["boost-pipe", "boost-diaphragm"]));
    expect(boost?.within).not.toContain("egr-pipe");
    expect(boost?.cleared).toContain("egr-pipe");
    expect(boost?.says.join()).toMatch(/holds with the boost solenoid shut off: that branch/);
    // Nothing was lost to begin with: nothing is convicted.
    expect(says(supply(19.8), supply(19.8, ["boost-solenoid"]))).toBeUndefined();
  });

  it("proves nothing of itself with a branch off", () => {
    const { record: apart, verdict } = supply(19.8, ["boost-solenoid"]);
    expect(CHECKS.hold.claims(apart, verdict, diesel)).toEqual([]);
    expect(CHECKS.hold.setup?.(apart)).toContain("boost-solenoid");
  });
});

describe("a booster check valve", () => {
  it("is offered, and held like any other part of the branch", () => {
    expect(CHECKS.hold.places?.(context)).toContain("booster-check-valve");
    const verdict = judgeCheck("hold", { ...record, joint: "booster-check-valve", part: "check-valve" }, context);
    expect(verdict).toMatchObject({ outcome: "pass" });
  });
});
