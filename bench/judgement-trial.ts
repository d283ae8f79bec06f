import { CHECKS, type CheckId, type Verdict } from "@/core/checks";
import { type Cause, causesOf } from "@/core/faults";
import {
  candidatesOf,
  confirmMinutes,
  type EngineNow,
  type Evidence,
  nextSteps,
  type PossibleCheck,
  type Suspect,
  waitFor,
  weighSuspects,
} from "@/core/suspects";
import type { HiddenCar } from "./hidden-cars";

/** Odds from which a technician with a fixed order goes and confirms the first suspect. */
const SURE = 0.5;
const MOST_CHECKS = 16;
/** Cost of a fault that was not found at all, on top of what was spent, minutes. */
const GIVEN_UP = 60;

export interface Trial {
  readonly name: string;
  /** Share of cars whose true cause was ranked first within five checks */
  readonly first: number;
  readonly minutes: number;
  readonly found: number;
  /** Confusions, ranked first instead: true → said, with how often */
  readonly wrong: Readonly<Record<string, number>>;
}

type Seen = readonly [suspects: readonly Suspect[], car: HiddenCar, done: readonly PossibleCheck[], engine: EngineNow];
/** The order of checks, and when the first suspect is confirmed by hand instead. */
interface Order {
  next(...seen: Seen): PossibleCheck | undefined;
  confirm(...seen: Seen): Suspect | undefined;
}

const same = (a: { check: CheckId; place?: string }, b: { check: CheckId; place?: string }) =>
  a.check === b.check && a.place === b.place;

const steps = (...[suspects, car, done, engine]: Seen) =>
  nextSteps(suspects, car.context, done, { standing: [], engine }, car.families);

/** The app's own choice. */
const ownChoice: Order = {
  next(...seen) {
    const [, car, done] = seen;
    const left = candidatesOf(car.context, car.families).filter((c) => !done.some((d) => same(d, c)));
    const best = steps(...seen).checks.find((n) => left.some((c) => same(c, n)));
    return best && left.find((c) => same(c, best));
  },
  confirm: (...seen) => steps(...seen).byHand?.suspect,
};

/** A fixed order of kinds; within a kind, as the vehicle lists them. Smoke and air go in by one way; other ways in come last. */
const fixed = (kinds: readonly CheckId[]): Order => ({
  next(_suspects, car, done) {
    const all = candidatesOf(car.context, car.families);
    const rank = (c: PossibleCheck) => {
      const place = kinds.indexOf(c.check);
      // Left out of the order it would come before all of it, and be no order that anybody follows.
      if (place < 0) throw new RangeError(`The fixed order has no place for a ${c.check}`);
      // What fills a circuit goes in by one way.
      return CHECKS[c.check].sweeps && c !== all.find((d) => d.check === c.check) ? kinds.length : place;
    };
    return all.filter((c) => !done.some((d) => same(d, c))).toSorted((a, b) => rank(a) - rank(b))[0];
  },
  confirm: ([first]) => (first && first.odds >= SURE && first.cause.id !== "healthy" ? first : undefined),
});

/** Where smoke goes first, the rest of the vapour system's checks come last. */
const VAPOUR_LAST: readonly CheckId[] = ["cap", "pulldown", "decay", "vent-path", "tank-sensor"];

const ORDERS: readonly (readonly [string, Order])[] = [
  ["the app's own choice", ownChoice],
  [
    "always smoke first",
    fixed([
      "smoke",
      "evap-smoke",
      "pressure-test",
      "boost",
      "filter",
      "secondary-air",
      "egr",
      "exhaust-gas",
      "back-pressure",
      "look",
      "trims",
      "probe",
      "airflow",
      "crankcase",
      "vacuum",
      "pinch",
      "output",
      "chain",
      "valve",
      "hold",
      "circuit",
      "borescope",
      ...VAPOUR_LAST,
    ]),
  ],
  [
    "look, live data, cheap parts, enrichment, smoke",
    fixed([
      "look",
      "trims",
      "pulldown",
      "cap",
      "airflow",
      "pinch",
      "probe",
      "smoke",
      "evap-smoke",
      "pressure-test",
      "boost",
      "filter",
      "secondary-air",
      "egr",
      "exhaust-gas",
      "back-pressure",
      "crankcase",
      "vacuum",
      "output",
      "chain",
      "valve",
      "hold",
      "circuit",
      "borescope",
      ...VAPOUR_LAST.filter((id) => id !== "pulldown" && id !== "cap"),
    ]),
  ],
];

const isTrue = (cause: Cause | undefined, car: HiddenCar) =>
  car.faults.some((f) => f.id === cause?.id || (f.joint !== undefined && f.joint === cause?.joint));

/** How often what was said at such odds was true: a tenth of the scale, with how many statements fell into it. */
export interface Tenth {
  readonly said: number;
  readonly right: number;
  readonly count: number;
}

/** Results on a set of cars: each order's way, the odds that were said, and what was called tight and was not. */
export interface Judged {
  readonly cars: number;
  readonly orders: readonly Trial[];
  /** Every suspect's odds after every check of the engine's own order, on cars with one fault; below a hundredth is left out */
  readonly tenths: readonly Tenth[];
  /** Zones called tight, and how many of them held a hole that the check had put to the test */
  readonly tight: number;
  readonly wrongTight: number;
}

/** Each order on the same cars. */
export function judgementTrial(count: number, seed: number, carOf: (seed: number) => HiddenCar): Judged {
  const tenths = Array.from({ length: 10 }, () => ({ said: 0, right: 0, count: 0 }));
  const found = ORDERS.map(() => ({ first: 0, minutes: 0, found: 0, wrong: {} as Record<string, number> }));
  const tight = { said: 0, wrong: 0 };
  for (let i = 0; i < count; i++) {
    const car = carOf(seed + i);
    for (const [n, [, order]] of ORDERS.entries()) {
      const tally = found[n] as (typeof found)[number];
      const own = n === 0;
      const result = work(car, order, {
        weighed: own && car.faults.length === 1 ? (suspects) => tell(tenths, suspects, car) : () => {},
        read: own ? (verdict) => countTight(tight, verdict, car) : () => {},
      });
      tally.minutes += result.minutes / count;
      if (result.found) tally.found += 1 / count;
      if (result.firstWithinFive) tally.first += 1 / count;
      else {
        const key = `${result.truth} → ${result.said}`;
        tally.wrong[key] = (tally.wrong[key] ?? 0) + 1;
      }
    }
  }
  return {
    cars: count,
    orders: ORDERS.map(([name], n) => ({ name, ...(found[n] as (typeof found)[number]) })),
    tenths: tenths.map((t) => ({
      said: t.said / Math.max(1, t.count),
      right: t.right / Math.max(1, t.count),
      count: t.count,
    })),
    tight: tight.said,
    wrongTight: tight.wrong,
  };
}

function tell(tenths: { said: number; right: number; count: number }[], suspects: readonly Suspect[], car: HiddenCar): void {
  for (const { cause, odds } of suspects) {
    if (odds < 0.01) continue;
    const tenth = tenths[Math.min(9, Math.floor(odds * 10))] as (typeof tenths)[number];
    tenth.said += odds;
    tenth.count++;
    if (car.faults.some((f) => f.id === cause.id)) tenth.right++;
  }
}

function countTight(tight: { said: number; wrong: number }, verdict: Verdict, { faults, context }: HiddenCar): void {
  for (const { zone, state } of verdict.zones) {
    if (state !== "tight") continue;
    tight.said++;
    const hole = ({ joint, trait }: Cause) =>
      LETS_OUT.test(trait) &&
      verdict.tested?.includes(joint ?? "") &&
      context.layout.joints.some((j) => j.id === joint && j.from === zone);
    if (faults.some(hole)) tight.wrong++;
  }
}
/** Traits of holes that let gas out. */
const LETS_OUT = /-leak$|^exhaust-air$/;

/** Who listens while a car is worked on. */
interface Listener {
  weighed(suspects: readonly Suspect[]): void;
  read(verdict: Verdict): void;
}

function work(car: HiddenCar, order: Order, listener: Listener) {
  const causes = causesOf(car.context.layout, car.context.vehicle, car.families);
  const cleared = new Set<string>();
  const evidence: Evidence[] = [...car.story];
  const done: PossibleCheck[] = [];
  let minutes = 0;
  let early: Suspect | undefined;
  const weigh = () =>
    weighSuspects(
      causes.filter((c) => !cleared.has(c.id)),
      evidence,
    );
  let suspects = weigh();
  let engine = car.arrives;
  for (let n = 0; n < MOST_CHECKS; n++) {
    const candidate = order.next(suspects, car, done, engine);
    if (!candidate) break;
    const verdict = car.read(candidate);
    listener.read(verdict);
    minutes += candidate.minutes + waitFor(candidate.check, engine);
    if (CHECKS[candidate.check].engine !== "standing") engine = "warm";
    else if (candidate.check === "smoke") engine = "cold";
    // A void check is done again: it stays open.
    if (verdict.outcome !== "void") {
      done.push(candidate);
      if (verdict.observation) {
        evidence.push({ observation: verdict.observation, entry: `${n}`, tested: verdict.tested ?? candidate.tested ?? [] });
      }
    }
    suspects = weigh();
    listener.weighed(suspects);
    if (n < 5) early = suspects[0];
    for (
      let confirm = order.confirm(suspects, car, done, engine);
      confirm;
      confirm = order.confirm(suspects, car, done, engine)
    ) {
      minutes += confirmMinutes(confirm);
      if (isTrue(confirm.cause, car)) {
        if (n < 5) early = confirm;
        return {
          minutes,
          found: true,
          firstWithinFive: isTrue(early?.cause, car),
          truth: truth(car),
          said: early?.cause.id ?? "",
        };
      }
      cleared.add(confirm.cause.id);
      suspects = weigh();
      if (n < 5) early = suspects[0];
    }
  }
  return {
    minutes: minutes + GIVEN_UP,
    found: false,
    firstWithinFive: isTrue(early?.cause, car),
    truth: truth(car),
    said: early?.cause.id ?? "",
  };
}

const truth = (car: HiddenCar) => car.faults.map((f) => f.id).join(" + ");
