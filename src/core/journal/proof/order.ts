import type { Bodies } from "../entries";
import { type JournalEntry, spanOf } from "../envelope";

/** Whether a check speaks for the time after the last repair; `unknown` when its device had not seen the repair. */
export type AfterRepair = "no-repair" | "before" | "after" | "unknown";

/** From–to, ms since 1970. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** A line of the record after corrections: what it says now, and every time that was ever given for it. */
export interface Line extends JournalEntry {
  /** Over all versions, clamped and not: when it may have happened */
  readonly hull: Span;
  /** The same by the device's own clock */
  readonly own: Span;
  /** Bodies it had before, oldest first; all of them where the line was taken out */
  readonly former: readonly unknown[];
  /** For each of them, the `seq` of the entry that said it */
  readonly formerSeqs: readonly number[];
  /** The entry that says what it says now: itself, or its last correction */
  readonly newest: JournalEntry;
}

/** A line of one kind. */
export type LineOf<K extends keyof Bodies> = Line & { readonly body: Bodies[K] };

/** Lines grouped by their kind, once for a record: everything that is folded asks for some of them. */
const grouped = new WeakMap<readonly Line[], ReadonlyMap<string, Line[]>>();

/** The lines of one kind, in their order. */
export function linesOf<K extends keyof Bodies>(lines: readonly Line[], kind: K): readonly LineOf<K>[] {
  const known = grouped.get(lines) ?? byKind(lines);
  grouped.set(lines, known);
  return (known.get(kind) ?? NONE) as readonly LineOf<K>[];
}
const NONE: readonly Line[] = [];

function byKind(lines: readonly Line[]): Map<string, Line[]> {
  const groups = new Map<string, Line[]>();
  for (const line of lines) {
    const group = groups.get(line.kind);
    if (group) group.push(line);
    else groups.set(line.kind, [line]);
  }
  return groups;
}

/** The record with corrections resolved, and apart from it the lines that were taken out. */
export interface Resolved {
  readonly lines: readonly Line[];
  readonly retracted: readonly Line[];
}

const union = (spans: readonly Span[]): Span => ({
  from: Math.min(...spans.map((s) => s.from)),
  to: Math.max(...spans.map((s) => s.to)),
});
const ownSpan = (e: JournalEntry): Span => spanOf(e.clampedFrom ?? e.at);
const wholeSpan = (e: JournalEntry): Span => (e.clampedFrom ? union([spanOf(e.at), spanOf(e.clampedFrom)]) : spanOf(e.at));

/** An entry that nobody corrected is the same line in every fold. */
const asLines = new WeakMap<JournalEntry, Line>();
function asLine(root: JournalEntry): Line {
  const known = asLines.get(root) ?? {
    ...root,
    hull: wholeSpan(root),
    own: ownSpan(root),
    former: [],
    formerSeqs: [],
    newest: root,
  };
  asLines.set(root, known);
  return known;
}

/**
 * Resolves corrections: the newest by `seq` replaces its root, a retraction takes it out; both stay in the journal.
 * Lines come in the order of the record: when it happened, then as recorded.
 */
export function resolveLines(entries: readonly JournalEntry[]): Resolved {
  const versions = new Map<string, JournalEntry[]>();
  for (const entry of entries) {
    if (!entry.corrects) continue;
    const list = versions.get(entry.corrects);
    if (list) list.push(entry);
    else versions.set(entry.corrects, [entry]);
  }
  const lines: Line[] = [];
  const retracted: Line[] = [];
  for (const root of entries) {
    if (root.corrects || root.kind === "retract") continue;
    const given = versions.get(root.id);
    if (!given) {
      lines.push(asLine(root));
      continue;
    }
    const ordered = [root, ...given.toSorted((a, b) => a.seq - b.seq)].filter(
      (e) => e.kind === root.kind || e.kind === "retract",
    );
    const said = ordered.filter((e) => e.kind !== "retract");
    const newest = said.at(-1) as JournalEntry;
    const hull = union(said.map(wholeSpan));
    const own = union(said.map(ownSpan));
    const out = ordered.at(-1)?.kind === "retract";
    // A correction keeps the root's identity and place in time unless it says another time.
    const line = { ...root, at: newest.at, body: newest.body, hull, own, newest };
    const before = out ? said : said.slice(0, -1);
    const one = { ...line, former: before.map((e) => e.body), formerSeqs: before.map((e) => e.seq) };
    if (out) retracted.push(one);
    else lines.push(one);
  }
  return { lines: inOrder(lines), retracted };
}

/** An entry that has no time but its own begins where its hull does. */
const startOf = (line: Line) => (line.former.length === 0 && !line.clampedFrom ? line.hull.from : spanOf(line.at).from);

function inOrder(lines: readonly Line[]): Line[] {
  const keyed = lines.map((line) => ({ line, from: startOf(line) }));
  return keyed.sort((a, b) => a.from - b.from || a.line.seq - b.line.seq).map((k) => k.line);
}

/** Whether the device that wrote `a` had seen `b` when it did. */
export const hadSeen = (a: JournalEntry, b: JournalEntry) =>
  // Nobody has seen what was recorded after their own: a count beyond it says nothing.
  (a.device === b.device && a.deviceSeq > b.deviceSeq) || (a.seq > b.seq && a.seenSeq >= b.seq);

/**
 * Whether `a` surely began after `b` had ended: by every time ever given for both, with its device knowing of `b`. Between
 * devices the clocks may differ, so `a` must also have begun after the server had `b`.
 */
export function isAfter(a: Line, b: Line): boolean {
  if (!hadSeen(a, b)) return false;
  if (a.device === b.device) return a.own.from >= b.own.to;
  return a.hull.from >= b.hull.to && a.hull.from >= Date.parse(b.recordedAt);
}

/** Time from the end of `b` to the beginning of `a`, ms: on one device by its own clock, otherwise the least it can have been. */
export const elapsed = (a: Line, b: Line): number => (a.device === b.device ? a.own.from - b.own.to : a.hull.from - b.hull.to);

/** Whether `a` began after `b` had ended by the times that stand now, whoever had seen what. */
export const seemsAfter = (a: Line, b: Line): boolean => spanOf(a.at).from >= spanOf(b.at).to;
