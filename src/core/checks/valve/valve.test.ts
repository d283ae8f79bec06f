import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { validate } from "../../input";
import { DEFAULT_HOUSE } from "../../shop/settings";
import { valve as record } from "../records.fixture";
import { judgeValve, type ValveRecord, valve } from ".";

const context = contextOf(NATURAL);
const says = (change: Partial<ValveRecord>) => judgeValve({ ...record, ...change }, context);
const leaks = { start: 18, end: 11, seconds: 60 };
const shut = { start: 18, end: 17.9, seconds: 60 };
const gone = { start: 18, end: 0, seconds: 2 };

describe("valve two-state test", () => {
  it("passes a valve that holds where it must and passes where it must, either way round", () => {
    expect(says({ temperature: "cold" })).toMatchObject({ outcome: "pass", observation: "valve-good" });
    expect(says({})).toMatchObject({ outcome: "pass", observation: "valve-good-warm" });
    expect(says({ joint: "vent-valve", rests: "open", rest: gone, energised: shut }).outcome).toBe("pass");
    // A rest state that is not this car's own is a test held the wrong way round.
    expect(says({ rests: "open", rest: gone, energised: shut })).toMatchObject({ outcome: "void" });
  });

  it("a click proves the coil, not the seat", () => {
    const verdict = says({ rest: leaks });
    expect(verdict).toMatchObject({ outcome: "fail", observation: "valve-leaks:purge-valve" });
    expect(verdict.reasons[0]).toMatch(/clicks: that proves the coil, not the seat/);
  });

  it("tells stuck from dead by the click", () => {
    expect(says({ energised: shut })).toMatchObject({ observation: "valve-stuck:purge-valve" });
    expect(says({ energised: shut }).reasons.join()).toMatch(/stuck or blocked/);
    expect(says({ energised: shut, clicked: false }).reasons.join()).toMatch(/dead coil or dead circuit/);
  });

  it("says nothing of the car by a new part on the bench", () => {
    expect(says({ part: "new" })).toMatchObject({ outcome: "pass" });
    expect(says({ part: "new" }).observation).toBeUndefined();
    expect(says({ part: "new", rest: leaks }).reasons).toContain("do not fit it");
    expect(valve.onBench?.({ ...record, part: "new" })).toBe(true);
  });

  it("is not sure of a seat watched too briefly", () => {
    expect(says({ rest: { start: 18, end: 18, seconds: 5 } }).outcome).toBe("unsure");
  });

  it("follows the house's school on a weak valve", () => {
    const clean = contextOf(NATURAL, { house: { ...DEFAULT_HOUSE, weakValve: "clean" } });
    expect(judgeValve({ ...record, rest: leaks }, clean).reasons.join()).toMatch(/temporary repair with a re-check date/);
    expect(says({ rest: leaks }).reasons.join()).toMatch(/replace it/);
  });

  it("warns before 12 V, and plans the purge valve's smoke by the house's entry and gas", () => {
    const plan = (house = DEFAULT_HOUSE) =>
      valve.plan(contextOf(NATURAL, { house }), { joint: "purge-valve", power: "12v", rests: "closed" });
    expect(plan().cautions).toContain("twelve-volt");
    expect(
      plan()
        .displaces.map((d) => d.what)
        .join(),
    ).toMatch(/unplugged/);
    expect(
      plan()
        .steps.map((s) => s.text)
        .join(),
    ).toMatch(/inert gas smoke in at the service port/);
    const other = { ...DEFAULT_HOUSE, evapEntry: "filler-neck", evapGas: "air" } as const;
    expect(
      plan(other)
        .steps.map((s) => s.text)
        .join(),
    ).toMatch(/shop air smoke in at the filler neck/);
  });

  it("one state decides where it is bad, and never passes by itself, on either kind of valve", () => {
    const only = (change: Partial<ValveRecord>) => {
      const { rest: _, energised: __, ...bare } = record;
      return judgeValve({ ...bare, ...change }, context);
    };
    expect(only({ rest: leaks })).toMatchObject({ outcome: "fail", observation: "valve-leaks:purge-valve" });
    expect(only({ energised: shut })).toMatchObject({ outcome: "fail", observation: "valve-stuck:purge-valve" });
    const vent = { joint: "vent-valve", rests: "open" } as const;
    expect(only({ ...vent, rest: shut })).toMatchObject({ outcome: "fail", observation: "valve-stuck:vent-valve" });
    expect(only({ ...vent, energised: leaks })).toMatchObject({ outcome: "fail", observation: "valve-leaks:vent-valve" });
    for (const half of [{ rest: shut }, { energised: gone }, { ...vent, rest: gone }, { ...vent, energised: shut }]) {
      const verdict = only(half);
      expect(verdict).toMatchObject({ outcome: "unsure", headline: expect.stringContaining("was not tried") });
      expect(verdict.observation).toBeUndefined();
      expect(valve.claims({ ...record, ...half } as ValveRecord, verdict, context).every((a) => a.says === "open")).toBe(true);
    }
    expect(() => validate(valve.fields.schema, { ...record, rest: undefined, energised: undefined })).toThrow(/at least one/);
  });
});
