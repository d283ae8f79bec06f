/**
 * log P(Z > z) of a standard normal, within 1e-5: straight between the values of a table, since a survey asks for hundreds
 * of thousands.
 */
export function logTail(z: number): number {
  if (z < TABLE_FROM) return 0;
  if (z >= TABLE_TO) return logFarTail(z, 3);
  const at = (z - TABLE_FROM) * TABLE_STEPS;
  const i = Math.floor(at);
  const low = TAIL_TABLE[i] as number;
  return low + (at - i) * ((TAIL_TABLE[i + 1] as number) - low);
}

/** The same by so many terms of its continued fraction (Abramowitz & Stegun 26.2.14): 40 from z = 2, 3 from 20. */
function logFarTail(z: number, terms: number): number {
  let below = z;
  for (let k = terms; k > 0; k--) below = z + k / below;
  return -0.5 * z * z - 0.5 * Math.log(2 * Math.PI) - Math.log(below);
}

/** P(Z > z): Abramowitz & Stegun 26.2.17, |error| < 7.5e−8. */
function normalTail(z: number): number {
  if (z < 0) return 1 - normalTail(-z);
  const t = 1 / (1 + 0.2316419 * z);
  const sum = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return (Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)) * sum;
}

const TABLE_FROM = -5;
const TABLE_TO = 20;
const TABLE_STEPS = 500;
const TAIL_TABLE = Float64Array.from({ length: (TABLE_TO - TABLE_FROM) * TABLE_STEPS + 1 }, (_, i) => {
  const z = TABLE_FROM + i / TABLE_STEPS;
  return z < 2 ? Math.log(normalTail(z)) : logFarTail(z, 40);
});
