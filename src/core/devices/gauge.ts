/** A gauge comes up to what it is on with this time constant, s: the damping of needle and hose. */
const LAG = 0.8;

/**
 * Reading a gauge has come up to, as a first-order lag (step response 1 − exp(−t/τ)).
 * @param before what it showed; @param now what it is on since; both in one unit; @param seconds since then, ≥ 0.
 */
export const gaugeFollows = (before: number, now: number, seconds: number): number =>
  before + (now - before) * (1 - Math.exp(-seconds / LAG));

/** Reading of a scale of a value that may lie beyond its end, either way from nothing; @param end in the same unit, nowhere where unsaid. */
export const endsAt = (value: number, end: number | undefined): number =>
  end === undefined ? value : Math.max(-Math.abs(end), Math.min(Math.abs(end), value));
