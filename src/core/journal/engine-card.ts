import type { CheckId } from "../checks";
import { formatQuantity, fromSi, isQuantity, type Quantity, toSi, UNITS, type UnitId } from "../units";
import type { EngineNote } from "./entries";
import type { JobState } from "./state";

/** A proved job of an engine, as a card is folded from it. */
interface CardJob {
  readonly jobId: string;
  readonly number: number;
  readonly state: Pick<JobState, "checks" | "findings" | "repairs" | "conditions" | "kit" | "engineNotes">;
}

/** A reading on sound engines of this kind: what it was, and from which jobs. */
export interface KnownGood {
  readonly check: CheckId;
  readonly name: string;
  readonly unit: UnitId;
  readonly kind?: Quantity["kind"];
  /** Each job's own, in `unit`, the newest first; with which machine, in what air */
  readonly values: readonly { readonly value: number; readonly job: number; readonly with?: string }[];
  /** From–to over all of them; left out where they do not agree: then each stands by itself */
  readonly band?: readonly [low: number, high: number];
}

/** Experience of a shop of an engine from its own proved jobs. */
export interface EngineCard {
  readonly jobs: number;
  readonly knownGood: readonly KnownGood[];
  /** Places that were found, the most frequent first */
  readonly weak: readonly { readonly joint: string; readonly times: number; readonly minutes?: number }[];
  /** Where smoke or pressure went in, with a picture where one was taken */
  readonly entries: readonly {
    readonly joint: string;
    readonly times: number;
    readonly picture?: { readonly jobId: string; readonly sha256: string };
  }[];
  readonly torques: readonly { readonly where: string; readonly torque: Quantity; readonly job: number }[];
  readonly parts: readonly { readonly name: string; readonly times: number }[];
  /** Supplies a teardown took, besides parts */
  readonly kit: readonly { readonly name: string; readonly times: number }[];
  /** Notes written for whoever comes next, the newest first */
  readonly notes: readonly {
    readonly about: EngineNote;
    readonly text: string;
    readonly by: string;
    readonly at: string;
    readonly job: number;
    readonly pictures: readonly { readonly jobId: string; readonly sha256: string }[];
  }[];
}

/** So many jobs make a band; fewer stand each by itself. */
const ENOUGH = 3;
/** Readings further apart than this share of their middle do not agree. */
const APART = 0.5;

const middle = (sorted: readonly number[]) => sorted[Math.floor(sorted.length / 2)] as number;

/** Quantities that a gauge, a ball or a meter shows; a size that was worked out is no reading. */
const READ: readonly string[] = ["pressure", "volume-flow", "mass-flow", "voltage"];

const counted = (names: readonly string[]) => {
  const times = new Map<string, number>();
  for (const name of names) times.set(name, (times.get(name) ?? 0) + 1);
  return [...times].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));
};

/** With which machine, and in what air, something was read. */
function taken(record: object, conditions: JobState["conditions"]): string {
  const machine = (record as { readonly machine?: { readonly name?: string } }).machine?.name;
  return [machine, conditions && formatQuantity(conditions.bayTemperature)].filter(Boolean).join(", ");
}

/** Readings that passed after the repair, by check and reading: of each job the last. */
function knownGoodOf(jobs: readonly CardJob[]): KnownGood[] {
  const readings = new Map<string, KnownGood & { readonly values: { value: number; job: number; with?: string }[] }>();
  /** By reading: the widest interval of any, in its unit */
  const told = new Map<string, number>();
  for (const { number, state } of jobs) {
    const sound = state.checks.filter((c) => c.afterRepair === "after" && c.verdict.outcome === "pass" && !c.onBench);
    const last = new Map(sound.map((c) => [c.check, c]));
    for (const { check, record, verdict } of last.values()) {
      const how = taken(record, state.conditions);
      for (const { name, value, low, high } of verdict.measures) {
        if (!isQuantity(value) || !READ.includes(UNITS[value.unit].dimension)) continue;
        const key = `${check} ${name} ${UNITS[value.unit].dimension} ${value.kind ?? ""}`;
        const known = readings.get(key) ?? {
          check,
          name,
          unit: value.unit,
          ...(value.kind ? { kind: value.kind } : {}),
          values: [],
        };
        readings.set(key, known);
        // What its scale cannot tell apart agrees, also where all of it is next to nothing.
        if (low !== undefined && high !== undefined && value.unit === known.unit)
          told.set(key, Math.max(told.get(key) ?? 0, high - low));
        // A reading in another unit of the same kind is shown in the first one's.
        known.values.push({
          value: value.unit === known.unit ? value.value : fromSi(toSi(value), known.unit).value,
          job: number,
          ...(how === "" ? {} : { with: how }),
        });
      }
    }
  }
  return [...readings].map(([key, reading]): KnownGood => {
    const sorted = reading.values.map((v) => v.value).toSorted((a, b) => a - b);
    const [low, high] = [sorted[0] as number, sorted.at(-1) as number];
    const agrees = high - low <= Math.max(APART * Math.abs(middle(sorted)), told.get(key) ?? 0);
    return { ...reading, ...(sorted.length >= ENOUGH && agrees ? { band: [low, high] as const } : {}) };
  });
}

/**
 * Folds an engine's card from its proved jobs, the newest first, and from the notes of those where somebody wrote some down, proved
 * or not; undefined where there is neither.
 */
export function engineCard(jobs: readonly CardJob[], noted: readonly CardJob[] = []): EngineCard | undefined {
  const notes = noted
    .flatMap(({ jobId, number, state }) =>
      state.engineNotes.map(({ pictures, ...note }) => ({
        ...note,
        job: number,
        pictures: (pictures ?? []).map((sha256) => ({ jobId, sha256 })),
      })),
    )
    .toSorted((a, b) => b.at.localeCompare(a.at));
  if (jobs.length === 0 && notes.length === 0) return undefined;
  const lasting = jobs.flatMap(({ number, state }) =>
    state.repairs.filter((r) => !r.undone && r.body.permanence !== "bypass").map((repair) => ({ number, state, repair })),
  );
  const minutesAt = (joint: string) => {
    const minutes = lasting
      .filter(({ state, repair }) => state.findings.some((f) => f.entry === repair.body.finding && f.body.joint === joint))
      .map(({ repair }) => repair.body.labourMinutes)
      .filter((m) => m > 0)
      .toSorted((a, b) => a - b);
    return minutes.length > 0 ? middle(minutes) : undefined;
  };
  const found = jobs.flatMap(({ state }) => [
    ...new Set(state.findings.filter((f) => f.repairedBy && f.body.confirmed).map((f) => f.body.joint)),
  ]);
  const ways = jobs.flatMap(({ jobId, state }) =>
    state.checks
      .filter((c) => c.verdict.outcome !== "void")
      .flatMap((c) => {
        const entry = (c.record as { readonly entry?: unknown }).entry;
        return typeof entry === "string" && entry !== "" ? [{ entry, jobId, picture: c.pictures?.[0] }] : [];
      }),
  );
  return {
    jobs: jobs.length,
    knownGood: knownGoodOf(jobs),
    weak: counted(found).map(([joint, times]) => {
      const minutes = minutesAt(joint);
      return { joint, times, ...(minutes === undefined ? {} : { minutes }) };
    }),
    entries: counted(ways.map((w) => w.entry)).map(([joint, times]) => {
      const shown = ways.find((w) => w.entry === joint && w.picture !== undefined);
      return { joint, times, ...(shown?.picture ? { picture: { jobId: shown.jobId, sha256: shown.picture } } : {}) };
    }),
    torques: lasting.flatMap(({ number, repair }) => (repair.body.torques ?? []).map((t) => ({ ...t, job: number }))),
    notes,
    kit: counted(jobs.flatMap(({ state }) => state.kit.map((item) => item.what))).map(([name, times]) => ({ name, times })),
    parts: counted(lasting.flatMap(({ repair }) => repair.body.parts.map((p) => p.name))).map(([name, times]) => ({
      name,
      times,
    })),
  };
}
