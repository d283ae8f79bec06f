import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO, VAPOUR } from "../core.fixture";
import { causesOf } from "../faults";
import { type Belief, HAND_SEES, Search, type Way } from "./expected";
import { nextSteps } from "./next";
import { priorOdds, tableShares } from "./priors";
import { triedNot } from "./tried";
import { weighSuspects } from "./weigh";

const belief = (weights: readonly number[], confirm: readonly number[]): Belief => ({
  weights: Float64Array.from(weights),
  confirm: Float64Array.from(confirm),
});
const way = (outcomes: readonly (readonly number[])[], minutes: number, more: Partial<Way> = {}): Way => ({
  outcomes: outcomes.map((o) => Float64Array.from(o)),
  names: outcomes.map(() => []),
  minutes,
  fresh: 1,
  ...more,
});
const permutations = <T>(list: readonly T[]): T[][] =>
  list.length < 2
    ? [[...list]]
    : list.flatMap((one, i) => permutations(list.filter((_, k) => k !== i)).map((rest) => [one, ...rest]));

/** Minutes of one order of trying, reckoned car by car instead of by what is left open. */
function inOrder(order: readonly number[], { weights, confirm }: Belief): number {
  const total = weights.reduce((a, b) => a + b, 0);
  return weights.reduce((sum, weight, truth) => {
    const before = order.slice(0, order.indexOf(truth)).reduce((m, i) => m + (confirm[i] as number), 0);
    const all = order.reduce((m, i) => m + (confirm[i] as number), 0);
    const found = before + 2 * (confirm[truth] as number);
    // Missed, everything is tried and it comes back.
    return sum + (weight / total) * (HAND_SEES * found + (1 - HAND_SEES) * (all + 180));
  }, 0);
}

describe("minutes by hand", () => {
  it("are those of the best order of trying, whatever order the suspects stand in", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 20, max: 100 }), fc.integer({ min: 2, max: 8 })), { minLength: 1, maxLength: 5 }),
        (list) => {
          const known = belief(
            list.map(([w]) => w),
            list.map(([, c]) => c),
          );
          const best = Math.min(...permutations(list.map((_, i) => i)).map((order) => inOrder(order, known)));
          expect(new Search(-1, known).byHand()).toBeCloseTo(best, 6);
        },
      ),
    );
  });
  it("never exceed what it costs to leave the fault in, and are none where nothing is wrong", () => {
    expect(new Search(-1, belief([1, 1], [500, 900])).byHand()).toBeCloseTo(180, 9);
    expect(new Search(0, belief([1, 0], [1, 10])).byHand()).toBe(0);
  });
});

describe("a check first", () => {
  const four = belief([1, 1, 1, 1], [30, 30, 30, 30]);
  const search = new Search(-1, four);
  it("that tells nothing costs its minutes, and one that names the place saves what trying the others costs", () => {
    const [nothing] = search.oneAhead([
      way(
        [
          [0.5, 0.5, 0.5, 0.5],
          [0.5, 0.5, 0.5, 0.5],
        ],
        7,
      ),
    ]);
    expect(nothing).toBeCloseTo(search.byHand() + 7, 6);
    const each = [0, 1, 2, 3].map((i) => [0, 1, 2, 3].map((k) => (i === k ? 1 : 0)));
    const [names] = search.oneAhead([way(each, 7, { names: [[0], [1], [2], [3]] })]);
    // Two tries of five minutes, and one in twenty is missed.
    expect(names).toBeCloseTo(7 + HAND_SEES * 10 + (1 - HAND_SEES) * (5 + 180), 1);
  });
  it("is worth less done again, and no check makes the outlook two steps ahead worse than one", () => {
    const half = [
      [1, 1, 0, 0],
      [0, 0, 1, 1],
    ];
    const other = [
      [1, 0, 1, 0],
      [0, 1, 0, 1],
    ];
    const ways = [way(half, 5), way(half, 5, { fresh: 0.1 }), way(other, 5)];
    const one = search.oneAhead(ways);
    const two = search.twoAhead(ways);
    expect(one[0]).toBeLessThan(one[1] as number);
    for (const [i, minutes] of two.entries()) expect(minutes).toBeLessThanOrEqual((one[i] as number) + 1e-9);
    // Two halvings tell all four apart: only two steps ahead sees it.
    expect(two[0]).toBeLessThan((one[0] as number) - 5);
  });
  it("waits for a suspect that is tried now where that is sooner", () => {
    const sureSearch = new Search(-1, belief([97, 1, 1, 1], [5, 30, 30, 30]));
    const ways = [
      way(
        [
          [1, 1, 0, 0],
          [0, 0, 1, 1],
        ],
        20,
      ),
    ];
    const now = sureSearch.tryNow(ways);
    expect(now?.suspect).toBe(0);
    expect(now?.minutes).toBeLessThan(sureSearch.oneAhead(ways)[0] as number);
  });
});

describe("what is known before any reading", () => {
  const causes = causesOf(contextOf(NATURAL).layout, NATURAL);
  it("adds up to one, has one car in seven with nothing wrong, and trusts the table by a power", () => {
    const shares = tableShares(causes);
    expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
    expect(shares[causes.findIndex((c) => c.trait === "healthy")]).toBeCloseTo(0.15, 12);
    const of = (id: string) => shares[causes.findIndex((c) => c.id === id)] as number;
    const prior = (id: string) => causes.find((c) => c.id === id)?.prior as number;
    expect(of("manifold-gasket") / of("oil-cap")).toBeCloseTo((prior("manifold-gasket") / prior("oil-cap")) ** 0.7, 9);
  });
  it("falls for what was repaired, and says so of nothing else", () => {
    const odds = priorOdds(causes.map((c) => (c.id === "oil-cap" ? { ...c, repaired: true as const } : c)));
    const before = priorOdds(causes);
    const at = causes.findIndex((c) => c.id === "oil-cap");
    expect(odds[at]).toBeLessThan((before[at] as number) / 8);
    for (const [i, one] of odds.entries()) if (i !== at) expect(one).toBeGreaterThan(before[i] as number);
  });
  it("is not moved for nothing wrong by what is only told: a stored code says what was", () => {
    const plain = weighSuspects(causes, []);
    const told = weighSuspects(causes, [
      { observation: "code:lean", entry: "codes" },
      { observation: "symptom:rough-idle", entry: "story" },
    ]);
    const healthy = (list: typeof plain) => list.find((s) => s.cause.trait === "healthy")?.odds;
    expect(healthy(told)).toBeCloseTo(healthy(plain) as number, 9);
    expect(told.find((s) => s.cause.id === "manifold-gasket")?.odds).toBeGreaterThan(
      plain.find((s) => s.cause.id === "manifold-gasket")?.odds as number,
    );
  });
});

describe("advice", () => {
  it.each([
    ["engine", NATURAL],
    ["turbo", TURBO],
    ["vapour", VAPOUR],
  ])("for a %s car does not offer again by hand what was tried, and is the same for the same", (_, facts) => {
    const context = contextOf(facts);
    const causes = causesOf(context.layout, facts);
    const evidence = [
      { observation: "lean-fades-with-flow", entry: "1" },
      { observation: "probe-at:vacuum-branch", entry: "2" },
    ];
    const suspects = weighSuspects(causes, evidence);
    const first = nextSteps(suspects, context, [{ check: "probe" }]);
    expect(first.byHand?.suspect.cause.id).toBe("vacuum-branch");
    expect(nextSteps(suspects, context, [{ check: "probe" }])).toBe(first);
    const tried = ["vacuum-branch"];
    const after = weighSuspects(causes, [...evidence, { observation: triedNot({ id: "vacuum-branch" }), entry: "3" }]);
    expect(nextSteps(after, context, [{ check: "probe" }], { standing: [], tried }).byHand?.suspect.cause.id).not.toBe(
      "vacuum-branch",
    );
  });
  it("offers a check that was void behind another, and one by the same tool less gladly", () => {
    const context = contextOf(NATURAL);
    const suspects = weighSuspects(causesOf(context.layout, NATURAL), [{ observation: "lean-fades-with-flow", entry: "1" }]);
    const smoke = (done: Parameters<typeof nextSteps>[2]) =>
      nextSteps(suspects, context, done).checks.find((n) => n.check === "smoke" && n.place === "gauge-port")?.bits ?? 0;
    const fresh = smoke([]);
    expect(smoke([{ check: "smoke", place: "gauge-port", void: true }])).toBeLessThan(fresh / 2);
    expect(smoke([{ check: "smoke", place: "oil-cap", void: true }])).toBeLessThan(fresh / 2);
    // A run that told something since shows that the machine works.
    expect(
      smoke([
        { check: "smoke", place: "oil-cap", void: true },
        { check: "smoke", place: "tailpipe", tested: [] },
      ]),
    ).toBeCloseTo(fresh, 9);
  });
});
