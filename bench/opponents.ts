/**
 * The app's choice against charts: the two old orders, and one an expert would write for each family, taken at the likeliest place
 * first. All find by the same hand, which misses and errs, and fit a part only after a second confirmation.
 */
import { CHECK_IDS, CHECKS, type CheckId, type Verdict } from "@/core/checks";
import { type Cause, causesOf, type Family } from "@/core/faults";
import { type Noise, seededNoise } from "@/core/maths/random";
import {
  candidatesOf,
  confirmMinutes,
  type Done,
  type EngineNow,
  type Evidence,
  NOTHING_FOUND,
  nextSteps,
  type PossibleCheck,
  type Suspect,
  triedNot,
  waitFor,
  weighSuspects,
} from "@/core/suspects";
import type { HiddenCar } from "./hidden-cars";

/** What an expert does first for a complaint of each family; what is not named comes after it. */
const CHARTS: Readonly<Record<Family, readonly CheckId[]>> = {
  engine: ["look", "trims", "smoke", "pinch", "airflow", "vacuum", "exhaust-gas", "probe", "crankcase", "back-pressure", "valve"],
  boost: ["look", "boost", "pressure-test", "chain", "hold", "output", "circuit", "smoke", "back-pressure"],
  egr: ["look", "egr", "output", "circuit", "hold", "chain"],
  evap: ["cap", "evap-smoke", "vent-path", "pulldown", "decay", "valve", "tank-sensor", "circuit"],
  filter: ["look", "filter", "back-pressure", "pressure-test", "boost", "exhaust-gas"],
  "secondary-air": ["secondary-air", "output", "circuit", "hold", "chain", "borescope"],
};
const SMOKE_FIRST: readonly CheckId[] = ["smoke", "evap-smoke", "pressure-test", "boost", "filter", "secondary-air", "egr"];
const LOOK_FIRST: readonly CheckId[] = ["look", "trims", "pulldown", "cap", "airflow", "pinch", "probe", "smoke", "evap-smoke"];

/** A hand that confirms: of true causes it misses so many, of others it confirms so many. */
const MISSES = 0.05;
const ERRS = 0.02;
/** Odds from which a chart hands a car back as one with nothing wrong, and those from which it confirms its first suspect by hand. */
const NOTHING = 0.8;
const SURE = 0.5;
const MOST_CHECKS = 20;
const GIVEN_UP = 60;
/** Before a car is given up its likeliest suspects that were not tried yet are tried by hand, so many of them. */
const LAST_TRIES = 3;

interface Seen {
  readonly suspects: readonly Suspect[];
  readonly car: HiddenCar;
  /** Checks that told something */
  readonly done: readonly PossibleCheck[];
  /** All of them, in their order, those that proved nothing too */
  readonly all: readonly Done[];
  readonly engine: EngineNow;
  /** Suspects that were tried by hand and not confirmed, and those since the last check that told anything */
  readonly tried: readonly string[];
  readonly just: readonly string[];
}
interface Player {
  readonly name: string;
  next(seen: Seen): PossibleCheck | undefined;
  confirm(seen: Seen): Suspect | undefined;
  /** Odds of nothing wrong from which it is handed back */
  readonly nothing: number;
}

const same = (a: { check: CheckId; place?: string }, b: { check: CheckId; place?: string }) =>
  a.check === b.check && a.place === b.place;
const open = ({ car, done }: Seen) => candidatesOf(car.context, car.families).filter((c) => !done.some((d) => same(d, c)));
const steps = ({ suspects, car, all, engine, just }: Seen) =>
  nextSteps(suspects, car.context, all, { standing: [], engine, tried: just }, car.families);
const byWorth = (seen: Seen) => steps(seen).byHand?.suspect;
const byOdds = ({ suspects: [first], tried }: Seen) =>
  first && first.odds >= SURE && first.cause.trait !== "healthy" && !tried.includes(first.cause.id) ? first : undefined;

const app: Player = {
  name: "the app",
  next(seen) {
    const left = open(seen);
    const best = steps(seen).checks.find((n) => left.some((c) => same(c, n)));
    return best && left.find((c) => same(c, best));
  },
  confirm: byWorth,
  nothing: NOTHING_FOUND,
};

/** Suspicion that a check looks at: of its place, or of all that it puts to the test. */
const suspicion = ({ place, tested }: PossibleCheck, suspects: readonly Suspect[]) =>
  suspects.reduce((sum, { cause, odds }) => {
    const at = [cause.joint, cause.id, cause.device];
    return at.some((a) => a !== undefined && (a === place || tested?.includes(a))) ? sum + odds : sum;
  }, 0);

const chart = (
  name: string,
  kinds: (family: Family) => readonly CheckId[],
  { likeliest, confirm }: { likeliest: boolean; confirm: Player["confirm"] },
): Player => ({
  name,
  next(seen) {
    const order = kinds(seen.car.families[0] ?? "engine");
    const all = open(seen);
    const rank = ({ check }: PossibleCheck) =>
      order.includes(check) ? order.indexOf(check) : order.length + CHECK_IDS.indexOf(check);
    const ways = candidatesOf(seen.car.context, seen.car.families);
    // What fills a circuit goes in by one way; the others come last.
    const late = (c: PossibleCheck) => (CHECKS[c.check].sweeps && c !== ways.find((d) => d.check === c.check) ? 1000 : 0);
    return all.toSorted(
      (a, b) =>
        rank(a) + late(a) - rank(b) - late(b) || (likeliest ? suspicion(b, seen.suspects) - suspicion(a, seen.suspects) : 0),
    )[0];
  },
  confirm,
  nothing: NOTHING,
});

const PLAYERS: readonly Player[] = [
  app,
  chart("smoke first", () => SMOKE_FIRST, { likeliest: false, confirm: byOdds }),
  chart("look and live data first", () => LOOK_FIRST, { likeliest: false, confirm: byOdds }),
  chart("the expert's chart", (family) => CHARTS[family], { likeliest: true, confirm: byOdds }),
  chart("the expert's chart, confirming as the app does", (family) => CHARTS[family], { likeliest: true, confirm: byWorth }),
];

const isTrue = (cause: Cause, { faults }: HiddenCar) =>
  faults.some((f) => f.id === cause.id || (f.joint !== undefined && f.joint === cause.joint));

/** Traits of holes that let gas out. */
const LETS_OUT = /-leak$|^exhaust-air$/;

/** How a car ended: minutes, whether a true cause stood first within five checks, what did instead, and what was done with it. */
interface End {
  readonly minutes: number;
  readonly first: boolean;
  readonly said: string;
  readonly ended: "found" | "handed-back" | "wrong-part" | "given-up";
}
/** Who listens while a car is worked on. */
interface Listener {
  weighed(suspects: readonly Suspect[]): void;
  read(verdict: Verdict): void;
}

function play(car: HiddenCar, player: Player, noise: Noise, listener: Listener): End {
  const causes = causesOf(car.context.layout, car.context.vehicle, car.families);
  const tried: string[] = [];
  /** Those since the last check that told anything */
  const just: string[] = [];
  const evidence: Evidence[] = [...car.story];
  const done: PossibleCheck[] = [];
  const all: Done[] = [];
  let [minutes, checks, first, said] = [0, 0, false, ""];
  let engine = car.arrives;
  let suspects: readonly Suspect[] = [];
  const weigh = () => {
    suspects = weighSuspects(causes, evidence);
    const [top] = suspects;
    if (checks <= 5 && top) said = top.cause.id;
    if (checks <= 5 && top) first ||= car.faults.length === 0 ? top.cause.trait === "healthy" : isTrue(top.cause, car);
  };
  const holds = (cause: Cause) => noise.uniform() < (isTrue(cause, car) ? 1 - MISSES : ERRS);
  /** One suspect tried by hand: how the car ended, where it was fitted. */
  const tryByHand = (suspect: Suspect): End | undefined => {
    minutes += confirmMinutes(suspect);
    if (holds(suspect.cause)) {
      // A part is fitted after a second confirmation that knows nothing of the first.
      minutes += confirmMinutes(suspect);
      if (holds(suspect.cause)) {
        const right = isTrue(suspect.cause, car);
        // What was confirmed by hand stands first.
        return { minutes, first: first || (right && checks <= 5), said, ended: right ? "found" : "wrong-part" };
      }
    }
    tried.push(suspect.cause.id);
    just.push(suspect.cause.id);
    evidence.push({ observation: triedNot(suspect.cause), entry: `by hand ${tried.length}` });
    weigh();
    return undefined;
  };
  weigh();
  for (; checks < MOST_CHECKS; ) {
    const candidate = player.next({ suspects, car, done, all, engine, tried, just });
    if (!candidate) break;
    const verdict = car.read(candidate);
    listener.read(verdict);
    checks++;
    minutes += candidate.minutes + waitFor(candidate.check, engine);
    if (CHECKS[candidate.check].engine !== "standing") engine = "warm";
    else if (candidate.check === "smoke") engine = "cold";
    const told = verdict.tested ?? candidate.tested ?? [];
    const voided = verdict.outcome === "void" || verdict.observation === undefined;
    if (!voided) just.length = 0;
    all.push({ check: candidate.check, place: candidate.place, tested: told, ...(voided ? { void: true } : {}) });
    if (verdict.outcome !== "void") {
      done.push(candidate);
      if (verdict.observation) evidence.push({ observation: verdict.observation, entry: `${checks}`, tested: told });
    }
    weigh();
    listener.weighed(suspects);
    for (;;) {
      const confirm = player.confirm({ suspects, car, done, all, engine, tried, just });
      if (!confirm) break;
      const end = tryByHand(confirm);
      if (end) return end;
    }
    const [top] = suspects;
    if (top?.cause.trait === "healthy" && top.odds >= player.nothing) return { minutes, first, said, ended: "handed-back" };
  }
  for (let last = 0; last < LAST_TRIES; last++) {
    const [top] = suspects;
    const suspect = suspects.find((s) => s.cause.trait !== "healthy" && !tried.includes(s.cause.id));
    if (!suspect || top?.cause.trait === "healthy") break;
    const end = tryByHand(suspect);
    if (end) return end;
  }
  const [top] = suspects;
  if (top?.cause.trait === "healthy") return { minutes, first, said, ended: "handed-back" };
  return { minutes: minutes + GIVEN_UP, first, said, ended: "given-up" };
}

/** Statements of a tenth of the scale: how often they came true, and the standard error of that, clustered by car. */
export interface Tenth {
  readonly said: number;
  readonly right: number;
  readonly count: number;
  readonly error: number;
}
export interface Played {
  readonly name: string;
  readonly first: number;
  /** Of cars with a fault, a wrong end counting as one given up */
  readonly minutes: number;
  /** Minutes that the app takes less, with the standard error of that over the same cars */
  readonly behind: { readonly minutes: number; readonly error: number };
  readonly found: number;
  readonly handedBack: number;
  /** Parts fitted to cars with nothing wrong, share of those */
  readonly fitted: number;
}

export interface Trial {
  readonly players: readonly Played[];
  /** Cars with a fault, and with none */
  readonly faulty: number;
  readonly sound: number;
  /** Every suspect's odds after every check of the app's, on cars with one fault or none; below one in a hundred is left out */
  readonly tenths: readonly Tenth[];
  /** Zones that the app's checks called tight, and how many held a hole that the check had put to the test */
  readonly tight: { readonly said: number; readonly wrong: number };
  /** What stood first after the app's five checks instead: true → said, with how often */
  readonly wrong: Readonly<Record<string, number>>;
}

const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);
/** How many more minutes one list is than the other, car by car, and the standard error of it. */
function behind(list: readonly number[], than: readonly number[]): Played["behind"] {
  const more = list.map((minutes, i) => minutes - (than[i] as number));
  const middle = mean(more);
  return { minutes: middle, error: Math.sqrt(mean(more.map((m) => (m - middle) ** 2)) / Math.max(1, more.length)) };
}

/** Every player on the same cars. @param count cars. */
export function opponentsTrial(count: number, seed: number, carOf: (seed: number) => HiddenCar): Trial {
  const tally = PLAYERS.map(() => ({ first: 0, minutes: [] as number[], found: 0, back: 0, fitted: 0 }));
  const tenths = Array.from({ length: 10 }, () => ({ said: 0, right: 0, count: 0, squares: 0 }));
  let [faulty, healthy] = [0, 0];
  const tight = { said: 0, wrong: 0 };
  const wrong: Record<string, number> = {};
  for (let i = 0; i < count; i++) {
    const sound = carOf(seed + i).faults.length === 0;
    if (sound) healthy++;
    else faulty++;
    for (const [n, player] of PLAYERS.entries()) {
      // Each player meets the same car with the same luck.
      const car = carOf(seed + i);
      const off = new Array<number>(10).fill(0);
      const weighed = (suspects: readonly Suspect[]) => {
        if (n > 0 || car.faults.length > 1) return;
        for (const { cause, odds } of suspects) {
          if (odds < 0.01) continue;
          const at = Math.min(9, Math.floor(odds * 10));
          const right = sound ? cause.trait === "healthy" : car.faults.some((f) => f.id === cause.id);
          const tenth = tenths[at] as (typeof tenths)[number];
          tenth.said += odds;
          tenth.right += right ? 1 : 0;
          tenth.count++;
          off[at] = (off[at] as number) + (right ? 1 : 0) - odds;
        }
      };
      const read = ({ zones, tested }: Verdict) => {
        if (n > 0) return;
        for (const { zone } of zones.filter((z) => z.state === "tight")) {
          tight.said++;
          const hole = ({ joint, trait }: Cause) =>
            LETS_OUT.test(trait) &&
            tested?.includes(joint ?? "") &&
            car.context.layout.joints.some((j) => j.id === joint && j.from === zone);
          if (car.faults.some(hole)) tight.wrong++;
        }
      };
      const { minutes, first, said, ended } = play(car, player, seededNoise(seed + i), { weighed, read });
      for (const [at, sum] of off.entries()) (tenths[at] as (typeof tenths)[number]).squares += sum ** 2;
      const t = tally[n] as (typeof tally)[number];
      if (sound) {
        if (ended === "handed-back") t.back++;
        if (ended === "wrong-part") t.fitted++;
        continue;
      }
      t.minutes.push(minutes + (ended === "handed-back" || ended === "wrong-part" ? GIVEN_UP : 0));
      if (first) t.first++;
      else if (n === 0) {
        const key = `${car.faults.map((f) => f.id).join(" + ")} → ${said}`;
        wrong[key] = (wrong[key] ?? 0) + 1;
      }
      if (ended === "found") t.found++;
    }
  }
  const of = (n: number, all: number) => n / Math.max(1, all);
  return {
    faulty,
    sound: healthy,
    tight,
    wrong,
    players: PLAYERS.map(({ name }, n): Played => {
      const t = tally[n] as (typeof tally)[number];
      return {
        name,
        first: of(t.first, faulty),
        minutes: mean(t.minutes),
        behind: behind(t.minutes, tally[0]?.minutes ?? []),
        found: of(t.found, faulty),
        handedBack: of(t.back, healthy),
        fitted: of(t.fitted, healthy),
      };
    }),
    tenths: tenths.map(
      (t): Tenth => ({
        said: of(t.said, t.count),
        right: of(t.right, t.count),
        count: t.count,
        error: of(Math.sqrt(t.squares), t.count),
      }),
    ),
  };
}
