import { describe, expect, it } from "vitest";
import { airflow } from "../checks/airflow";
import { houseAgent, planProbe } from "../checks/probe";
import { airflow as breathing, survey, valve as valveRecord } from "../checks/records.fixture";
import { judgeSmoke, planSmoke, type SmokeRun } from "../checks/smoke";
import { judgeTrims } from "../checks/trims";
import { judgeValve, valve } from "../checks/valve";
import { contextOf, NATURAL, smokeRun, TURBO } from "../core.fixture";
import { causesOf } from "../faults";
import { nextSteps, weighSuspects } from "../suspects";
import { usualSetup, type VehicleFacts } from "../vehicle";
import { DEFAULT_HOUSE, HOUSE_QUESTIONS, type HouseMethods, type HouseQuestion } from "./house";
import { DEFAULT_SHOP } from "./settings";

const house = (change: Partial<HouseMethods>, facts: VehicleFacts = NATURAL) =>
  contextOf(facts, { house: { ...DEFAULT_HOUSE, ...change } });
const machine = { id: "m", kind: "low-pressure" as const, service: [], ...smokeRun().machine };
const steps = (change: Partial<HouseMethods>, facts: VehicleFacts = NATURAL, entry = "air-meter") => {
  const context = house(change, facts);
  return planSmoke(context, { ...usualSetup(context.layout, entry), machine })
    .steps.map((s) => s.text)
    .join("\n");
};
/** A run of the crankcase by itself: no engine valve lets anything through. */
const sealedRun = (flow: number, change: Partial<SmokeRun> = {}) =>
  smokeRun(flow, { entry: "dipstick", blocked: ["pcv-valve", "breather-duct"], heldOpen: [], arrivals: [], ...change });

describe("house methods", () => {
  it("are twelve questions, each with a default and at least one other school", () => {
    expect(Object.keys(HOUSE_QUESTIONS)).toHaveLength(12);
    for (const question of Object.keys(HOUSE_QUESTIONS) as HouseQuestion[]) {
      const schools = Object.keys(HOUSE_QUESTIONS[question].schools);
      expect(schools.length, question).toBeGreaterThanOrEqual(2);
      expect(DEFAULT_HOUSE[question]).toBe(schools[0]);
    }
    expect(DEFAULT_SHOP.house).toEqual(DEFAULT_HOUSE);
  });

  it("dye: looks with UV, warns where makers forbid it, and reads residue", () => {
    expect(steps({})).toMatch(/strong lamp/);
    expect(steps({ dye: "uv" })).toMatch(/UV lamp.*this maker allows dye/);
    const seen = smokeRun(8, { seen: [{ joint: "oil-cap", at: 60 }], noSmokeOutside: false });
    expect(judgeSmoke(seen, house({ dye: "uv" })).reasons.join()).toMatch(
      /residue inside a nested seal only means that seal works/,
    );
    expect(judgeSmoke(seen, house({})).reasons.join()).not.toMatch(/residue/);
  });

  it("verdict by ball, gauge or decay: the same quiet run of a closed part is held against another thing", () => {
    const sagging = sealedRun(0, { samples: sealedRun(0).samples.map(([t, q, p]) => [t, q, Math.min(p, 9)]) });
    expect(judgeSmoke(sagging, house({})).outcome).toBe("pass");
    const byGauge = judgeSmoke(sagging, house({ verdictBy: "gauge" }));
    expect(byGauge).toMatchObject({ outcome: "unsure", headline: expect.stringMatching(/gauge stays at 69 % of rated/) });
    const byDecay = judgeSmoke(sealedRun(0), house({ verdictBy: "decay" }));
    expect(byDecay).toMatchObject({ outcome: "unsure", headline: expect.stringMatching(/verdict is by decay/) });
    // Through open engine valves a fall says nothing: there the flow is read, whatever the school.
    expect(judgeSmoke(smokeRun(), house({ verdictBy: "decay" }))).toMatchObject({ outcome: "pass" });
    expect(judgeSmoke(sealedRun(0.3), house({})).headline).toMatch(/mm of openings still pass/);
  });

  it("first locator: what the shop begins with is sooner on a lean code, and the probe takes its agent", () => {
    const toCause = (first: HouseMethods["firstLocator"], check: string) => {
      const context = house({ firstLocator: first });
      const evidence = [{ observation: "code:lean", entry: "codes" }];
      const list = nextSteps(weighSuspects(causesOf(context.layout, context.vehicle), evidence), context, []).checks;
      return list.find((n) => n.check === check)?.toCause ?? Number.NaN;
    };
    expect(toCause("smoke", "smoke")).toBeLessThan(toCause("gas", "smoke"));
    expect(toCause("gas", "probe")).toBeLessThan(toCause("smoke", "probe"));
    expect(houseAgent({ ...DEFAULT_HOUSE, firstLocator: "spray" })).toBe("water");
    expect(
      planProbe(house({}), { agent: "water" })
        .steps.map((s) => s.text)
        .join(),
    ).toMatch(/Wet one spot/);
  });

  it("trim limit: the strict school acts where the common one still waits", () => {
    const lean = survey({ banks: [{ short: 0, long: 8 }] });
    const limits = (change: Partial<HouseMethods>) => judgeTrims(lean, house(change)).measures.map((m) => m.limit);
    expect(limits({})).toContain("beyond ±10 % act");
    expect(limits({ trimLimit: "strict" })).toContain("beyond ±5 % act");
    expect(judgeTrims(lean, house({ trimLimit: "strict" })).measures[0]?.limitSource).toMatch(/strict/);
  });

  it("boost leak by: low-pressure smoke is the first step, or only for the big ones", () => {
    expect(steps({}, TURBO, "hot-pipe-clamp")).toMatch(/air at boost pressure comes after it/);
    expect(steps({ boostBy: "air" }, TURBO, "hot-pipe-clamp")).toMatch(/found with air at boost pressure/);
    expect(steps({}, NATURAL)).not.toMatch(/boost/);
  });

  it("EVAP entry and gas: smoke to the far side of a purge valve goes the shop's way", () => {
    const plan = (change: Partial<HouseMethods>) =>
      valve
        .plan(house(change), { joint: "purge-valve", power: "scan-tool", rests: "closed" })
        .steps.map((s) => s.text)
        .join();
    expect(plan({})).toMatch(/inert gas smoke in at the service port/);
    expect(plan({ evapEntry: "purge-line" })).toMatch(/at the purge line/);
    expect(plan({ evapGas: "air" })).toMatch(/shop air smoke/);
  });

  it("valve found weak: replaced, or cleaned for a time", () => {
    const weak = { ...valveRecord, rest: { start: 18, end: 9, seconds: 60 } };
    expect(judgeValve(weak, house({})).reasons.join()).toMatch(/replace it/);
    expect(judgeValve(weak, house({ weakValve: "clean" })).reasons.join()).toMatch(/clean it and test again/);
  });

  it("cheap suspect first: the filter is tried, or swapped at once", () => {
    const restricted = {
      ...breathing,
      points: [
        {
          state: "wide-open" as const,
          rpm: 4500,
          maf: { value: 42, unit: "g/s" as const },
          map: { value: 72, unit: "kPa" as const },
        },
      ],
    };
    expect(airflow.judge(restricted, house({})).reasons.join()).toMatch(/before buying one/);
    expect(airflow.judge(restricted, house({ cheapSuspect: "swap" })).reasons.join()).toMatch(/swap the filter at once/);
  });

  it("total trim: product or sum", () => {
    const both = survey({ banks: [{ short: 10, long: 10 }] });
    const total = (change: Partial<HouseMethods>) => judgeTrims(both, house(change)).measures[0]?.value.value;
    expect(total({})).toBeCloseTo(21, 6);
    expect(total({ totalTrim: "sum" })).toBeCloseTo(20, 6);
  });
});
