import { fitShapes, type ShapeId } from "@/core/checks/trims/shapes";
import { type Noise, seededNoise } from "@/core/maths/random";
import { operatingState } from "@/core/practice/engine";
import type { Driving, EngineTruth } from "@/core/practice/engine-truth";

export interface TrimsTrial {
  /** Share of surveys whose true shape was ranked first */
  first: number;
  /** Share of holes inside their stated interval */
  covered: number;
  /** Share right where the engine said 0.97 or more */
  confident: number;
  /** 90th percentile of the relative size error near 2 mm */
  sizeError: number;
  wrong: Record<string, number>;
}

/** Faults the made-up cars can have; the rich shapes without a blower are too rare to weigh in. */
const TRUTHS = [
  "none",
  "constant",
  "fades-with-flow",
  "grows-with-flow",
  "rich-under-boost",
] as const satisfies readonly ShapeId[];

/** An engine with one thing wrong. SI. */
function engineOf(shape: ShapeId, turbo: boolean, noise: Noise): EngineTruth {
  return {
    displacement: noise.uniform(1.2e-3, 3e-3),
    ambient: noise.uniform(90e3, 102e3),
    temperature: noise.uniform(278, 308),
    hole: shape === "fades-with-flow" ? noise.uniform(1.5e-3, 4e-3) : 0,
    fuelError: shape === "constant" ? noise.uniform(0.07, 0.22) * (noise.uniform() < 0.7 ? 1 : -1) : noise.normal(0.015),
    ...(shape === "grows-with-flow" ? { supplyShort: noise.uniform(0.15, 0.35) } : {}),
    ...(turbo ? { boost: noise.uniform(50e3, 95e3) } : {}),
    ...(shape === "rich-under-boost" ? { chargeHole: noise.uniform(5e-3, 9e-3) } : {}),
  };
}

/** The points of a usual survey: idle, 1500, 2500 without load, cruise, and a hard pull. */
const surveyOf = ({ ambient }: EngineTruth, noise: Noise): readonly Driving[] => [
  {},
  { foot: 1500 },
  { foot: 2500 },
  { road: { rpm: noise.uniform(2000, 2600), map: noise.uniform(0.5, 0.75) * ambient } },
  { road: { rpm: noise.uniform(2800, 4200) } },
];
/** Where closed loop is at its end, share. */
const STOP = 0.25;

/** Surveys of engines with a known truth, as the practice car's network makes them, fitted blind. */
export function trimsTrial(count: number, noiseOf: { trim: number; maf: number; model: number }, seed: number): TrimsTrial {
  const noise = seededNoise(seed);
  let first = 0;
  let holes = 0;
  let covered = 0;
  let sure = 0;
  let sureRight = 0;
  const errors: number[] = [];
  const wrong: Record<string, number> = {};
  for (let i = 0; i < count; i++) {
    const turbo = i % 2 === 1;
    const shapes = TRUTHS.filter((id) => turbo || id !== "rich-under-boost");
    const truth = shapes[Math.floor(noise.uniform(0, shapes.length))] as ShapeId;
    const engine = engineOf(truth, turbo, noise);
    const points = surveyOf(engine, noise).map((driving) => {
      const state = operatingState(engine, driving, seed + i);
      // At its stop a trim stands still, whatever would be asked of it.
      const still = state.trims[0] as number;
      const trim = Math.abs(still) >= STOP ? still : still + noise.normal(Math.hypot(noiseOf.trim, noiseOf.model));
      const stopped = Math.abs(trim) >= STOP ? Math.sign(trim) : 0;
      return {
        flow: state.meter * (1 + noise.normal(noiseOf.maf)),
        map: state.map,
        ...(turbo ? { charge: state.charge + noise.normal(60) } : {}),
        trim: stopped === 0 ? trim : stopped * STOP,
        scatter: 0,
        saturated: stopped as -1 | 0 | 1,
      };
    });
    const fits = fitShapes(points, {
      ambient: engine.ambient,
      intakeTemperature: engine.temperature,
      induction: turbo ? "turbo" : "natural",
    });
    const best = fits[0];
    const right = best?.id === truth;
    if (right) first++;
    else wrong[`${truth} read as ${best?.id}`] = (wrong[`${truth} read as ${best?.id}`] ?? 0) + 1;
    if (best && best.odds >= 0.97) {
      sure++;
      if (right) sureRight++;
    }
    if (truth === "fades-with-flow" && right && best?.hole) {
      const d = engine.hole;
      holes++;
      if (best.hole.low <= d && d <= best.hole.high) covered++;
      if (d > 1.8e-3 && d < 2.4e-3) errors.push(Math.abs(best.hole.diameter / d - 1));
    }
  }
  errors.sort((a, b) => a - b);
  return {
    first: first / count,
    covered: covered / holes,
    confident: sureRight / sure,
    sizeError: errors[Math.floor(errors.length * 0.9)] ?? Number.NaN,
    wrong,
  };
}
