/**
 * Whether air meter and breathing agree by the same share at every flow: an engine on whose every point the meter shows a tenth more
 * than usual has a meter that reads high, or breathes better than its kind. What an engine of its kind breathes is known within some
 * 9 %; what this very engine breathed when it was sound within 2 %. Closed-loop trims tell the two apart: they make up for what
 * the meter gets wrong, and not for what the engine breathes.
 */

/** What is known of an engine's level. Shares. */
export interface LevelRead {
  /** Breathing read off the meter over what is expected of it, less one, and the sd of that expectation */
  readonly by: number;
  readonly sd: number;
  /** Expected by an earlier reading of the same engine with the same meter, whose own gain was in it */
  readonly own: boolean;
  /** Total closed-loop trim off boost; absent where none was logged */
  readonly trim?: number;
}

export interface Level {
  /** Log of how much likelier it reads so where meter or breathing is off than where both agree */
  readonly evidence: number;
  /** Of the two the meter's share, 0…1 */
  readonly meter: number;
}

/** sd of a sound meter's gain, share. */
export const GAIN = 0.02;
/** sd of a trim's median beside what it makes up for, share. */
const TRIM_READ = 0.01;
/** Fuelling of an engine: sd where it is sound, and where injectors or pressure are off, with its share of the cars. */
const FUELLING = [
  { sd: 0.025, weight: 0.9 },
  { sd: 0.12, weight: 0.1 },
] as const;
/** So many sd off, meter or breathing is named by that alone. */
export const LEVEL_SHOWS = 3;
/** What is off is off by so much, share, either way, all alike; of those that are, the meter's share before anything is read. */
const [LEAST, MOST, STEPS] = [0.06, 0.4, 69];
const METER_FIRST = 0.65;

const OFF = Array.from({ length: STEPS }, (_, i) => LEAST + ((MOST - LEAST) * i) / (STEPS - 1)).flatMap((u) => [u, -u]);

const normal = (x: number, variance: number) => Math.exp(-(x ** 2) / (2 * variance)) / Math.sqrt(2 * Math.PI * variance);

/** Density of level and trim about what they are expected to be; beside others of its kind a sound meter's gain moves both at once. */
function density(by: number, trim: number | undefined, { sd, own }: Pick<LevelRead, "sd" | "own">): number {
  const moved = own ? 0 : GAIN ** 2;
  const variance = sd ** 2 + moved;
  if (trim === undefined) return normal(by, variance);
  // The trim given the level: what of it is the meter's own comes back with the other sign.
  const given = -(moved / variance) * by;
  const rest = GAIN ** 2 - moved ** 2 / variance + TRIM_READ ** 2;
  return normal(by, variance) * FUELLING.reduce((sum, f) => sum + f.weight * normal(trim - given, rest + f.sd ** 2), 0);
}

/**
 * Weighs meter off, breathing off, and neither (Bayes' rule over a uniform share): with g the meter's gain and η the breathing, what
 * is read is η·g/η₀ and, in closed loop, 1 + trim = (1 + b)/g, b the fuelling.
 * Valid for engines with an air meter, whose log fits one engine; trims of a petrol engine in closed loop, off boost.
 */
export function levelOf({ by, trim, ...read }: LevelRead): Level {
  const mean = (of: (u: number) => number) => OFF.reduce((sum, u) => sum + of(u), 0) / OFF.length;
  const neither = density(by, trim, read);
  const meter = METER_FIRST * mean((u) => density(by - u, trim === undefined ? undefined : trim - (1 / (1 + u) - 1), read));
  const breathing = (1 - METER_FIRST) * mean((u) => density(by - u, trim, read));
  const least = Number.MIN_VALUE;
  return {
    evidence: Math.log(Math.max(least, meter + breathing)) - Math.log(Math.max(least, neither)),
    meter: meter + breathing > 0 ? meter / (meter + breathing) : METER_FIRST,
  };
}
