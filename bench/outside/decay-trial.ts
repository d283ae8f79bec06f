import { fitDecay } from "@/core/gas/decay";
import { seededNoise } from "@/core/maths/random";
import { plasticTank, type TankWorld } from "./plastic-tank";

/** What a shop knows of the volume by fuel level and rating, share, one standard deviation. */
const VOLUME_SD = 0.06;
/** Sizes to be caught, m. */
const REQUIRED = 0.508e-3;

export interface DecayMarks {
  /** Of holes by volume and with a reference hole: the share that its interval holds */
  readonly covered: number;
  readonly byReference: number;
  /** Of systems that leak as much as must be caught or more: the share that passes */
  readonly wrongPass: number;
  /** Of tight systems: the share called leaking */
  readonly tightFails: number;
  readonly tightPasses: number;
}

/** Decays of one world, judged blind. @param count tanks. */
export function decayOutside(world: TankWorld, count: number, seed: number): DecayMarks {
  let [inside, insideReference, wrong, fails, passes] = [0, 0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    const noise = seededNoise(seed + 31 * i);
    const tank = plasticTank(seed + i, world);
    const known = {
      volume: tank.volume * (1 + noise.normal(VOLUME_SD)),
      volumeSd: VOLUME_SD,
      ambient: tank.ambient,
      temperature: tank.temperature,
      held: tank.held,
      required: REQUIRED,
      yields: true,
    };
    const diameter = noise.uniform(0.25e-3, 0.9e-3);
    const holds = (fit: { low: number; high: number }) => fit.low <= diameter && diameter <= fit.high;
    const alone = tank.decay(diameter);
    if (holds(fitDecay({ ...known, ...alone }))) inside++;
    const reference = { diameter: REQUIRED, ...tank.decay(diameter, REQUIRED) };
    if (holds(fitDecay({ ...known, ...alone, reference }))) insideReference++;
    const bad = fitDecay({ ...known, ...tank.decay(REQUIRED * noise.uniform(1, 1.3)) });
    if (bad.outcome === "pass") wrong++;
    const tight = fitDecay({ ...known, ...tank.decay(0) });
    if (tight.outcome === "fail") fails++;
    if (tight.outcome === "pass") passes++;
  }
  return {
    covered: inside / count,
    byReference: insideReference / count,
    wrongPass: wrong / count,
    tightFails: fails / count,
    tightPasses: passes / count,
  };
}
