import { fitDecay } from "@/core/gas/decay";
import { simulateTank } from "@/core/gas/simulated-tank.fixture";
import { type Noise, seededNoise } from "@/core/maths/random";

/** Reference hole of the trials, m (0.020 in). */
const REFERENCE = 0.508e-3;
/** Knowledge a shop has of the volume by fuel level and rating, and how far walls may yield: share, one standard deviation. */
const VOLUME_SD = 0.06;
const WALLS_SD = 0.1;

export interface DecayTrial {
  /** Mean relative size error */
  readonly bias: number;
  /** 90th percentile of the relative size error */
  readonly spread: number;
  /** Share of holes inside their stated interval */
  readonly covered: number;
}

/** One noisy tank of 10 to 60 L: wall lag, walls that yield up to 20 %, drift up to 0.3 K with a bend, gauge noise. */
function tankOf(noise: Noise) {
  const volume = noise.uniform(0.01, 0.06);
  const truth = {
    volume,
    wallTime: noise.uniform(15, 40),
    held: noise.uniform(60, 120),
    compliance: noise.uniform(0, 0.2),
    pressure: 2491,
    ambient: 101325,
    temperature: 293.15,
    duration: 150,
    every: 3,
  };
  const gauge = noise.uniform(2, 8);
  const run = (diameter: number, extraHole = 0) => {
    const { times, pressures } = simulateTank({
      ...truth,
      diameter,
      extraHole,
      drift: noise.uniform(-0.3, 0.3),
      bend: noise.uniform(-0.02, 0.02),
    });
    return { times, pressures: pressures.map((p) => p + noise.normal(gauge)) };
  };
  return {
    fit: (diameter: number, byReference: boolean) =>
      fitDecay({
        ...run(diameter),
        volume: volume * (byReference ? noise.uniform(0.6, 1.5) : 1 + noise.normal(VOLUME_SD)),
        volumeSd: Math.hypot(VOLUME_SD, WALLS_SD),
        ambient: truth.ambient,
        temperature: truth.temperature,
        held: truth.held,
        ...(byReference ? { reference: { diameter: REFERENCE, ...run(diameter, REFERENCE) } } : {}),
      }),
  };
}

/** Noisy tanks with one true hole (m), fitted blind by volume or with a reference hole. */
export function decayTrial(count: number, diameter: number, byReference: boolean, seed: number): DecayTrial {
  const noise = seededNoise(seed);
  const errors: number[] = [];
  let covered = 0;
  for (let i = 0; i < count; i++) {
    const fit = tankOf(noise).fit(diameter, byReference);
    errors.push(fit.diameter / diameter - 1);
    if (fit.low <= diameter && diameter <= fit.high) covered++;
  }
  const sizes = errors.map(Math.abs).sort((a, b) => a - b);
  return {
    bias: errors.reduce((a, b) => a + b, 0) / count,
    spread: sizes[Math.floor(0.9 * count)] as number,
    covered: covered / count,
  };
}

export interface VisibleTrial {
  /** Mean of the smallest visible size that tests of tight tanks predict, m */
  readonly predicted: number;
  /** Share of tanks with a hole of just that size that are told from a tight one */
  readonly seen: number;
  /** Share of tight tanks taken for leaking */
  readonly falseAlarms: number;
}

/** The smallest visible size against what it promises: 95 % told from none, at most 5 % of tight tanks called leaking. */
export function visibleTrial(count: number, byReference: boolean, seed: number): VisibleTrial {
  const noise = seededNoise(seed);
  let predicted = 0;
  let seen = 0;
  let falseAlarms = 0;
  for (let i = 0; i < count; i++) {
    const tank = tankOf(noise);
    const tight = tank.fit(0, byReference);
    predicted += tight.smallestVisible / count;
    if (tight.low > 0) falseAlarms++;
    if (tank.fit(tight.smallestVisible, byReference).low > 0) seen++;
  }
  return { predicted, seen: seen / count, falseAlarms: falseAlarms / count };
}
