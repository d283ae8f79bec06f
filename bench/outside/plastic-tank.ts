import { type Noise, seededNoise } from "@/core/maths/random";

/** Worlds a shut tank can be of, each with one thing that spoils a decay. */
export const TANK_WORLDS = ["rigid", "soft walls", "creep", "drift"] as const;
export type TankWorld = (typeof TANK_WORLDS)[number];

const R = 287.05;
const CP = 1004.7;

/** Gas that leaves by a sharp edge, kg/s: discharge 0.61 of the speed that its enthalpy gives it. */
function escapes(over: number, ambient: number, t: number, diameter: number): number {
  if (over <= 0) return 0;
  const pull = 1 - (ambient / (ambient + over)) ** (2 / 7);
  const speed = Math.sqrt(2 * CP * t * pull);
  const density = ambient / (R * t * (1 - pull));
  return 0.61 * 0.25 * Math.PI * diameter ** 2 * density * speed;
}

export interface Decay {
  readonly times: readonly number[];
  /** Pa gauge */
  readonly pressures: readonly number[];
}

/** A tank with its walls: how it yields to pressure, at once and by and by, and how gas and walls exchange heat. */
export interface PlasticTank {
  /** m³ at ambient pressure */
  readonly volume: number;
  readonly ambient: number;
  readonly temperature: number;
  readonly held: number;
  /** A decay of one hole, m, and of a second one where a reference is opened */
  readonly decay: (diameter: number, reference?: number) => Decay;
}

/**
 * A gas space of two parts, the gas near the wall and the gas in the middle, in a tank whose wall is a spring and a dashpot side
 * by side with a spring (standard linear solid): masses and enthalpies are balanced by small explicit steps.
 */
export function plasticTank(seed: number, world: TankWorld): PlasticTank {
  const noise: Noise = seededNoise(seed);
  const volume = noise.uniform(0.012, 0.06);
  const ambient = noise.uniform(93e3, 102.5e3);
  const temperature = noise.uniform(283, 301);
  const held = noise.uniform(60, 130);
  const over = noise.uniform(2200, 2600);
  const yields = world === "rigid" ? 0 : world === "soft walls" ? noise.uniform(0.05, 0.3) : noise.uniform(0, 0.15);
  const creeps = world === "creep" ? noise.uniform(0.1, 0.4) : 0;
  const creepTime = noise.uniform(50, 160);
  const [toWall, mix] = [noise.uniform(10, 30), noise.uniform(4, 12)];
  const gauge = noise.uniform(2, 7);
  const division = noise.uniform() < 0.5 ? 2.5 : 0;
  const every = noise.uniform(3, 6);
  const duration = noise.uniform(120, 170);
  return {
    volume,
    ambient,
    temperature,
    held,
    decay(diameter, reference = 0) {
      const slope = world === "drift" ? noise.uniform(-0.3, 0.3) / 150 : noise.normal(0.04) / 150;
      const bend = world === "drift" ? noise.uniform(-0.15, 0.15) / 150 ** 2 : 0;
      const wallAt = (t: number) => temperature + slope * t + bend * t * t;
      // Elastic gain of volume in m³/Pa, and what it still gains by creeping.
      const elastic = (yields * volume) / ambient;
      let crept = 0;
      let [core, skin] = [temperature, temperature];
      const space = (p: number) => volume + elastic * p + crept;
      let mass = ((ambient + over) * space(over)) / (R * temperature);
      let p = over;
      const dt = 0.05;
      const fill = 2;
      const times: number[] = [];
      const pressures: number[] = [];
      // Filled within seconds: compression warms the gas by most of what it can.
      core += noise.uniform(0.5, 0.9) * ((temperature * 2) / 7) * (over / ambient);
      skin += 0.3 * (core - temperature);
      let due = 0;
      for (let t = -held - fill; t <= duration + 1e-9; t += dt) {
        const holding = t < 0;
        const out = holding
          ? 0
          : escapes(p, ambient, core, diameter) + (reference > 0 ? escapes(p, ambient, core, reference) : 0);
        const before = p;
        mass -= out * dt;
        crept += ((creeps * elastic * p - crept) * dt) / creepTime;
        const exchange = (skin - core) / mix;
        core += exchange * dt;
        skin += ((core - skin) / mix + (wallAt(Math.max(0, t)) - skin) / (0.35 * toWall)) * dt;
        const mean = 1 / (0.7 / core + 0.3 / skin);
        if (holding) {
          // The supply keeps the pressure up meanwhile.
          p = over;
          mass = ((ambient + p) * space(p)) / (R * mean);
          continue;
        }
        // Pressure by masses: the volume itself hangs on it.
        for (let k = 0; k < 3; k++) p = (mass * R * mean) / space(p) - ambient;
        core += ((p - before) / (ambient + p)) * (2 / 7) * core;
        if (t >= due) {
          const read = p + noise.normal(gauge);
          times.push(Math.round(t * 10) / 10);
          pressures.push(division > 0 ? Math.round(read / division) * division : Math.round(read * 10) / 10);
          due += every;
        }
      }
      return { times, pressures };
    },
  };
}
