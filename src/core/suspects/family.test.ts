import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO, TWO_BANKS } from "../core.fixture";
import { CONFIRM_MINUTES, causesOf, findingPlaces } from "../faults";
import { layoutOf, type VehicleFacts } from "../vehicle";
import { LIKELIHOOD_ROWS, likelihood, observationWords } from "./likelihoods";
import { candidatesOf, confirmMinutes, type Now, nextSteps, waitFor } from "./next";
import { type Evidence, weighSuspects } from "./weigh";

const FLAPS: VehicleFacts = { ...NATURAL, fitted: [...NATURAL.fitted, "runner-flaps", "idle-air", "egr"] };
const weigh = (facts: VehicleFacts, evidence: Evidence[]) => weighSuspects(causesOf(layoutOf(facts), facts), evidence);
const one = (observation: string, ...tested: string[]): Evidence => ({
  observation,
  entry: observation,
  ...(tested.length > 0 ? { tested } : {}),
});
const first = (facts: VehicleFacts, ...evidence: Evidence[]) => weigh(facts, evidence)[0]?.cause.id;

describe("every cause of the family", () => {
  // The check that finds a cause, as it reads when it does.
  it.each<[string, VehicleFacts, Evidence[]]>([
    ["manifold-gasket", NATURAL, [one("lean-fades-with-flow"), one("smoke-at:manifold-gasket")]],
    ["manifold-gasket-1", TWO_BANKS, [one("lean-fades-bank-1"), one("smoke-at:manifold-gasket-1")]],
    ["throttle-gasket", NATURAL, [one("probe-at:throttle-gasket")]],
    ["plenum-crack", NATURAL, [one("probe-at:plenum-crack")]],
    ["injector-seals", NATURAL, [one("probe-at:injector-seals")]],
    ["gauge-port", NATURAL, [one("look-found:gauge-port"), one("lean-fades-with-flow")]],
    ["vacuum-branch", NATURAL, [one("pinch-recovers", "vacuum-branch")]],
    ["booster-hose", NATURAL, [one("symptom:brake-hard"), one("smoke-at:booster-hose")]],
    ["booster-diaphragm", NATURAL, [one("hold-leaks:booster-diaphragm", "booster-diaphragm")]],
    ["pcv-hose", NATURAL, [one("smoke-at:pcv-hose")]],
    ["pcv-diaphragm", NATURAL, [one("crankcase-suction"), one("smoke-at:pcv-diaphragm")]],
    ["oil-cap", NATURAL, [one("smoke-at:oil-cap")]],
    ["breather-blocked", NATURAL, [one("crankcase-positive"), one("vacuum-normal")]],
    ["purge-valve", NATURAL, [one("valve-leaks:purge-valve", "purge-valve")]],
    ["duct-split", NATURAL, [one("lean-constant"), one("smoke-at:duct-split")]],
    ["cold-pipe-split", TURBO, [one("rich-under-boost"), one("smoke-at:cold-pipe-split")]],
    ["egr-valve", TURBO, [one("valve-leaks:egr-valve", "egr-valve")]],
    ["exhaust-gasket", NATURAL, [one("symptom:ticking-cold"), one("smoke-at:exhaust-gasket")]],
    ["catalyst-blocked", NATURAL, [one("vacuum-slow-return"), one("ports-blocked:catalyst", "catalyst")]],
    ["ports-coked", NATURAL, [one("ports-blocked:intake-valves", "intake-valves")]],
    ["filter-clogged", NATURAL, [one("airflow-restricted"), one("ports-open", "throttle")]],
    ["throttle-coked", NATURAL, [one("airflow-restricted"), one("ports-blocked:throttle", "throttle")]],
    [
      "meter-low",
      NATURAL,
      [one("lean-constant"), one("airflow-reads-low"), one("smoke-none-outside", "duct-split", "duct-clamp", "breather-duct")],
    ],
    ["fuel-supply", NATURAL, [one("lean-grows-with-flow"), one("airflow-normal"), one("symptom:low-power")]],
    ["engine-mechanical", NATURAL, [one("vacuum-flick")]],
    ["idle-air-stuck", FLAPS, [one("valve-stuck:idle-air", "idle-air"), one("code:idle-high")]],
    ["flap-line", FLAPS, [one("chain-broken:flap-line", "flap-line")]],
    ["flap-circuit", FLAPS, [one("chain-broken:flap-circuit", "flap-circuit")]],
    [
      "flap-circuit",
      FLAPS,
      [one("output-dead:flap-solenoid", "flap-solenoid"), one("circuit-dead:flap-solenoid", "flap-solenoid")],
    ],
    [
      "flap-solenoid",
      FLAPS,
      [one("valve-stuck:flap-solenoid", "flap-solenoid"), one("circuit-good:flap-solenoid", "flap-solenoid")],
    ],
    ["flap-pipe", FLAPS, [one("symptom:comes-and-goes"), one("hold-leaks:flap-pipe", "flap-pipe")]],
    ["flap-diaphragm", FLAPS, [one("hold-leaks:flap-diaphragm", "flap-diaphragm")]],
    ["flap-shaft", FLAPS, [one("chain-broken:flap-shaft", "flap-shaft")]],
    ["flap-plate", FLAPS, [one("chain-broken:flap-plate", "flap-plate")]],
  ])("%s is ranked first by what its check says", (cause, facts, evidence) => {
    expect(first(facts, ...evidence)).toBe(cause);
  });

  it("has minutes to confirm it by hand, more for a gasket than for a hose", () => {
    for (const cause of causesOf(layoutOf(FLAPS), FLAPS)) {
      if (cause.trait !== "healthy") expect(CONFIRM_MINUTES[cause.trait], cause.id).toBeGreaterThan(0);
    }
    expect(CONFIRM_MINUTES["manifold-leak"]).toBeGreaterThan(3 * CONFIRM_MINUTES["branch-leak"]);
  });

  it("can be named by a finding, once each", () => {
    const places = findingPlaces(layoutOf(FLAPS), FLAPS);
    expect(new Set(places.map((p) => p.id)).size).toBe(places.length);
    for (const id of ["manifold-gasket", "filter-clogged", "fuel-supply", "flap-circuit"]) {
      expect(places.map((p) => p.id)).toContain(id);
    }
  });

  it("cannot be a flap where none are fitted", () => {
    expect(causesOf(layoutOf(NATURAL), NATURAL).some((c) => c.id.startsWith("flap-"))).toBe(false);
  });
});

describe("tables", () => {
  it("know every outcome that a check can bring, for every cause", () => {
    for (const facts of [NATURAL, TURBO, TWO_BANKS, FLAPS]) {
      const causes = causesOf(layoutOf(facts), facts);
      for (const c of candidatesOf(contextOf(facts))) {
        for (const outcome of c.outcomes) {
          for (const cause of causes) {
            const given = likelihood(outcome, cause, c.tested);
            expect(given, `${outcome} of ${cause.id}`).toBeDefined();
            expect(given?.reason).toBeTruthy();
          }
        }
      }
    }
  });

  it("say every observation in words", () => {
    for (const [kind, row] of LIKELIHOOD_ROWS) {
      const observation = kind.replace(":*", ":oil-cap");
      expect(observationWords(observation)).toBe(row.says);
    }
    expect(observationWords("tea-leaves")).toBe("tea leaves");
  });

  it("give a reason of its own to every place and every part put to the test", () => {
    for (const [observation, row] of LIKELIHOOD_ROWS) {
      if (row.own) expect(row.ownReason, observation).toBeTruthy();
      if (row.tested) expect(row.testedReason, observation).toBeTruthy();
      expect(observation.endsWith(":*")).toBe(row.own !== undefined);
    }
  });
});

describe("weighing the same thing twice", () => {
  it("counts the second run of a kind less than the first, and never against its direction", () => {
    const run = one("smoke-none-outside", "oil-cap", "pcv-hose");
    const odds = (n: number) =>
      weigh(
        NATURAL,
        Array.from({ length: n }, () => run),
      ).find((s) => s.cause.id === "pcv-hose")?.odds ?? 0;
    const [none, once, twice, thrice] = [odds(0), odds(1), odds(2), odds(3)] as [number, number, number, number];
    expect(once).toBeLessThan(none);
    expect(twice).toBeLessThan(once);
    expect(twice / once).toBeGreaterThan(once / none);
    expect(thrice / twice).toBeGreaterThan(twice / once);
  });

  it("counts two branches pinched apart in full: they are other places", () => {
    const both = weigh(NATURAL, [one("pinch-no-change", "booster-hose"), one("pinch-no-change", "purge-hose")]);
    const single = weigh(NATURAL, [one("pinch-no-change", "purge-hose")]);
    const ratio = (list: typeof both) =>
      (list.find((s) => s.cause.id === "purge-hose")?.odds ?? 0) / (list.find((s) => s.cause.id === "oil-cap")?.odds ?? 1);
    expect(ratio(both)).toBeCloseTo(ratio(single), 9);
  });
});

describe("what can be done now", () => {
  const rank = (now: Now, facts: VehicleFacts = NATURAL) =>
    nextSteps(weigh(facts, [one("code:lean")]), contextOf(facts), [], now).checks;

  it("counts warming up and cooling down, and says so", () => {
    const minutes = (engine: Now["engine"], check: string) =>
      rank({ standing: [], ...(engine ? { engine } : {}) })
        .toSorted((a, b) => (a.place ?? "").localeCompare(b.place ?? ""))
        .find((n) => n.check === check)?.minutes ?? 0;
    expect(minutes("cold", "trims") - minutes("warm", "trims")).toBe(8);
    expect(minutes("warm", "smoke") - minutes("cold", "smoke")).toBe(15);
    expect(minutes(undefined, "smoke")).toBe(minutes("cold", "smoke"));
    expect(rank({ standing: [], engine: "cold" }).find((n) => n.check === "trims")?.why).toMatch(/8 min of warming up counted/);
    expect(waitFor("look", "cold")).toBe(0);
  });

  it("puts what cannot be done last, with what has to change", () => {
    const dead = rank({ standing: [], engine: "does-not-run" });
    expect(dead.find((n) => n.check === "trims")?.notNow).toBe("the engine does not run");
    expect(dead[0]?.notNow).toBeUndefined();
    const order = dead.map((n) => Boolean(n.notNow));
    expect(order.toSorted((a, b) => Number(a) - Number(b))).toEqual(order);
    const hot = rank({ standing: [], engine: "hot-exhaust" });
    expect(hot.filter((n) => n.check === "smoke").every((n) => /exhaust is hot/.test(n.notNow ?? ""))).toBe(true);
    const commanded = rank({ standing: ["Purge valve commanded open"] });
    expect(commanded.every((n) => /Purge valve commanded open still stands/.test(n.notNow ?? ""))).toBe(true);
  });

  it("says why the first beats the second, and of no other", () => {
    const list = rank({ standing: [] });
    expect(list[0]?.beats).toMatch(
      /^a confirmed cause in about \d+ min, and after this check about \d+ of \d+ likely places left; second best, .*: \d+ min$/,
    );
    expect(list.slice(1).every((n) => n.beats === undefined)).toBe(true);
  });

  it("offers flaps, valves and borescope only where they are fitted", () => {
    const kinds = (facts: VehicleFacts) => new Set(candidatesOf(contextOf(facts)).map((c) => c.check));
    expect(kinds(FLAPS)).toContain("chain");
    expect(kinds(NATURAL)).not.toContain("chain");
    expect(kinds({ ...NATURAL, fuel: "diesel" })).not.toContain("probe");
  });
});

describe("going straight to a suspect", () => {
  it("is advised when a yes tells more than any check, never on a guess", () => {
    const sure = weigh(NATURAL, [one("lean-fades-with-flow"), one("probe-at:vacuum-branch")]);
    expect(nextSteps(sure, contextOf(NATURAL), []).byHand?.suspect.cause.id).toBe("vacuum-branch");
    expect(confirmMinutes(sure[0] as (typeof sure)[number])).toBe(5);
    const open = weigh(NATURAL, [one("code:lean")]);
    expect(nextSteps(open, contextOf(NATURAL), []).byHand).toBeUndefined();
    expect(confirmMinutes(open.find((s) => s.cause.id === "manifold-gasket") as (typeof open)[number])).toBe(35);
  });
});
