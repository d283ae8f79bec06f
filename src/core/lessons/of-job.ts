import type { CheckId } from "../checks";
import {
  type FailureCause,
  foldJob,
  type JobState,
  type JournalEntry,
  type Method,
  type Permanence,
  provedOf,
  spanOf,
} from "../journal";
import type { HouseMethods, Shop } from "../shop/settings";

/** A repair, and what was heard of it since. */
export interface RepairLesson {
  readonly permanence: Exclude<Permanence, "bypass">;
  readonly method?: Method;
  readonly failed?: FailureCause;
  readonly since: "held" | "came-back" | "not-heard";
}

/** The lessons that one job on a real car teaches about how well this works. */
export interface Lessons {
  readonly families: readonly string[];
  /** ISO time of its newest entry */
  readonly at: string;
  /** The odds that stood at each place just before it was found, and whether it was found there; none where nothing is proved */
  readonly said: readonly { readonly odds: number; readonly found: boolean }[];
  /** Minutes of work until it was found, and the house methods of that day; left out where nothing is proved */
  readonly search?: { readonly minutes: number; readonly house: Partial<HouseMethods> };
  readonly repairs: readonly RepairLesson[];
  readonly checks: Readonly<Partial<Record<CheckId, number>>>;
  readonly voids: readonly { readonly check: CheckId; readonly why: string }[];
}

/** A gap between two entries that is longer is no work at this job, ms. */
const AWAY = 30 * 60_000;

/**
 * Lessons of a job; undefined in a practice bay, and of another shop's work.
 * @param entries as recorded; @param state their fold; @param houseOn the house methods of a day, by ISO time.
 */
export function lessonsOf(
  entries: readonly JournalEntry[],
  state: JobState,
  { families, shop, houseOn }: { families: readonly string[]; shop: Shop; houseOn: (at: string) => Partial<HouseMethods> },
): Lessons | undefined {
  if (state.practice !== undefined || state.imported) return undefined;
  const found = provedOf(state, families) && firstFinding(entries, state);
  const checks: Partial<Record<CheckId, number>> = {};
  for (const { check } of state.checks) checks[check] = (checks[check] ?? 0) + 1;
  return {
    families,
    at: state.updatedAt,
    said: found ? saidBefore(entries, state, found, shop) : [],
    ...(found ? { search: { minutes: minutesUntil(entries, found), house: houseOn(startOf(found)) } } : {}),
    repairs: repairsOf(state),
    checks,
    voids: state.checks.flatMap(({ check, verdict }) =>
      verdict.outcome === "void" ? [{ check, why: verdict.reasons[0] ?? verdict.headline }] : [],
    ),
  };
}

const startOf = ({ at }: JournalEntry) => new Date(spanOf(at).from).toISOString();

/** The entry that first named a place which was repaired and proved. */
function firstFinding(entries: readonly JournalEntry[], { findings }: JobState): JournalEntry | undefined {
  const proved = new Set(findings.filter((f) => f.body.confirmed && f.repairedBy !== undefined).map((f) => f.entry));
  return entries.filter((e) => proved.has(e.id)).toSorted((a, b) => a.seq - b.seq)[0];
}

/** Odds of the suspects on what was recorded before the finding: by today's rules, and without the shop's own experience. */
function saidBefore(
  entries: readonly JournalEntry[],
  { findings }: JobState,
  finding: JournalEntry,
  shop: Shop,
): Lessons["said"] {
  const before = foldJob(
    entries.filter((e) => e.seq < finding.seq),
    shop,
    spanOf(finding.at).from,
  );
  const there = new Set(findings.filter((f) => f.body.confirmed && f.repairedBy !== undefined).map((f) => f.body.joint));
  // Two causes at one place are one place to look at.
  const places = new Map<string, { odds: number; found: boolean }>();
  for (const { cause, odds } of before.suspects) {
    const place = cause.joint ?? cause.id;
    const known = places.get(place) ?? { odds: 0, found: false };
    places.set(place, { odds: known.odds + odds, found: known.found || there.has(place) || there.has(cause.id) });
  }
  return [...places.values()];
}

/** Minutes of work from the opening to an entry; long gaps are no work at it. */
function minutesUntil(entries: readonly JournalEntry[], finding: JournalEntry): number {
  const times = entries
    .filter((e) => e.seq <= finding.seq)
    .flatMap((e) => {
      const { from, to } = spanOf(e.at);
      return [from, to];
    })
    .filter((time) => time <= spanOf(finding.at).to)
    .toSorted((a, b) => a - b);
  const worked = times.reduce((sum, time, i) => {
    const gap = time - (times[i - 1] ?? time);
    return gap > AWAY ? sum : sum + gap;
  }, 0);
  return worked / 60_000;
}

/** Every lasting repair that is signed and stands, with what was heard of it before the next one after that. */
function repairsOf({ repairs, findings, outcomes }: JobState): RepairLesson[] {
  const told = outcomes.map((o) => ({ ...o, time: Date.parse(o.at) }));
  return repairs.flatMap(({ at, body, undone, proposed }): RepairLesson[] => {
    if (undone || proposed || body.permanence === "bypass") return [];
    const done = spanOf(at).to;
    const first = told.find((o) => o.time >= done);
    const next = first && Math.min(...repairs.map((r) => spanOf(r.at).from).filter((from) => from > first.time));
    const heard = told.filter((o) => o.time >= done && (next === undefined || o.time < next)).map((o) => o.result);
    const failed = findings.find((f) => f.entry === body.finding)?.body.failed?.why;
    return [
      {
        permanence: body.permanence,
        ...(body.method ? { method: body.method } : {}),
        ...(failed ? { failed } : {}),
        since: heard.includes("came-back") ? "came-back" : heard.includes("held") ? "held" : "not-heard",
      },
    ];
  });
}
