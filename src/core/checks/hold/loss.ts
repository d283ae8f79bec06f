/** A fall of vacuum or pressure as a share lost in 60 s, with its 95 % interval. */
export interface Loss {
  readonly share: number;
  readonly low: number;
  readonly high: number;
  /** s that were watched */
  readonly seconds: number;
}

/**
 * Share lost in 60 s: 1 − (end/start)^(60/Δt), a leak that falls with what drives it. The interval comes from the
 * reading's own resolution: each end is good to half a division, uniform, 95 % together ±0.78 divisions.
 * @param samples [s, value], at least two; @param division of the instrument, in the samples' unit.
 * Valid for a start well above one division; a start at or below nothing gives a loss of 1.
 */
export function lossIn60(samples: readonly (readonly [number, number])[], division: number): Loss {
  const [t0, start] = samples[0] as readonly [number, number];
  const [t1, end] = samples.at(-1) as readonly [number, number];
  const seconds = t1 - t0;
  const share = (a: number, b: number) =>
    a <= 0 ? 1 : Math.min(1, Math.max(-1, 1 - Math.max(0, b / a) ** (60 / Math.max(1, seconds))));
  const reach = 0.78 * division;
  return { share: share(start, end), low: share(start, end + reach), high: share(start, end - reach), seconds };
}

/** Loss over the watched time, Pa, of losses that are stated for 60 s. */
export function lostIn({ share, low, high }: Loss, seconds: number): { share: number; low: number; high: number } {
  const gone = (of60: number) => 1 - (1 - Math.min(1, Math.max(0, of60))) ** (seconds / 60);
  return { share: gone(share), low: gone(low), high: gone(high) };
}
