/**
 * Expected minutes to a confirmed cause: what is tried by hand in the best order, and a check ahead of it where that is sooner
 * (troubleshooting by expected cost; Heckerman, Breese & Rommelse 1995, Comm. ACM 38(3)).
 */

/** Suspects at some point of the search, in one order. */
export interface Belief {
  /** How likely each is; they need not add up to 1 */
  readonly weights: Float64Array;
  /** Minutes to confirm each by hand; that of nothing wrong is not looked at */
  readonly confirm: Float64Array;
}

/** A check as the search sees it. */
export interface Way {
  /** Probability of each outcome, a row of all suspects each; a suspect's add up to 1 over the outcomes */
  readonly outcomes: readonly Float64Array[];
  /** Suspects whose very place an outcome names: they are confirmed in passing */
  readonly names: readonly (readonly number[])[];
  /** Minutes, with all that it takes to get to it */
  readonly minutes: number;
  /** Share of its information that is new, 0…1: it was done before, or is void more often than not */
  readonly fresh: number;
}

/** A hand that tries the right place sees it so often. */
export const HAND_SEES = 0.95;
/** Minutes that a fault left in the car costs: it comes back, and is begun anew. Own estimate. */
const COMES_BACK = 180;
/** Confirming what a check has already pointed at, minutes: cap it off, wiggle it, look right there. */
export const POINTED_AT = 5;
/** Suspects and outcomes that are less likely are left out of the reckoning. */
const NEGLIGIBLE = 0.002;
/** Ways that are looked at two steps ahead, and those that may follow them. */
const AHEAD = 5;
const FOLLOW = 5;
/** An outcome after which so few minutes are left is not looked beyond. */
const SETTLED = 8;

/** Suspects less likely than this at the outset are not followed at all. */
const FORGOTTEN = 0.0005;

export class Search {
  private readonly order: Int32Array;
  private readonly worth: Float64Array;
  /** Suspects that are followed */
  private readonly live: Int32Array;
  /** Room for the belief after an outcome, for each of the two steps ahead: made once, since thousands are looked at */
  private readonly after: readonly Belief[];
  private step = 0;

  /** @param nothing index of nothing wrong among the suspects; −1 where it is none of them. */
  constructor(
    private readonly nothing: number,
    private readonly belief: Belief,
  ) {
    const { weights } = belief;
    const total = weights.reduce((sum, w) => sum + w, 0);
    this.live = Int32Array.from(weights.keys()).filter((i) => (weights[i] as number) >= FORGOTTEN * total);
    this.order = new Int32Array(this.live.length);
    this.worth = new Float64Array(this.live.length);
    const room = () => ({ weights: new Float64Array(weights.length), confirm: new Float64Array(weights.length) });
    this.after = [room(), room()];
  }

  private sum(weights: Float64Array): number {
    let sum = 0;
    for (const i of this.live) sum += weights[i] as number;
    return sum;
  }

  /**
   * Minutes by hand alone: the likeliest for its minutes first, each tried, found again by a second try before anything is fitted,
   * and left alone where trying costs more than it saves.
   */
  byHand({ weights, confirm }: Belief = this.belief): number {
    const { order, worth, nothing, live } = this;
    const total = this.sum(weights);
    if (!(total > 0)) return 0;
    let tried = 0;
    for (const i of live) {
      const weight = weights[i] as number;
      if (i === nothing || weight < NEGLIGIBLE * total) continue;
      const ratio = weight / (confirm[i] as number);
      let at = tried++;
      for (; at > 0 && (worth[at - 1] as number) < ratio; at--) {
        worth[at] = worth[at - 1] as number;
        order[at] = order[at - 1] as number;
      }
      worth[at] = ratio;
      order[at] = i;
    }
    let open = 1;
    let faulty = nothing < 0 ? 1 : 1 - (weights[nothing] as number) / total;
    let minutes = 0;
    for (let k = 0; k < tried; k++) {
      const i = order[k] as number;
      const found = (HAND_SEES * (weights[i] as number)) / total;
      const step = (open + found) * (confirm[i] as number);
      if (step > COMES_BACK * found) break;
      minutes += step;
      open -= found;
      faulty -= found;
    }
    return minutes + COMES_BACK * Math.max(0, faulty);
  }

  /** Minutes with a check first, and what `then` says of each outcome after it. */
  private first(
    way: Way,
    { weights, confirm }: Belief,
    without: number,
    then: (after: Belief, chance: number) => number,
  ): number {
    const total = this.sum(weights);
    const room = this.after[this.step++] as Belief;
    let [minutes, looked] = [0, 0];
    for (let o = 0; o < way.outcomes.length; o++) {
      const outcome = way.outcomes[o] as Float64Array;
      let sum = 0;
      for (const i of this.live) {
        const weight = (weights[i] as number) * (outcome[i] as number);
        room.weights[i] = weight;
        sum += weight;
      }
      const chance = sum / total;
      if (chance < 2 * NEGLIGIBLE) continue;
      room.confirm.set(confirm);
      for (const i of way.names[o] ?? []) room.confirm[i] = Math.min(POINTED_AT, confirm[i] as number);
      looked += chance;
      minutes += chance * then(room, chance);
    }
    this.step--;
    const left = looked > 0 ? minutes / looked : without;
    return way.minutes + way.fresh * left + (1 - way.fresh) * without;
  }

  /** Minutes with each check first and by hand after it. */
  oneAhead(ways: readonly Way[], belief: Belief = this.belief): number[] {
    const without = this.byHand(belief);
    return ways.map((way) => this.first(way, belief, without, (after) => this.byHand(after)));
  }

  /**
   * Minutes with each check first: of the best few with the best check after it, where one is worth it; of the others with what is
   * tried by hand after it.
   */
  twoAhead(ways: readonly Way[]): number[] {
    const { belief } = this;
    const without = this.byHand();
    const one = this.oneAhead(ways);
    const best = one.map((_, w) => w).toSorted((a, b) => (one[a] as number) - (one[b] as number));
    const follow = best.slice(0, FOLLOW + 1);
    for (const w of best.slice(0, AHEAD)) {
      one[w] = this.first(ways[w] as Way, belief, without, (after, chance) => {
        const hand = this.byHand(after);
        if (hand < SETTLED || chance < 5 * NEGLIGIBLE) return hand;
        let soonest = hand;
        for (const f of follow) {
          const next = ways[f] as Way;
          if (f === w || next.minutes >= soonest) continue;
          soonest = Math.min(
            soonest,
            this.first(next, after, hand, (last) => this.byHand(last)),
          );
        }
        return soonest;
      });
    }
    return one;
  }

  /** The suspect to try first by hand, of those that may be, and the minutes when it is tried now; undefined where there is none. */
  tryNow(
    ways: readonly Way[],
    may: (suspect: number) => boolean = () => true,
  ): { readonly suspect: number; readonly minutes: number } | undefined {
    const { weights, confirm } = this.belief;
    const total = this.sum(weights);
    let suspect = -1;
    for (const i of this.live) {
      if (i === this.nothing || !may(i)) continue;
      const ratio = (weights[i] as number) / (confirm[i] as number);
      if (suspect < 0 || ratio > (weights[suspect] as number) / (confirm[suspect] as number)) suspect = i;
    }
    if (suspect < 0) return undefined;
    const found = (HAND_SEES * (weights[suspect] as number)) / total;
    const missed = weights.slice();
    missed[suspect] = (missed[suspect] as number) * (1 - HAND_SEES);
    const after = { weights: missed, confirm };
    const then = Math.min(this.byHand(after), ...this.oneAhead(ways, after));
    const cost = confirm[suspect] as number;
    return { suspect, minutes: cost * (1 + found) + (1 - found) * then };
  }
}
