import { fitDecay } from "@/core/gas/decay";
import { simulateTank } from "@/core/gas/tank.fixture";
import { seededNoise } from "@/core/maths/random";

export interface DecayTrial {
  /** Mean relative size error */
  readonly bias: number;
  /** 90th percentile of the relative size error */
  readonly spread: number;
  /** Share of holes inside their stated interval */
  readonly covered: number;
}

/** Noisy tanks of 10 to 60 L with one true hole (m), fitted blind by volume or with a reference hole. */
export function decayTrial(count: number, diameter: number, byReference: boolean, seed: number): DecayTrial {
  const noise = seededNoise(seed);
  const errors: number[] = [];
  let covered = 0;
  for (let i = 0; i < count; i++) {
    const truth = {
      volume: noise.uniform(0.01, 0.06),
      diameter,
      wallTime: noise.uniform(15, 40),
      held: noise.uniform(60, 120),
      drift: noise.uniform(-0.3, 0.3),
      pressure: 2491,
      ambient: 101325,
      temperature: 293.15,
      duration: 150,
      every: 3,
    };
    const gauge = noise.uniform(2, 8);
    const sampled = (extraHole = 0) => {
      const run = simulateTank({ ...truth, extraHole, drift: noise.uniform(-0.3, 0.3) });
      return { times: run.times, pressures: run.pressures.map((p) => p + noise.normal(gauge)) };
    };
    const volume = truth.volume * (byReference ? noise.uniform(0.6, 1.5) : 1 + noise.normal(0.05));
    const { ambient, temperature, held } = truth;
    const fit = fitDecay({
      ...sampled(),
      volume,
      ambient,
      temperature,
      held,
      ...(byReference ? { reference: { diameter: 0.508e-3, ...sampled(0.508e-3) } } : {}),
    });
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
