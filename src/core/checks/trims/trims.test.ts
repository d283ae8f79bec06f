import { describe, expect, it } from "vitest";
import { trimsTrial } from "../../../../bench/trims-trial";
import { contextOf, NATURAL, TURBO, TWO_BANKS } from "../../core.fixture";
import { ambientAtAltitude } from "../../gas/atmosphere";
import { fromSi } from "../../units";
import { judgeTrims, readSurvey, refusal, totalTrim } from "./judge";
import { type TrimPoint, type TrimSurvey, trimSurveySchema } from "./record";
import { fitShapes, manifoldFlux, SHAPE_IDS } from "./shapes";

const vehicle = NATURAL;
const context = contextOf(vehicle);

const point = (rpm: number, maf: number, map: number, ...banks: [number, number][]): TrimPoint => ({
  rpm,
  maf: { value: maf, unit: "g/s" },
  map: { value: map, unit: "kPa", kind: "absolute" },
  banks: banks.map(([short, long]) => ({ short, long })),
});
const survey = (...points: TrimPoint[]): TrimSurvey => ({
  source: { kind: "typed" },
  ambient: { value: 1013.25, unit: "hPa", kind: "absolute" },
  intakeTemperature: { value: 20, unit: "°C" },
  points,
});
const LEAN_IDLE = survey(
  point(720, 2.6, 33, [4, 13]),
  point(1500, 5.2, 30, [2, 6]),
  point(2500, 9.4, 30, [1, 4]),
  point(2200, 20, 62, [0.5, 1.5]),
  point(3600, 55, 94, [0, 0.5]),
);

describe("trims as a flow measurement", () => {
  it.each([
    [1.0e-3, 4.4, 1.1],
    [1.5e-3, 9.9, 2.6],
    [2.0e-3, 17.6, 4.6],
  ])("a hole of %f m shows the published shift at 2.6 g/s, 33 kPa and 10 g/s, 30 kPa", (diameter, idle, raised) => {
    const conditions = { ambient: ambientAtAltitude(0), intakeTemperature: 293.15, induction: "natural" as const };
    const area = 0.61 * (Math.PI / 4) * diameter ** 2;
    const shift = (flow: number, map: number) => ((area * manifoldFlux({ map }, conditions)) / flow) * 100;
    expect(shift(2.6e-3, 33e3)).toBeCloseTo(idle, 1);
    expect(shift(10e-3, 30e3)).toBeCloseTo(raised, 1);
  });

  it("adds long and short by product or by sum", () => {
    expect(totalTrim(10, 20, "product")).toBeCloseTo(0.32, 9);
    expect(totalTrim(10, 20, "sum")).toBeCloseTo(0.3, 9);
  });

  it("gives odds that add up to one, and a curve at every drawn point", () => {
    const [bank] = readSurvey(LEAN_IDLE, vehicle, "product", { good: 0.05, act: 0.1 });
    expect(bank?.shapes.map((s) => s.id).toSorted()).toEqual([...SHAPE_IDS].toSorted());
    expect(bank?.shapes.reduce((sum, s) => sum + s.odds, 0)).toBeCloseTo(1, 9);
    for (const fit of bank?.fits ?? []) expect(fit.curve.length).toBe(bank?.drawn.length);
    expect(bank?.fits[0]?.curve[0]).toBeGreaterThan(bank?.fits[0]?.curve.at(-1) as number);
  });

  it("takes a saturated trim as at least that much", () => {
    const conditions = { ambient: 101325, intakeTemperature: 293, induction: "natural" as const };
    const at = (flow: number, map: number, trim: number, saturated: -1 | 0 | 1 = 0) => ({
      flow,
      map,
      trim,
      scatter: 0,
      saturated,
    });
    const rest = [at(5e-3, 30e3, 0.21), at(10e-3, 30e3, 0.1), at(30e-3, 80e3, 0.03)];
    const clipped = fitShapes([at(2.6e-3, 33e3, 0.25), ...rest], conditions)[0];
    const censored = fitShapes([at(2.6e-3, 33e3, 0.25, 1), ...rest], conditions)[0];
    expect(censored?.id).toBe("fades-with-flow");
    expect(censored?.hole?.diameter).toBeGreaterThan(clipped?.hole?.diameter as number);
  });
});

describe("marks against surveys with a known truth", () => {
  it("ranks the true shape first in 95 of 100 with 0.8 % trim noise", () => {
    expect(trimsTrial(300, { trim: 0.008, maf: 0, model: 0 }, 3).first).toBeGreaterThanOrEqual(0.95);
  });
  it("ranks it first in 85 of 100 with 1.5 % trim, 2 % meter and 1 % model noise, and its intervals hold", () => {
    const trial = trimsTrial(400, { trim: 0.015, maf: 0.02, model: 0.01 }, 4);
    expect(trial.first).toBeGreaterThanOrEqual(0.85);
    expect(trial.covered).toBeGreaterThanOrEqual(0.9);
    expect(trial.confident).toBeGreaterThanOrEqual(0.97);
    expect(trial.sizeError).toBeLessThan(0.3);
  });
});

describe("verdict", () => {
  it("names shape, size with interval and what would separate its members", () => {
    const verdict = judgeTrims(LEAN_IDLE, context);
    expect(verdict).toMatchObject({ outcome: "fail", observation: "lean-fades-with-flow" });
    expect(verdict.headline).toMatch(/^Lean at idle, fading as airflow rises.*hole of about [\d.]+ mm \([\d.]+ to [\d.]+\)/);
    expect(verdict.reasons.join()).toMatch(/Smoke or enrichment at the joints/);
    const hole = verdict.measures.find((m) => m.name.includes("hole"));
    expect(hole?.low).toBeLessThan(hole?.value.value as number);
    expect(hole?.high).toBeGreaterThan(hole?.value.value as number);
  });

  it.each([
    ["near zero", [1, 0.5, -0.5, 0.8, 0], "pass", "trims-normal"],
    ["the same error everywhere", [15, 14.5, 15.5, 15, 14.8], "fail", "lean-constant"],
    ["rich everywhere", [-14, -13.5, -14.5, -14, -13.8], "fail", "rich-constant"],
    ["growing with flow", [0.5, 1, 3, 8, 22], "fail", "lean-grows-with-flow"],
  ] as const)("%s", (_name, totals, outcome, observation) => {
    const points = LEAN_IDLE.points.map((p, i) => ({ ...p, banks: [{ short: 0, long: totals[i] as number }] }));
    expect(judgeTrims(survey(...points), context)).toMatchObject({ outcome, observation });
  });

  it("tells a leak of one bank from one of both", () => {
    const two = contextOf(TWO_BANKS);
    const oneSided = survey(
      point(700, 5, 33, [4, 12], [0, 1]),
      point(1500, 9.8, 30, [2, 5], [0.5, 0]),
      point(2500, 17.5, 30, [1, 3], [0, 0.5]),
      point(3400, 90, 93, [0, 0.5], [0, 0]),
    );
    expect(judgeTrims(oneSided, two)).toMatchObject({ outcome: "fail", observation: "lean-fades-bank-1" });
    expect(judgeTrims(oneSided, two).headline).toMatch(/^Bank 1: lean at idle/);
  });

  it("knows the charge side of a turbo by a rich pull", () => {
    const turbo = contextOf(TURBO);
    const charged = (p: TrimPoint, kPa: number): TrimPoint => ({
      ...p,
      chargePressure: { value: kPa, unit: "kPa", kind: "absolute" },
    });
    const pull = survey(
      charged(point(720, 2.6, 33, [0, 1]), 101.4),
      charged(point(1500, 5, 30, [0, 0.5]), 101.4),
      charged(point(2200, 15, 62, [0.5, 0]), 101.6),
      charged(point(3200, 62, 156, [-4, -8]), 159),
    );
    expect(judgeTrims(pull, turbo)).toMatchObject({ outcome: "fail", observation: "rich-under-boost" });
  });

  it("claims no hole below 1 mm", () => {
    const faint = LEAN_IDLE.points.map((p) => ({ ...p, banks: [{ short: 0, long: 3.2 * (2.6 / p.maf.value) }] }));
    const [bank] = readSurvey(survey(...faint), vehicle, "product", { good: 0.05, act: 0.1 });
    expect(bank?.hole).toBeNull();
  });
});

describe("traps", () => {
  it("is void when nothing was taken warm and in closed loop", () => {
    const open = LEAN_IDLE.points.map((p) => ({ ...p, closedLoop: false }));
    const cold = LEAN_IDLE.points.map((p) => ({ ...p, coolant: { value: 50, unit: "°C" as const } }));
    expect(judgeTrims(survey(...open), context)).toMatchObject({ outcome: "void", measures: [] });
    expect(judgeTrims(survey(...open), context).observation).toBeUndefined();
    expect(judgeTrims(survey(...cold), context).reasons[0]).toMatch(/below 75 °C coolant/);
  });

  it("leaves out the points that do not count, and says how many", () => {
    const mixed = LEAN_IDLE.points.map((p, i) => (i === 4 ? { ...p, closedLoop: false } : p));
    expect(judgeTrims(survey(...mixed), context).reasons.join()).toMatch(/1 of 5 points left out/);
  });

  it("is not sure with one airflow only", () => {
    const verdict = judgeTrims(survey(LEAN_IDLE.points[0] as TrimPoint), context);
    expect(verdict).toMatchObject({ outcome: "unsure", headline: "One airflow only: the shape cannot be told" });
  });

  it("refuses diesel and speed-density with the reason and what works there", () => {
    expect(refusal({ fuel: "diesel", metering: "maf" })).toMatch(/no fuel trims.*What works here: smoke/);
    expect(refusal({ fuel: "petrol", metering: "map" })).toMatch(/meters a manifold leak.*What works here/);
    expect(judgeTrims(LEAN_IDLE, contextOf({ ...vehicle, metering: "map" })).outcome).toBe("void");
  });

  it("reckons a missing manifold pressure from airflow and speed", () => {
    const without = LEAN_IDLE.points.map(({ map: _, ...p }) => p);
    expect(judgeTrims(survey(...without), context)).toMatchObject({ outcome: "fail", observation: "lean-fades-with-flow" });
  });
});

describe("the door", () => {
  const says = (change: object) => {
    try {
      trimSurveySchema.validateSync({ ...LEAN_IDLE, ...change }, { strict: true });
      return "taken";
    } catch (error) {
      return (error as Error).message;
    }
  };
  it.each([
    [{}, /^taken$/],
    [{ points: [] }, /at least one steady point/],
    [{ ambient: { value: 1013, unit: "hPa", kind: "gauge" } }, /is absolute, not gauge/],
    [{ ambient: fromSi(-5, "kPa", "absolute") }, /cannot be negative|out of range/],
    [{ extra: 1 }, /unknown|unspecified/i],
    [{ source: { kind: "log" } }, /names its file/],
    [{ points: [point(720, 2.6, 33, [4, 13]), point(1500, 5, 30, [1, 1], [1, 1])] }, /same number of banks/],
    [{ points: [{ ...LEAN_IDLE.points[0], banks: [{ short: 400, long: 0 }] }] }, /above 100 %/],
    [{ points: [{ ...LEAN_IDLE.points[0], rpm: Number.NaN }] }, /rpm/i],
  ])("%j", (change, message) => {
    expect(says(change)).toMatch(message);
  });
});
