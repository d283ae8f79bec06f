import { describe, expect, it } from "vitest";
import { CHECK_IDS, CHECKS } from "../checks";
import { contextOf, SEALED_NECK, VAPOUR } from "../core.fixture";
import { causesOf, FAMILIES, type Family, findingPlaces } from "../faults";
import { layoutOf, type VehicleFacts } from "../vehicle";
import { familiesOf } from "./families";
import { likelihood } from "./likelihoods";
import { candidatesOf, nextSteps } from "./next";
import { type Evidence, weighSuspects } from "./weigh";

const EVAP: Family[] = ["evap"];
const causes = (facts: VehicleFacts = VAPOUR, families: readonly Family[] = EVAP) => causesOf(layoutOf(facts), facts, families);
const one = (observation: string, ...tested: string[]): Evidence => ({
  observation,
  entry: observation,
  ...(tested.length ? { tested } : {}),
});
const ranked = (...evidence: Evidence[]) => weighSuspects(causes(), evidence);
const first = (...evidence: Evidence[]) => ranked(...evidence)[0]?.cause.id;
const next = (evidence: Evidence[], facts: VehicleFacts = VAPOUR) =>
  nextSteps(weighSuspects(causes(facts), evidence), contextOf(facts), [], { standing: [] }, EVAP).checks;

describe("causes of the vapour system", () => {
  it.each<[string, Evidence[]]>([
    ["filler-cap", [one("code:evap-gross"), one("hold-leaks:filler-cap", "filler-cap")]],
    ["neck-hose", [one("code:evap-small"), one("smoke-at:neck-hose", "neck-hose", "filler-cap")]],
    ["canister-joint", [one("code:evap-very-small"), one("smoke-at:canister-joint", "canister-joint")]],
    ["tank-flange", [one("symptom:fuel-smell"), one("smoke-at:tank-flange", "tank-flange")]],
    ["purge-valve", [one("code:purge-high"), one("pulldown-creeps", "purge-valve")]],
    ["purge-valve", [one("symptom:hard-start-filled"), one("valve-leaks:purge-valve", "purge-valve")]],
    ["vent-open", [one("code:evap-gross"), one("pulldown-none"), one("pulldown-good-plugged", "purge-valve")]],
    ["vent-open", [one("code:vent"), one("valve-leaks:vent-valve", "vent-valve")]],
    ["vent-filter", [one("symptom:nozzle-clicks"), one("vent-blocked:vent-filter", "vent-filter")]],
    ["canister-blocked", [one("symptom:nozzle-clicks"), one("vent-blocked:canister-joint", "canister-joint")]],
    ["fill-limit-valve", [one("symptom:nozzle-clicks"), one("vent-blocked:fill-limit-valve", "fill-limit-valve")]],
    ["purge-stuck", [one("code:purge-low"), one("valve-stuck:purge-valve", "purge-valve")]],
    ["purge-circuit", [one("code:purge-circuit"), one("circuit-dead:purge-valve", "purge-valve")]],
    ["vent-circuit", [one("code:vent-circuit"), one("circuit-dead:vent-valve", "vent-valve")]],
    ["tank-sensor", [one("code:tank-sensor"), one("sensor-off")]],
  ])("%s is ranked first by what its check says", (cause, evidence) => {
    expect(first(...evidence)).toBe(cause);
  });

  it("a good check takes its own suspect down", () => {
    const odds = (id: string, ...evidence: Evidence[]) =>
      ranked(one("code:evap-small"), ...evidence).find((s) => s.cause.id === id)?.odds ?? 0;
    expect(odds("filler-cap", one("hold-good", "filler-cap"))).toBeLessThan(0.2 * odds("filler-cap"));
    expect(odds("tank-sensor", one("sensor-good"))).toBeLessThan(0.3 * odds("tank-sensor"));
    expect(odds("canister-joint", one("decay-tight", "canister-joint"))).toBeLessThan(0.5 * odds("canister-joint"));
    expect(odds("purge-valve", one("valve-good-warm", "purge-valve"))).toBeGreaterThan(
      odds("purge-valve", one("valve-good", "purge-valve")),
    );
  });

  it("fit the car: no cap cause twice, nothing of the vapour system where none is fitted", () => {
    expect(new Set(causes().map((c) => c.id)).size).toBe(causes().length);
    expect(causes({ ...VAPOUR, fitted: [] }).map((c) => c.id)).toEqual(["healthy"]);
    expect(causes(SEALED_NECK).map((c) => c.id)).not.toContain("neck-tank");
    const both = causes(VAPOUR, ["engine", "evap"]).map((c) => c.id);
    expect(both.filter((id) => id === "purge-valve")).toHaveLength(1);
    expect(both).toContain("manifold-gasket");
    expect(findingPlaces(layoutOf(VAPOUR), VAPOUR).map((p) => p.id)).toEqual(
      expect.arrayContaining(["vent-open", "tank-sensor", "filler-cap"]),
    );
  });
});

describe("families", () => {
  it.each<[string[], Family[]]>([
    [[], ["engine"]],
    [["code:lean"], ["engine"]],
    [["code:evap-small"], ["evap"]],
    [["symptom:nozzle-clicks"], ["evap"]],
    [
      ["code:lean", "code:purge-high"],
      ["engine", "evap"],
    ],
  ])("%j is weighed over %j", (story, families) => {
    expect(familiesOf(story, [])).toEqual(families);
  });
  it("a check of the vapour system brings it in", () => {
    expect(familiesOf([], ["decay"])).toEqual(["evap"]);
    expect(familiesOf(["code:lean"], ["cap"])).toEqual(["engine", "evap"]);
  });
});

describe("the tables of the vapour system", () => {
  it("hold probabilities with a reason a row, and know every outcome of every check", () => {
    const checks = CHECK_IDS.filter((id) => CHECKS[id].families?.includes("evap"));
    const rows = [FAMILIES.evap, ...checks.map((id) => CHECKS[id])].flatMap((o) => Object.entries(o.rows));
    for (const [observation, row] of rows) {
      for (const given of [row.given, row.own, row.tested]) {
        for (const p of Object.values(given ?? {})) expect(p > 0 && p < 1, observation).toBe(true);
      }
      expect(row.reason).toMatch(/^[a-z0-9].+[^.]$/);
      expect(row.says).not.toBe("");
    }
    for (const facts of [VAPOUR, SEALED_NECK]) {
      for (const candidate of candidatesOf(contextOf(facts), EVAP)) {
        for (const outcome of candidate.outcomes) {
          for (const cause of causes(facts))
            expect(likelihood(outcome, cause, candidate.tested), `${outcome} of ${cause.id}`).toBeDefined();
        }
      }
    }
  });

  it("leave the vapour system alone where the engine's own readings speak", () => {
    const cap = causes().find((c) => c.id === "filler-cap");
    const healthy = causes().find((c) => c.id === "healthy");
    if (!cap || !healthy) throw new Error("no such cause");
    for (const observation of ["code:lean", "lean-fades-with-flow", "vacuum-low"]) {
      expect(likelihood(observation, cap, undefined)?.value, observation).toBe(
        likelihood(observation, healthy, undefined)?.value,
      );
    }
  });
});

describe("the next check of the vapour system", () => {
  it("is one of its own, with minutes and a reason", () => {
    const list = next([one("code:evap-small")]);
    expect(list.map((n) => n.check)).toEqual(
      expect.arrayContaining(["evap-smoke", "decay", "pulldown", "cap", "vent-path", "tank-sensor", "valve"]),
    );
    expect(list.map((n) => n.check)).not.toContain("trims");
    expect(list[0]?.beats).toBeTruthy();
    for (const n of list) expect(n.minutes).toBeGreaterThan(0);
  });
  it("starts with what is cheap on a gross leak, and goes to the vent path when the pump clicks off", () => {
    const gross = next([one("code:evap-gross")]);
    expect(["evap-smoke", "pulldown", "look"]).toContain(gross[0]?.check);
    // The cap is the likeliest, and its tester the quickest: after the first run has been read with the cap as it was.
    const tester = gross.find((n) => n.check === "cap");
    expect(tester?.notNow).toMatch(/filler cap stays untouched until a run has been read/);
    expect(
      next([one("symptom:nozzle-clicks")])
        .slice(0, 3)
        .map((n) => n.check),
    ).toContain("vent-path");
  });
  it("offers no trace where a pump pulls the test, and no cap tester where there is no cap", () => {
    const evap = VAPOUR.evap as NonNullable<VehicleFacts["evap"]>;
    const kinds = (more: Partial<typeof evap>) =>
      next([one("code:evap-small")], { ...VAPOUR, evap: { ...evap, ...more } }).map((n) => n.check);
    expect(kinds({ monitor: "canister-pump" })).not.toContain("pulldown");
    expect(kinds({ neck: "capless" })).not.toContain("cap");
  });
  it("is worth little again from the same entry, and more from one that reaches what was left out", () => {
    const smoke = (facts: VehicleFacts) => {
      const evidence = [one("code:evap-small"), one("smoke-none-outside", "canister-joint", "tank-line", "tank-flange")];
      const done = [
        { check: "evap-smoke" as const, place: "service-port", tested: ["canister-joint", "tank-line", "tank-flange"] },
      ];
      const list = nextSteps(weighSuspects(causes(facts), evidence), contextOf(facts), done, { standing: [] }, EVAP).checks;
      return (place: string) => list.find((n) => n.check === "evap-smoke" && n.place === place)?.bits ?? 0;
    };
    const bits = smoke(SEALED_NECK);
    expect(bits("filler-cap")).toBeGreaterThan(2 * bits("service-port"));
  });
});
