import { fitShapes, type ShapeId } from "@/core/checks/trims/shapes";
import { seededNoise } from "@/core/maths/random";
import { type HiddenEngine, seenAt, usualPoints } from "../demo/engine";

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

/** What the made-up cars can have; the rich shapes without a blower are too rare to weigh in. */
const TRUTHS = [
  "none",
  "constant",
  "fades-with-flow",
  "grows-with-flow",
  "rich-under-boost",
] as const satisfies readonly ShapeId[];

/** Surveys of made-up cars with a known truth, fitted blind. */
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
    const engine: HiddenEngine = {
      displacement: noise.uniform(1.2e-3, 3e-3),
      ambient: noise.uniform(90e3, 102e3),
      temperature: noise.uniform(278, 308),
      turbo,
      banks: 1,
      fuelError: noise.normal(0.015),
    };
    const idle = 1.1 * engine.displacement;
    if (truth === "constant") engine.fuelError = noise.uniform(0.07, 0.25) * (noise.uniform() < 0.7 ? 1 : -1);
    if (truth === "fades-with-flow") engine.manifoldHole = { diameter: noise.uniform(1.5e-3, 4e-3) };
    if (truth === "grows-with-flow") {
      engine.supplyLimit = {
        atFullFlow: noise.uniform(0.1, 0.3),
        fullFlow: idle * noise.uniform(10, 25),
        exponent: noise.uniform(1, 2),
      };
    }
    if (truth === "rich-under-boost") engine.chargeHole = noise.uniform(4e-3, 9e-3);
    const points = usualPoints(engine, noise).map((point) => {
      const seen = seenAt(engine, point);
      return {
        flow: seen.maf * (1 + noise.normal(noiseOf.maf)),
        map: point.map,
        ...(turbo ? { charge: point.charge } : {}),
        trim: (seen.trims[0] as number) + noise.normal(Math.hypot(noiseOf.trim, noiseOf.model)),
        scatter: 0,
        saturated: 0 as const,
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
      const d = engine.manifoldHole?.diameter as number;
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
