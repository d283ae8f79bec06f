/** A source of reproducible noise: uniform in [0, 1) and standard normal. Mulberry32 and Box–Muller. */
export interface Noise {
  uniform(low?: number, high?: number): number;
  normal(sd?: number): number;
}

export function seededNoise(seed: number): Noise {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    uniform: (low = 0, high = 1) => low + (high - low) * next(),
    normal: (sd = 1) => sd * Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  };
}
