/**
 * Cars of shops that the judge's tables know nothing of: causes are not drawn as often as the table weighs them, some cars have
 * nothing wrong with them, and a hand that confirms errs.
 */
import type { Cause, Family } from "@/core/faults";
import { type Noise, seededNoise } from "@/core/maths/random";
import { caseOf } from "@/core/practice/case";
import { type HiddenCar, hiddenCar } from "./hidden-cars";

/** How often each cause comes in: as the table has it, as a shop of its own does, or each alike. */
export const WORLDS = ["table", "shops", "flat"] as const;
export type World = (typeof WORLDS)[number];

/** Cars with nothing wrong, and those with two faults. */
const HEALTHY = 0.15;
const TWO = 0.2;
/** Cars that one shop sees before the next is drawn. */
const OF_A_SHOP = 20;
/** How closely a shop keeps to the table: its causes are Dirichlet-distributed around it, with so much of each one's weight. */
const KEEPS = 0.3;
/** A cause is at most so many times as frequent in a shop as in the table. */
const MOST = 4;
/** Draws after which a case is taken as it comes. */
const MOST_DRAWS = 200;

/** Gamma-distributed, mean and variance `shape` (Marsaglia & Tsang 2000). */
function gamma(noise: Noise, shape: number): number {
  const d = Math.max(shape, 1) - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = noise.normal();
    const v = (1 + c * x) ** 3;
    if (v <= 0 || Math.log(noise.uniform()) >= 0.5 * x * x + d - d * v + d * Math.log(v)) continue;
    return shape < 1 ? d * v * noise.uniform() ** (1 / shape) : d * v;
  }
}

/** How much oftener than in the table a cause comes in, in a world and a shop of it; 1 at the most. */
function frequency(world: World, shop: number): (cause: Cause) => number {
  const drawn = new Map<string, number>();
  return ({ id, prior }) => {
    if (world === "table") return 1;
    if (world === "flat") return 1 / Math.max(1, prior);
    const known = drawn.get(id);
    if (known !== undefined) return known;
    const own = seededNoise([...id].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 65_537, shop));
    // Gamma-distributed weights, normed by drawing until one is taken, are a Dirichlet's.
    const factor = Math.min(1, gamma(own, KEEPS * prior) / (KEEPS * prior) / MOST);
    drawn.set(id, factor);
    return factor;
  };
}

/** A car that comes in; `faults` is empty where nothing is wrong with it. */
export function carOfShop(family: Family, world: World, seed: number): HiddenCar {
  const noise = seededNoise(seed * 3 + 5);
  const often = frequency(world, Math.floor(seed / OF_A_SHOP));
  const level = noise.uniform() < TWO ? 3 : 2;
  let given = caseOf({ family, level, seed: seed % 2 ** 20 });
  for (let draw = 1; draw < MOST_DRAWS; draw++) {
    const cause = given.car.faults[0]?.cause;
    if (!cause || noise.uniform() < often(cause)) break;
    given = caseOf({ family, level, seed: (seed + 7_919 * draw) % 2 ** 20 });
  }
  // What set the code of a car with nothing wrong is gone: a cap that was loose, a connector that was pushed home.
  const sound = noise.uniform() < HEALTHY;
  return hiddenCar(given, sound ? { ...given.car, faults: [] } : given.car, noise, given.instruments);
}
