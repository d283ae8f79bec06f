/** How sure an answer must be: the chance left that an unrepaired fault stayed away. */
const LEFT = 0.05;

/** Whether a fault that comes and goes was watched long enough. It never says "repaired with probability". */
export interface Comeback {
  /** Chance of what was seen if nothing is repaired */
  readonly chanceIfNotFixed: number;
  /** How much is needed, in the unit of what was given: a distance, a number of runs, a number of starts */
  readonly needed: number;
  readonly enough: boolean;
}

const positive = (list: readonly number[], what: string) => {
  if (list.length === 0) throw new RangeError(`${what}: at least one is needed to count on`);
  if (!list.every((x) => Number.isFinite(x) && x > 0)) throw new RangeError(`${what}: each is more than nothing`);
};
const share = (left: number) => {
  if (!(left > 0 && left < 1)) throw new RangeError("The chance that may be left is between 0 and 1");
};

/**
 * A fault that comes back at random: exponential intervals of unknown mean, predictive over the recorded ones. The chance of
 * a clean stretch x after n comebacks in a total of T is (1 + x/T)^(−n); `left` of it needs x = T·(left^(−1/n) − 1).
 * @param recorded distances between comebacks, any one unit, > 0; @param unfinished a last stretch without one: exposure too;
 * @param clean driven since without one. Throws RangeError for none, or a length that is none. Valid while nothing else changed.
 */
export function comesBackAtRandom(
  {
    recorded,
    unfinished = 0,
    clean,
  }: { readonly recorded: readonly number[]; readonly unfinished?: number; readonly clean: number },
  left = LEFT,
): Comeback {
  positive(recorded, "Recorded distances");
  share(left);
  if (!(unfinished >= 0 && clean >= 0)) throw new RangeError("A distance driven is not negative");
  const n = recorded.length;
  const total = recorded.reduce((sum, x) => sum + x, unfinished);
  const chanceIfNotFixed = (1 + clean / total) ** -n;
  return { chanceIfNotFixed, needed: total * (left ** (-1 / n) - 1), enough: chanceIfNotFixed <= left * (1 + 1e-12) };
}

/**
 * A fault that sets in after so much within one key cycle and then stays: distance does not add up over cycles. What counts is
 * k unbroken runs past the longest of n recorded onsets; if nothing is repaired all n + k are exchangeable, and the chance that
 * those k are the longest is n!·k!/(n + k)!.
 * @param recorded onsets, any one unit, > 0; @param clean unbroken runs without one, in the same unit.
 * @returns `needed` as a number of runs; `counted` is how many went past the longest onset. Throws RangeError for no onset.
 */
export function comesBackAfter(
  { recorded, clean }: { readonly recorded: readonly number[]; readonly clean: readonly number[] },
  left = LEFT,
): Comeback & { readonly counted: number; readonly past: number } {
  positive(recorded, "Recorded onsets");
  share(left);
  if (!clean.every((x) => Number.isFinite(x) && x >= 0)) throw new RangeError("A run is not negative");
  const n = recorded.length;
  const past = Math.max(...recorded);
  const counted = clean.filter((x) => x > past).length;
  const chance = (k: number) => {
    let all = 1;
    for (let i = 1; i <= k; i++) all *= i / (n + i);
    return all;
  };
  let needed = 1;
  while (chance(needed) > left * (1 + 1e-12)) needed++;
  const chanceIfNotFixed = chance(counted);
  return { chanceIfNotFixed, needed, enough: counted >= needed, counted, past };
}

/** Most starts that anybody counts. */
const MOST = 1_000_000;

/**
 * A fault of cold starts: k failures in N seen leave a beta posterior (Jeffreys, a = b = ½), and n clean starts the chance
 * ∏ (N − k + b + i)/(N + a + b + i) for i = 0…n−1; a share p that is known leaves (1 − p)^n.
 * @param seen failures `came` of `of` starts, whole, 1 ≤ came ≤ of; or the known `share`, 0 < share < 1;
 * @param clean clean starts since, whole. Throws RangeError outside that.
 */
export function coldStarts(
  seen: { readonly came: number; readonly of: number } | { readonly share: number },
  clean: number,
  left = LEFT,
): Comeback {
  share(left);
  if (!(Number.isInteger(clean) && clean >= 0 && clean <= MOST)) throw new RangeError("Clean starts are counted: 0, 1, 2 …");
  let step: (i: number) => number;
  if ("share" in seen) {
    if (!(seen.share > 0 && seen.share < 1)) throw new RangeError("The share of starts that fail is between 0 and 1");
    step = () => 1 - seen.share;
  } else {
    const { came, of } = seen;
    if (!(Number.isInteger(came) && Number.isInteger(of) && came >= 1 && came <= of))
      throw new RangeError("At least one start failed, and no more than there were: otherwise there is nothing to count on");
    step = (i) => (of - came + 0.5 + i) / (of + 1 + i);
  }
  let chance = 1;
  let chanceIfNotFixed = 1;
  let needed = 0;
  for (let i = 0; i < MOST && (i < clean || chance > left * (1 + 1e-12)); i++) {
    if (chance > left * (1 + 1e-12)) needed = i + 1;
    chance *= step(i);
    if (i + 1 === clean) chanceIfNotFixed = chance;
  }
  return { chanceIfNotFixed, needed, enough: clean >= needed };
}
