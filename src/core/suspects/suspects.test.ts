import { describe, expect, it } from "vitest";
import { CHECKS } from "../checks";
import { contextOf, NATURAL, TURBO, TWO_BANKS } from "../core.fixture";
import { type Cause, CODE_TEXTS, causesOf, codeObservations, codeText, SYMPTOMS } from "../faults";
import { layoutOf, reachOf, usualSetup, type VehicleFacts } from "../vehicle";
import { LIKELIHOOD_ROWS, likelihood } from "./likelihoods";
import { type Now, nextSteps } from "./next";
import { priorOdds } from "./priors";
import { type Evidence, weighSuspects, weightInWords } from "./weigh";

const causes = (facts: VehicleFacts) => causesOf(layoutOf(facts), facts);
const seen = (...observations: string[]): Evidence[] => observations.map((observation) => ({ observation, entry: observation }));
const top = (facts: VehicleFacts, ...observations: string[]) => weighSuspects(causes(facts), seen(...observations))[0]?.cause;

describe("causes", () => {
  it("are those the vehicle can have", () => {
    const ids = (facts: VehicleFacts) => causes(facts).map((c) => c.id);
    expect(ids(NATURAL)).not.toContain("cold-pipe-split");
    expect(ids(TURBO)).toContain("cold-pipe-split");
    expect(ids(TWO_BANKS)).toContain("manifold-gasket-2");
    expect(ids({ ...NATURAL, metering: "map" })).not.toContain("meter-low");
    expect(ids({ ...NATURAL, fitted: [] })).not.toContain("pcv-hose");
  });

  it("stand each on a joint of the map, where they are a place", () => {
    for (const facts of [NATURAL, TURBO, TWO_BANKS]) {
      const joints = layoutOf(facts).joints.map((j) => j.id);
      for (const cause of causes(facts)) if (cause.joint) expect(joints).toContain(cause.joint);
    }
  });
});

describe("tables", () => {
  it("give probabilities, a reason and words for every row", () => {
    for (const [observation, row] of LIKELIHOOD_ROWS) {
      expect(row.says && row.reason).toBeTruthy();
      for (const p of Object.values(row.given)) expect(p > 0 && p < 1, observation).toBe(true);
    }
  });

  it("give each trait trim outcomes that add up to about one", () => {
    const traits = new Set(causes(TURBO).map((c) => c.trait));
    const outcomes = Object.entries(CHECKS.trims.rows).flatMap(([says, row]) => (says.includes("bank") ? [] : row));
    for (const trait of traits) {
      const sum = outcomes.reduce((total, row) => total + (row.given[trait] ?? row.given.other), 0);
      expect(sum, trait).toBeGreaterThan(0.85);
      expect(sum, trait).toBeLessThan(1.25);
    }
  });

  it("know every symptom and every code's observation", () => {
    const known = new Set(LIKELIHOOD_ROWS.keys());
    for (const [id] of SYMPTOMS) expect(known).toContain(`symptom:${id}`);
    for (const { observation } of CODE_TEXTS) if (observation) expect(known).toContain(observation);
  });
});

describe("codes", () => {
  it("have our own words, whatever the case they are typed in; unknown ones are accepted", () => {
    expect(codeText("p0171")?.text).toBe("Mixture too lean, bank 1");
    expect(codeText("P3FFF")).toBeUndefined();
  });
  it("count once, and lean on one of two banks counts as that", () => {
    expect(codeObservations(["P0171", "P2187"], 1)).toEqual(["code:lean"]);
    expect(codeObservations(["P0174"], 2)).toEqual(["code:one-bank-lean"]);
    expect(codeObservations(["P0171", "P0174"], 2)).toEqual(["code:lean"]);
    expect(codeObservations(["B1325"], 1)).toEqual([]);
  });
});

describe("weighing", () => {
  it("gives odds that add up to one, priors alone without evidence", () => {
    const suspects = weighSuspects(causes(NATURAL), []);
    expect(suspects.reduce((sum, s) => sum + s.odds, 0)).toBeCloseTo(1, 9);
    expect(suspects.every((s) => s.because.length === 0)).toBe(true);
    expect(suspects.find((s) => s.cause.trait !== "healthy")?.cause.prior).toBe(Math.max(...causes(NATURAL).map((c) => c.prior)));
  });

  it("does not depend on the order of the evidence", () => {
    const all = seen("code:lean", "symptom:hiss-idle", "lean-fades-with-flow", "look-clean");
    const odds = (list: Evidence[]) => weighSuspects(causes(NATURAL), list).map((s) => [s.cause.id, s.odds.toFixed(12)]);
    expect(odds(all.toReversed())).toEqual(odds(all));
  });

  it("explains the odds by its contributions: prior times factors", () => {
    const suspects = weighSuspects(causes(NATURAL), seen("code:lean", "symptom:brake-hard", "lean-fades-with-flow"));
    const all = causes(NATURAL);
    const before = new Map(priorOdds(all).map((odds, i) => [all[i]?.id, odds]));
    for (const s of suspects) {
      const product = s.because.reduce((odds, b) => odds * b.factor, before.get(s.cause.id) as number);
      expect(product).toBeCloseTo(s.odds, 9);
      expect(s.because.every((b) => b.says && b.reason)).toBe(true);
    }
  });

  it.each<[VehicleFacts, string[], (c: Cause | undefined) => boolean]>([
    [NATURAL, ["lean-fades-with-flow", "symptom:brake-hard"], (c) => c?.id === "booster-hose"],
    [NATURAL, ["lean-constant", "code:air-meter"], (c) => c?.trait === "meter-low"],
    [NATURAL, ["lean-grows-with-flow", "symptom:low-power"], (c) => c?.trait === "fuel-supply"],
    [TURBO, ["rich-under-boost", "code:low-boost", "symptom:hiss-load"], (c) => c?.trait === "charge-leak"],
    [TWO_BANKS, ["lean-fades-bank-2"], (c) => c?.id === "manifold-gasket-2"],
    [NATURAL, ["trims-normal", "airflow-normal", "vacuum-normal"], (c) => c?.id === "healthy"],
    [TURBO, ["smoke-inside-path"], (c) => c?.trait === "inside-leak"],
    [NATURAL, ["lean-fades-with-flow", "smoke-at:pcv-hose"], (c) => c?.id === "pcv-hose"],
  ])("%# points where the trade would look", (facts, observations, right) => {
    expect(right(top(facts, ...observations))).toBe(true);
  });

  it("clears only the joints that a smoke run put to the test", () => {
    const reached = reachOf(layoutOf(NATURAL), usualSetup(layoutOf(NATURAL), "air-meter")).tested.map((j) => j.id);
    const before = weighSuspects(causes(NATURAL), seen("lean-fades-with-flow"));
    const after = weighSuspects(causes(NATURAL), [
      ...seen("lean-fades-with-flow"),
      { observation: "smoke-none-outside", entry: "run", tested: reached },
    ]);
    const odds = (list: typeof before, id: string) => list.find((s) => s.cause.id === id)?.odds as number;
    expect(odds(after, "pcv-hose")).toBeLessThan(odds(before, "pcv-hose") / 2);
    expect(odds(after, "booster-diaphragm")).toBeGreaterThan(odds(before, "booster-diaphragm"));
  });

  it("lets an observation nobody knows change nothing", () => {
    const plain = weighSuspects(causes(NATURAL), seen("code:lean"));
    expect(weighSuspects(causes(NATURAL), seen("code:lean", "tea-leaves"))).toEqual(plain);
    expect(likelihood("tea-leaves", causes(NATURAL)[0] as Cause, undefined)).toBeUndefined();
  });

  it.each([
    [1, "hardly counts"],
    [6, "×6.0 for"],
    [0.25, "×4.0 against"],
    [25, "×25 for"],
  ])("says %f as %s", (factor, words) => {
    expect(weightInWords(factor)).toBe(words);
  });
});

describe("next best check", () => {
  const rank = (facts: VehicleFacts, evidence: Evidence[], done: Parameters<typeof nextSteps>[2] = [], now?: Now) =>
    nextSteps(weighSuspects(causesOf(layoutOf(facts), facts), evidence), contextOf(facts), done, now).checks;

  it("offers each way in, and trims only where they say something", () => {
    expect(rank(NATURAL, []).map((n) => n.check)).toContain("trims");
    expect(rank({ ...NATURAL, metering: "map" }, []).map((n) => n.check)).not.toContain("trims");
    expect(rank(TURBO, []).flatMap((n) => n.place ?? [])).toContain("hot-pipe-clamp");
  });

  it("ranks by expected minutes to a confirmed cause, says why, and every number is finite", () => {
    const list = rank(NATURAL, seen("code:lean"));
    expect(list.map((n) => n.toCause)).toEqual(list.map((n) => n.toCause).toSorted((a, b) => a - b));
    for (const n of list) {
      expect(n.bits).toBeGreaterThanOrEqual(-1e-12);
      expect(Number.isFinite(n.toCause)).toBe(true);
      expect(n.toCause).toBeGreaterThan(0);
      expect(n.why).toMatch(/^(rules out about \d+ %|rules out little) in about \d+ min: /);
    }
  });

  it("says so where no check saves the minutes that it takes, and puts what tells the most for them first", () => {
    const quiet = rank(NATURAL, seen("trims-normal", "vacuum-normal", "complaint-stays-away"));
    expect(quiet[0]?.beats).toMatch(/^no check saves as many minutes as it takes by now/);
    const worth = quiet.filter((n) => !n.notNow).map((n) => n.bits / n.minutes);
    expect(worth[0]).toBeGreaterThan(Math.max(...worth.slice(5)));
  });

  it("starts cheap, and does not offer the same again first", () => {
    const first = rank(NATURAL, seen("code:lean"))[0];
    expect(["look", "trims", "probe"]).toContain(first?.check);
    const done = [{ check: "look" as const }, { check: "trims" as const }];
    expect(["smoke", "probe"]).toContain(rank(NATURAL, seen("code:lean", "look-clean", "lean-fades-with-flow"), done)[0]?.check);
  });

  it("expects little once the cause is all but certain", () => {
    const sure = rank(
      NATURAL,
      seen("lean-fades-with-flow", "symptom:brake-hard", "smoke-at:booster-hose", "look-found:booster-hose"),
    );
    const open = rank(NATURAL, seen("lean-fades-with-flow"));
    expect(Math.max(...sure.map((n) => n.bits))).toBeLessThan(Math.max(...open.map((n) => n.bits)) / 2);
  });
});
