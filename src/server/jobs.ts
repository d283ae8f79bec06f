import { and, asc, desc, eq, getTableColumns, gt, sql } from "drizzle-orm";
import { BadInput, validate } from "@/core/input";
import {
  type At,
  asRecorded,
  type Bodies,
  canonicalJson,
  type Entry,
  type EntryKind,
  entrySchema,
  foldJob,
  type Held,
  type JobState,
  type JournalEntry,
  type Opening,
  openingSchema,
  type ServerAnswer,
  validateBody,
  validateDates,
  validatePlaces,
} from "@/core/journal";
import type { Role } from "@/core/people";
import { caseCode, readCaseCode } from "@/core/practice/code";
import type { VehicleRecord } from "@/core/vehicle";
import { type Authored, admitted } from "./admission";
import { tellChanged } from "./changes";
import { now, nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { entries, jobs } from "./db/schema";
import { parsed } from "./parsed";
import { Conflict, NotFound } from "./refusals";
import { readShop } from "./shop";

type Row = typeof entries.$inferSelect;

export const fromRow = (row: Row): JournalEntry => ({
  id: row.id,
  jobId: row.jobId,
  kind: row.kind,
  v: row.v,
  at: JSON.parse(row.at),
  by: row.by,
  device: row.device,
  deviceSeq: row.deviceSeq,
  seenSeq: row.seenSeq,
  body: parsed(row.body),
  ...(row.corrects ? { corrects: row.corrects } : {}),
  ...(row.person ? { person: row.person } : {}),
  ...(row.madeAt ? { madeAt: row.madeAt } : {}),
  ...(row.prior ? { prior: row.prior } : {}),
  seq: row.seq,
  recordedAt: row.recordedAt,
  ...(row.clampedFrom ? { clampedFrom: JSON.parse(row.clampedFrom) } : {}),
  ...(row.role ? { role: row.role as Role } : {}),
  ...(row.signed ? { signed: JSON.parse(row.signed) } : {}),
  ...(row.imported ? { imported: JSON.parse(row.imported) } : {}),
  ...(row.history ? { history: row.history } : {}),
});

export const toRow = (entry: JournalEntry): Row => ({
  ...entry,
  at: JSON.stringify(entry.at),
  body: JSON.stringify(entry.body),
  corrects: entry.corrects ?? null,
  clampedFrom: entry.clampedFrom ? JSON.stringify(entry.clampedFrom) : null,
  role: entry.role ?? null,
  signed: entry.signed ? JSON.stringify(entry.signed) : null,
  person: entry.person ?? null,
  madeAt: entry.madeAt ?? null,
  prior: entry.prior ?? null,
  imported: entry.imported ? JSON.stringify(entry.imported) : null,
  history: entry.history ?? null,
});

const jobExists = (at: Db, jobId: string) => at.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId)).get() !== undefined;

/** Throws NotFound where there is no such job. */
export function requireJob(jobId: string, at: Db = db()): void {
  if (!jobExists(at, jobId)) throw new NotFound("No such job here");
}

/** A job's journal, in the order recorded; only what came after `seq`, if given. */
export function readEntries(jobId: string, after = 0, at: Db = db()): JournalEntry[] {
  const rows = at
    .select()
    .from(entries)
    .where(and(eq(entries.jobId, jobId), gt(entries.seq, after)))
    .orderBy(asc(entries.seq))
    .all();
  if (rows.length === 0) requireJob(jobId, at);
  return rows.map(fromRow);
}

/**
 * Entries that a device lacks, with the `seq` through which it is complete, from one look at the database: everything behind what
 * it holds or, where that is no part of this journal, all there is. Entries just posted are among it even where they were
 * recorded long before. @param held without a `last`, the device is taken at its word.
 */
export function answerBehind(
  jobId: string,
  { behind, last }: Held,
  posted: readonly JournalEntry[] = [],
  at: Db = db(),
): ServerAnswer {
  const there = last === "" ? undefined : queries(at).asRecordedAt.get({ jobId, seq: behind });
  // A page of an older version names the entry alone.
  const instead = last !== "" && last !== there?.id && (!there || last !== asRecorded(there));
  const after = instead ? 0 : behind;
  const missed = readEntries(jobId, after, at);
  const known = new Set(missed.map((e) => e.id));
  return {
    after,
    through: missed.at(-1)?.seq ?? after,
    entries: [...posted.filter((e) => !known.has(e.id)), ...missed],
    ...(instead ? { instead } : {}),
  };
}

/** A job's number in this shop; an imported job whose own was taken has another than it was opened with. */
export const jobNumber = (jobId: string, at: Db = db()): number =>
  at.select({ number: jobs.number }).from(jobs).where(eq(jobs.id, jobId)).get()?.number ?? 0;

/** Folded state of a job under today's shop settings. */
export const readJob = (jobId: string, at: Db = db()): JobState => foldJob(readEntries(jobId, 0, at), readShop(at), now());

export const nextNumber = (at: Db) =>
  (at
    .select({ top: sql<number | null>`max(${jobs.number})` })
    .from(jobs)
    .get()?.top ?? 0) + 1;

/** The case that a job is played on; empty for a real car. */
export const practiceOf = (jobId: string, at: Db = db()): string =>
  at.select({ practice: jobs.practice }).from(jobs).where(eq(jobs.id, jobId)).get()?.practice ?? "";

export const emptyBoard = {
  status: "open",
  station: "story",
  reason: "",
  waitingOn: "me",
  vehicle: "",
  registration: "",
  complaint: "",
  codes: "",
};

/**
 * Opens a job: the number is the server's, the first entry the client's. Opening the same job twice is a no-op.
 * @param opening the entry of kind `opened` without its number.
 */
export const openJob = (opening: unknown, at: Db = db()): { id: string; number: number } =>
  opened(validate<Opening>(openingSchema, opening), at);

/** The same for whoever comes to the door: under the name that the server knows. */
export function takeOpening(opening: unknown, at: Db = db()): { id: string; number: number } {
  const asked = validate<Opening>(openingSchema, opening);
  return opened(admitted(asked, asked.practice !== undefined, "door", at), at);
}

function opened({ practice, ...asked }: Authored<Opening>, at: Db): { id: string; number: number } {
  // The code as it is written, whatever way it was typed.
  const played = practice === undefined ? undefined : caseCode(readCaseCode(practice));
  const open = at.$client.transaction(() => {
    const known = at.select({ number: jobs.number }).from(jobs).where(eq(jobs.id, asked.jobId)).get();
    if (known) return { id: asked.jobId, number: known.number };
    const number = nextNumber(at);
    at.insert(jobs)
      .values({ id: asked.jobId, number, createdAt: nowIso(), updatedAt: nowIso(), ...emptyBoard, practice: played ?? "" })
      .run();
    appendInside(at, [{ ...asked, kind: "opened", v: 1, seenSeq: 0, body: { number, ...(played ? { practice: played } : {}) } }]);
    return { id: asked.jobId, number };
  });
  const job = open.immediate();
  tellChanged(asked.jobId);
  return job;
}

/** A clock ahead of ours by more than this is clamped, ms. */
const CLOCK_SLACK = 120_000;

/** A device's clock that runs ahead cannot make things happen in the future: set back, and noted. */
export function clampAt(entry: Authored<Entry>, latest: number): Authored<Entry> & { readonly clampedFrom?: At } {
  const clamp = (iso: string) => (Date.parse(iso) > latest + CLOCK_SLACK ? new Date(latest).toISOString() : iso);
  const at = typeof entry.at === "string" ? clamp(entry.at) : { from: clamp(entry.at.from), to: clamp(entry.at.to) };
  return canonicalJson(at) === canonicalJson(entry.at) ? entry : { ...entry, at, clampedFrom: entry.at };
}

/** Rules for every append, worked out once a database. */
const prepare = (at: Db) => ({
  byId: at
    .select()
    .from(entries)
    .where(eq(entries.id, sql.placeholder("id")))
    .prepare(),
  asRecordedAt: at
    .select({ id: entries.id, recordedAt: entries.recordedAt })
    .from(entries)
    .where(and(eq(entries.jobId, sql.placeholder("jobId")), eq(entries.seq, sql.placeholder("seq"))))
    .prepare(),
  newest: at
    .select({ seq: entries.seq, recordedAt: entries.recordedAt })
    .from(entries)
    .where(eq(entries.jobId, sql.placeholder("jobId")))
    .orderBy(desc(entries.seq))
    .limit(1)
    .prepare(),
  insert: at
    .insert(entries)
    .values(Object.fromEntries(Object.keys(getTableColumns(entries)).map((key) => [key, sql.placeholder(key)])) as unknown as Row)
    .prepare(),
  grow: at
    .update(jobs)
    .set({ top: sql`${sql.placeholder("top")}` })
    .where(eq(jobs.id, sql.placeholder("jobId")))
    .prepare(),
});
const prepared = new WeakMap<Db, ReturnType<typeof prepare>>();
export function queries(at: Db): ReturnType<typeof prepare> {
  const known = prepared.get(at) ?? prepare(at);
  prepared.set(at, known);
  return known;
}
export const entryById = (at: Db, id: string) => queries(at).byId.get({ id });
/** Whether an entry of this id is recorded, in whatever job. */
export const entryRecorded = (id: string, at: Db = db()): boolean => entryById(at, id) !== undefined;
export const topSeq = (at: Db, jobId: string) => queries(at).newest.get({ jobId })?.seq ?? 0;

/** Writes entries of one job inside a transaction; what is recorded already stays as it is. */
function appendInside(at: Db, list: readonly Authored<Entry>[]): JournalEntry[] {
  const jobId = (list[0] as Entry).jobId;
  const before = queries(at).newest.get({ jobId });
  const practice = practiceOf(jobId, at) !== "";
  // A server's clock that was set back does not turn time round.
  const latest = Math.max(now(), before ? Date.parse(before.recordedAt) : 0);
  let top = before?.seq ?? 0;
  const recorded = list.map((asked) => {
    const known = entryById(at, asked.id);
    if (known) {
      const same =
        known.kind === asked.kind &&
        known.jobId === asked.jobId &&
        canonicalJson(JSON.parse(known.body)) === canonicalJson(asked.body);
      if (!same) throw new Conflict("An entry with this id but other contents is already recorded");
      return fromRow(known);
    }
    checkCorrection(at, asked);
    top++;
    // A practice bay's clock runs ahead of the wall's: waits are skipped there.
    const timed = practice ? asked : clampAt(asked, latest);
    const entry: JournalEntry = { ...timed, seq: top, recordedAt: new Date(latest).toISOString() };
    queries(at).insert.run(toRow(entry));
    return entry;
  });
  queries(at).grow.run({ top, jobId });
  return recorded;
}

/** A correction names the root entry it replaces, of its own kind; only a retraction may name any kind. */
export function checkCorrection(at: Db, entry: Entry): void {
  if (!entry.corrects) {
    if (entry.kind === "retract") throw new BadInput("Say which entry is taken out", "corrects");
    return;
  }
  const root = entryById(at, entry.corrects);
  if (!root || root.jobId !== entry.jobId) throw new BadInput("The corrected entry is not in this job", "corrects");
  if (root.corrects) throw new BadInput("A correction names the first entry, not another correction", "corrects");
  if (entry.kind !== "retract" && root.kind !== entry.kind)
    throw new BadInput(`A correction is of the same kind as what it corrects: ${root.kind}`, "kind");
  if (root.kind === "opened") throw new BadInput("The opening of a job stands", "corrects");
}

const CHANGED = "The job has changed since you looked: see what is new, then decide again";
export const isGate = ({ kind, body }: Entry) =>
  kind === "close" || kind === "handover" || (kind === "countersigned" && !(body as Bodies["countersigned"]).sentBack);

/** Gate commands must rest on the newest state and pass its gates. */
export function checkGate(state: Gates, entry: Entry): void {
  const body = entry.body as { decidedOn: number; conditional?: boolean; onRoad?: boolean; close?: string };
  if (body.decidedOn !== state.lastSeq) throw new Conflict(CHANGED);
  if (entry.kind === "countersigned" && state.closing?.entry !== body.close)
    throw new BadInput("Nobody asks to close this job any more: look at it again", "body.close");
  const { close, handOver } = state.blocks;
  const blocks = !body.conditional ? close : body.onRoad ? close.filter((b) => !b.onRoad) : handOver;
  if (blocks.length > 0) throw new BadInput(blocks.map((b) => b.reason).join("; "), "gate");
}

/** Open gates between a job and its end, and up to which entry that was judged. */
export type Gates = Pick<JobState, "lastSeq" | "blocks" | "closing">;

/** Judges a job's gates; takes long where the job is long. */
export function gatesOf(jobId: string, at: Db = db()): Gates {
  const { lastSeq, blocks, closing } = readJob(jobId, at);
  return { lastSeq, blocks, ...(closing ? { closing } : {}) };
}

/** Entries as they were sent, each validated by itself; throws BadInput or NotFound. */
export function validEntries(jobId: string, input: unknown, at: Db): Entry[] {
  const list = (Array.isArray(input) ? input : [input]).map((raw, i) => {
    const entry = validate<Entry>(entrySchema, raw, `[${i}]`);
    if (entry.jobId !== jobId) throw new BadInput("The entry belongs to another job", `[${i}].jobId`);
    validateBody(entry.kind, entry.body, entry.v);
    validateDates(entry.kind, entry.body, nowIso().slice(0, 10));
    return entry;
  });
  requireJob(jobId, at);
  for (const [i, { kind, id }] of list.entries()) {
    // What a job is, real or practice, was settled as it was opened.
    if (kind === "opened" && !entryById(at, id)) throw new BadInput("A job is opened once", `[${i}].kind`);
    if (kind === "bay" && practiceOf(jobId, at) === "")
      throw new BadInput("Only a practice bay skips waits and gives hints: this job is on a real car", `[${i}].kind`);
  }
  const described = () =>
    [...list, ...readEntries(jobId, 0, at)].flatMap((e) => (e.kind === "vehicle" ? [e.body as VehicleRecord] : []));
  for (const entry of list) validatePlaces(entry.kind as EntryKind, entry.body as object, described);
  return list;
}

/** The entry among these that is to pass the gates, and is not recorded yet; it comes alone. */
export function gateAmong(list: readonly Entry[], at: Db): Entry | undefined {
  const gate = list.find((entry) => isGate(entry) && !entryById(at, entry.id));
  if (gate && list.length > 1)
    throw new BadInput("A job is closed or handed over by an entry of its own: nothing goes with it", "gate");
  return gate;
}

/** Writes a job's entries inside a transaction; what was judged before holds only if the journal has not grown since. */
export function record(jobId: string, list: readonly Authored<Entry>[], judged: Gates | undefined, at: Db): JournalEntry[] {
  if (judged && topSeq(at, jobId) !== judged.lastSeq) throw new Conflict(CHANGED);
  return list.length > 0 ? appendInside(at, list) : [];
}

/**
 * Appends entries to a job under the names they carry, all or none. The same id with the same body is a no-op.
 * Throws BadInput, Conflict or NotFound; nothing is saved then.
 * @param role of whoever wrote them, where the caller answers for it.
 */
export function appendEntries(jobId: string, input: unknown, at: Db = db(), role?: Role): JournalEntry[] {
  const list = validEntries(jobId, input, at).map((e): Authored<Entry> => (role ? { ...e, role } : e));
  const gate = gateAmong(list, at);
  const judged = gate && gatesOf(jobId, at);
  if (gate && judged) checkGate(judged, gate);
  const recorded = at.$client.transaction(() => record(jobId, list, judged, at)).immediate();
  tellChanged(jobId);
  return recorded;
}
