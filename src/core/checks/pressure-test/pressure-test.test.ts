import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO } from "../../core.fixture";
import { toRecord } from "../../form";
import { validate } from "../../input";
import { formatQuantity } from "../../units";
import { CHECKS, judgeCheck } from "..";
import { pressure as tested } from "../records.fixture";
import { type PressureTest, pressureTestFields, pressureTestForm } from "./fields";
import { planPressureTest } from "./plan";
import { testStage } from "./stage";

const context = contextOf({ ...TURBO, maxBoost: { value: 1, unit: "bar" } });
/** The same car where nobody wrote its boost down. */
const unsaid = contextOf(TURBO);
const bar = (value: number) => ({ value, unit: "bar", kind: "gauge" }) as const;
const judge = (change: Partial<PressureTest> = {}, within = context) =>
  judgeCheck("pressure-test", validate(pressureTestFields.schema, { ...tested, ...change }), within);
const airAt = (joint: string, from: number) => ({ joint, sign: "soap", from: bar(from) }) as const;
const why = (change: Partial<PressureTest>, within = context) => judge(change, within).reasons.join("; ");

describe("the test stage", () => {
  const all = { maxBoost: bar(1.4), ratings: { tool: bar(2), bladder: bar(1.3), part: bar(1.5) } };
  it("is the lowest of boost, ratings and ceiling, and names which", () => {
    const of = (change: object) => {
      const { pressure, binds } = testStage({ ...all, ...change }, unsaid);
      return [pressure / 1e5, binds];
    };
    expect(of({})).toEqual([1.2, expect.stringContaining("shop's ceiling")]);
    expect(of({ maxBoost: bar(0.9) })).toEqual([0.9, expect.stringContaining("maximum boost")]);
    expect(of({ ratings: { tool: bar(0.8), bladder: bar(1.3) } })).toEqual([0.8, expect.stringContaining("adapter")]);
    expect(of({ ratings: { tool: bar(2), bladder: bar(0.5) } })).toEqual([0.5, expect.stringContaining("bladder")]);
    expect(of({ ratings: { tool: bar(2), part: bar(0.7) } })).toEqual([0.7, expect.stringContaining("weakest part")]);
    // A maker's ceiling of the shop's goes as any other limit.
    expect(
      testStage({}, { ...unsaid, limits: { ...unsaid.limits, boostCeiling: { value: 5e4, source: "lead" } } }).binds,
    ).toContain("lead");
  });
});

describe("a boost pressure test", () => {
  it("clears the joints that stood under pressure, and none beside them", () => {
    const verdict = judge();
    expect(verdict).toMatchObject({ outcome: "pass", observation: "escape-none" });
    expect(verdict.tested).toEqual(expect.arrayContaining(["cooler-inlet", "cooler-tank", "cooler-outlet", "cold-pipe-split"]));
    expect(verdict.tested).not.toContain("hot-pipe-clamp");
    expect(verdict.tested).not.toContain("manifold-gasket");
    expect(why({})).toMatch(/manifold is untested/);
    expect(why({})).toMatch(/hot pipe clamp was off for this check: untested/);
  });

  it("is judged by where air comes out: it names joint, sign and the pressure it began at", () => {
    const verdict = judge({ escapes: [airAt("cooler-outlet", 0.6), airAt("cooler-outlet", 0.8)], everywhere: false });
    expect(verdict).toMatchObject({ outcome: "fail", observation: "escape-at:cooler-outlet", tested: ["cooler-outlet"] });
    expect(verdict.headline).toBe("Air escapes at cooler outlet (soap bubbles, from 0.600 bar gauge on)");
    expect(verdict.reasons.join()).toMatch(/opens only under pressure: smoke could not have shown it/);
    // What bubbles at a breath would have smoked, too.
    expect(why({ escapes: [airAt("cooler-outlet", 0.05)] })).not.toMatch(/only under pressure/);
    expect(judge({ escapes: [airAt("cooler-outlet", 0.6), airAt("cooler-tank", 0.9)] })).toMatchObject({
      also: ["escape-at:cooler-tank"],
    });
  });

  it("never fails because it does not hold: valves overlap by design", () => {
    const open = { heldOpen: ["throttle"], blocked: ["pcv-valve", "breather-duct", "tailpipe", "snorkel"] };
    const verdict = judge({ ...open, flow: { value: 300, unit: "L/min" }, fillTime: 90, crank: "mark at 3 o'clock" });
    expect(verdict.outcome).toBe("pass");
    expect(verdict.tested).toContain("manifold-gasket");
    expect(verdict.reasons.join()).toMatch(/open engine valves is by design/);
    expect(why({ flow: { value: 300, unit: "L/min" } })).toMatch(/compare with nothing/);
    expect(why({ flow: { value: 300, unit: "L/min" }, crank: "pulley mark" })).toMatch(/only with the crank at the same mark/);
  });

  it.each<[string, Partial<PressureTest>, RegExp]>([
    [
      "above the engine's boost",
      { steps: [{ pressure: bar(0.5) }, { pressure: bar(1.15) }] },
      /is above the engine's maximum boost, 1\.0+ bar gauge/,
    ],
    ["above the bladder", { ratings: { tool: bar(2), bladder: bar(0.4) } }, /is above the bladder's rating/],
    ["past a plug", { blocked: ["booster-hose"], escapes: [airAt("booster-hose", 0.4)] }, /past the plug/],
    ["with an end open", { heldOpen: ["bypass-valve"], blocked: [] }, /snorkel stood open: seal it/],
  ])("%s proves nothing", (_, change, reason) => {
    expect(judge(change).outcome).toBe("void");
    expect(why(change)).toMatch(reason);
    expect(judge(change).observation).toBeUndefined();
  });

  it("as the trade does it, tail open and the throttle held: what passes the engine's valves is by design", () => {
    const open = { heldOpen: ["throttle"], blocked: ["pcv-valve"] };
    expect(judge(open)).toMatchObject({ outcome: "pass", observation: "escape-none" });
    const found = judge({ ...open, escapes: [airAt("cooler-outlet", 0.4)] });
    expect(found).toMatchObject({ outcome: "fail", observation: "escape-at:cooler-outlet" });
  });

  it("into the crankcase says the danger, keeps what was found elsewhere, and clears nothing there", () => {
    const into = { heldOpen: ["throttle", "pcv-valve"], blocked: [] };
    expect(why(into)).toMatch(/danger: the crankcase stood under the pressure/);
    expect(judge(into).tested).toContain("cooler-outlet");
    for (const id of ["oil-cap", "dipstick", "cover-gasket", "breather-port", "duct-split"])
      expect(judge(into).tested).not.toContain(id);
    expect(judge({ ...into, escapes: [airAt("cooler-outlet", 0.4)] })).toMatchObject({ outcome: "fail" });
  });

  it("keeps what came out before it was spoiled: a test cannot be made to prove nothing about it", () => {
    const asked = (change: Partial<PressureTest>, within = context) => {
      const record = { ...tested, ...change };
      return CHECKS["pressure-test"]
        .claims(record, judge(change, within), within)
        .filter((a) => a.says === "bad")
        .map((a) => a.atom)
        .filter((atom) => !atom.includes("/"));
    };
    const real = airAt("cooler-tank", 0.6);
    expect(asked({ blocked: ["booster-hose"], escapes: [real, airAt("booster-hose", 0.4)] })).toEqual(["tight@cooler-tank"]);
    expect(asked({ heldOpen: ["throttle"], escapes: [real] })).toEqual(["tight@cooler-tank"]);
    // Above what binds it says nothing of what only opened up there.
    const above = { steps: [{ pressure: bar(0.5) }, { pressure: bar(1.15) }] };
    expect(asked({ ...above, escapes: [real, airAt("cold-pipe-split", 1.12)] })).toEqual(["tight@cooler-tank"]);
    expect(asked({ escapes: [real] }, contextOf(NATURAL))).toEqual([]);
  });

  it.each<[string, Partial<PressureTest>, RegExp]>([
    ["with joints nobody went to", { everywhere: false }, /not every joint/],
    ["at too low a pressure", { steps: [{ pressure: bar(0.3) }, { pressure: bar(0.6) }] }, /go up to 1\.0+ bar gauge/],
    [
      "where the tools bear too little",
      { ratings: { tool: bar(0.5) }, steps: [{ pressure: bar(0.5) }] },
      /too little to clear anything/,
    ],
    [
      "with a gauge off its zero",
      { instrument: { ...tested.instrument, zero: { value: 0.2, unit: "bar" } } },
      /with nothing on it/,
    ],
    ["with a gauge too coarse", { instrument: { ...tested.instrument, division: { value: 0.5, unit: "bar" } } }, /too coarse/],
  ])("%s clears nothing", (_, change, reason) => {
    expect(judge(change)).toMatchObject({ outcome: "unsure", zones: [] });
    expect(why(change)).toMatch(reason);
  });

  it("cannot be made easier by typing a weaker engine than it is", () => {
    const weak = { maxBoost: bar(0.3), steps: [{ pressure: bar(0.3) }] };
    expect(judge(weak)).toMatchObject({ outcome: "unsure" });
    expect(why(weak)).toMatch(/go up to 1\.0+ bar gauge/);
    const unknown = { maxBoost: undefined as never, steps: [{ pressure: bar(0.6) }, { pressure: bar(1.2) }] };
    expect(judge(unknown, unsaid)).toMatchObject({ outcome: "unsure" });
    expect(why(unknown, unsaid)).toMatch(/maximum boost is not known/);
  });

  it("says nothing on an engine without a compressor, and not yet on one that nobody described", () => {
    expect(judge({}, contextOf(NATURAL)).outcome).toBe("void");
    expect(planPressureTest(contextOf(NATURAL), { entry: "", blocked: [], heldOpen: [], ratings: {} }).refused).toMatch(
      /no compressor/,
    );
    const { induction: _, ...undescribed } = TURBO;
    expect(judge({}, contextOf(undescribed)).outcome).not.toBe("pass");
  });

  it("is refused at the door where it cannot be", () => {
    const refused = (change: object) => {
      try {
        validate(pressureTestFields.schema, { ...tested, ...change });
        return "taken";
      } catch (e) {
        return (e as Error).message;
      }
    };
    expect(refused({ steps: [{ pressure: bar(0.8) }, { pressure: bar(0.4) }] })).toMatch(/on the way up/);
    expect(refused({ steps: [] })).toMatch(/first stop/);
    expect(refused({ escapes: [airAt("cooler-outlet", 1.1)] })).toMatch(/above the last stop/);
    expect(refused({ steps: [{ pressure: bar(15) }] })).toMatch(/15 psi/);
    expect(refused({ ratings: {} })).toMatch(/rated for/);
    expect(refused({ entry: "hatch" })).toMatch(/hatch/);
  });
});

describe("its plan", () => {
  const plan = (change: object = {}) =>
    planPressureTest(context, {
      entry: "hot-pipe-clamp",
      blocked: [],
      heldOpen: [],
      ratings: { tool: bar(2) },
      maxBoost: bar(1),
      ...change,
    });
  const said = (change: object) => (plan(change).warnings ?? []).join(" ");
  it("names the stage and what binds, and what would spoil it as it stands", () => {
    expect(plan().steps[0]?.text).toContain(`at most ${formatQuantity(bar(1))}: the engine's maximum boost binds`);
    expect(plan().cautions).toContain("compressed-air");
    expect(said({ supply: bar(0.8) })).toMatch(/supply stage stands no higher/);
    expect(said({ supply: bar(6) })).not.toMatch(/supply/);
    expect(said({ heldOpen: ["throttle", "pcv-valve"] })).toMatch(/crankcase would stand under the pressure/);
    expect(said({ heldOpen: ["throttle"] })).toMatch(/Still open: /);
    expect(said({ entry: "nowhere" })).toMatch(/Not from here/);
  });
});

describe("its form", () => {
  it("seals what is open as the throttle stands, and takes the engine's boost from its facts", () => {
    const known = { context, instruments: [], places: context.layout.joints.filter((j) => j.id === "hot-pipe-clamp") };
    const draft = {
      throttle: "yes",
      ratings: { tool: "30 psi" },
      steps: [{ pressure: "0.5 bar" }, { pressure: "1 bar" }],
      everywhere: "yes",
      instrument: { division: "0.02 bar" },
    };
    const { record, errors } = toRecord(pressureTestForm, draft, known);
    expect(errors).toBeUndefined();
    expect(record).toMatchObject({ heldOpen: ["throttle"], maxBoost: bar(1), escapes: [] });
    expect(record?.blocked.length).toBeGreaterThan(0);
    expect(toRecord(pressureTestForm, { ...draft, throttle: "no" }, known).record).toMatchObject({ heldOpen: [], blocked: [] });
  });
});
