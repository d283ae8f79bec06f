import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import Papa from "papaparse";
import { inSentence } from "../sentence";
import { UNITS } from "../units";
import { type ChannelId, channelById } from "./channels";
import { type Dialect, detectDialect, detectEncoding, ScanLogError, withoutUnit } from "./dialect";
import { splitUnit, unitSpelt } from "./headers";
import { type ColumnChoice, countsMilliseconds, type HeaderMatch, type Mapping, matchHeader } from "./match-header";
import { checkUnits, type LoggedEngine, type Sample } from "./unit-check";

/** Version of the way windows and channels are extracted; journalled with every survey taken from a log. */
export const EXTRACTOR_VERSION = 2;

export interface LogColumn extends HeaderMatch {
  /** SI (trims and loads in percent, time in s from the first row); NaN where the log has no number. */
  readonly values: Float64Array;
  /** Cells that held text where a number belongs */
  readonly textCells: number;
}

export interface ScanLog {
  readonly dialect: Dialect;
  readonly signature: string;
  readonly columns: readonly LogColumn[];
  readonly rows: number;
  /** Things the reader passed over, for the user to know */
  readonly notes: readonly string[];
}

/** Head of a file before it is read whole: for the mapping screen. */
export interface LogHead {
  readonly dialect: Dialect;
  readonly signature: string;
  readonly matches: readonly HeaderMatch[];
  /** Why the log cannot be read as it stands: two headers for one channel, an unknown unit, nothing known. */
  readonly problems: readonly { readonly message: string; readonly header?: string }[];
  /** Numbers of the first rows by column */
  readonly sample: Sample;
}

const HEAD_BYTES = 64 * 1024;

/** Identity of a set of headers: the same scan tool and the same choice of channels. */
const headerSignature = (dialect: Dialect) =>
  bytesToHex(sha256(utf8ToBytes(JSON.stringify([dialect.headers, dialect.units ?? []])))).slice(0, 32);

/**
 * Reads dialect, headers and channel matches from the first bytes of a file. Throws ScanLogError if there is no table.
 * @param engine what is known of the engine: a unit that the file does not name is held against it, and asked otherwise.
 */
export function readHead(head: Uint8Array, mapping?: Mapping, engine?: LoggedEngine): LogHead {
  if (head.length === 0) throw new ScanLogError("The file is empty: export the log again from the scan tool");
  const text = new TextDecoder(detectEncoding(head)).decode(head.subarray(0, HEAD_BYTES), { stream: true });
  const cut = text.length > 2000 ? text.slice(0, text.lastIndexOf("\n") + 1 || text.length) : text;
  const found = detectDialect(cut);
  const rows = headRows(cut, found);
  const { dialect, sample } = found.long ? widened(found, rows) : { dialect: found, sample: sampleOf(found, rows) };
  const matches = dialect.headers.map((header, column) =>
    applyChoice(matchHeader(header, dialect.units?.[column], column), mapping?.[header]),
  );
  const resolved = checkUnits(resolveRivals(resolveTwins(matches, sample)), sample, engine);
  return { dialect, signature: headerSignature(dialect), matches: resolved, problems: problemsOf(resolved), sample };
}

/** Rows of the head behind its headers, as cells. */
function headRows(text: string, dialect: Dialect): string[][] {
  const body = text
    .replace(/^\uFEFF/, "")
    .split(/\r\n|\n|\r/)
    .slice(dialect.skip + 1 + (dialect.unitsRow ? 1 : 0));
  return Papa.parse<string[]>(body.join("\n"), { delimiter: dialect.delimiter, skipEmptyLines: true }).data;
}

/** Numbers of the head by column. */
const sampleOf = (dialect: Dialect, rows: readonly (readonly string[])[]): Sample => {
  const number = numberOf(dialect);
  return dialect.headers.map((_, i) => rows.map((row) => (row[i]?.trim() ? number((row[i] as string).trim()) : Number.NaN)));
};

/** A log of one reading a row, as if each name were a column of its own. */
function widened(found: Dialect, rows: readonly (readonly string[])[]): { dialect: Dialect; sample: Sample } {
  const long = found.long as NonNullable<Dialect["long"]>;
  const number = numberOf(found);
  const values = new Map<string, { unit: string; numbers: number[] }>();
  for (const row of rows) {
    const name = row[long.name]?.trim();
    if (!name) continue;
    const known = values.get(name) ?? { unit: (long.unit === undefined ? "" : row[long.unit]?.trim()) ?? "", numbers: [] };
    known.numbers.push(number(row[long.value]?.trim() ?? ""));
    values.set(name, known);
  }
  const time = rows.map((row) => number(row[long.time]?.trim() ?? ""));
  return {
    dialect: {
      ...found,
      headers: [found.headers[long.time] ?? "time", ...values.keys()],
      units: [found.units?.[long.time] ?? "", ...[...values.values()].map((v) => v.unit)],
    },
    sample: [time, ...[...values.values()].map((v) => v.numbers)],
  };
}

/** How a dialect writes numbers, thousands points and all. */
function numberOf(dialect: Pick<Dialect, "decimal">): (cell: string) => number {
  const bare = bareNumberOf(dialect);
  return (cell) => {
    const number = bare(cell);
    return number === number ? number : bare(withoutUnit(cell));
  };
}
function bareNumberOf(dialect: Pick<Dialect, "decimal">): (cell: string) => number {
  if (dialect.decimal === ",") {
    return (cell) => Number(cell.replace(/[.' ]/g, "").replace(",", "."));
  }
  return (cell) => {
    const plain = Number(cell);
    return plain === plain ? plain : Number(cell.replace(/[,' ]/g, ""));
  };
}

function applyChoice(match: HeaderMatch, choice: ColumnChoice | undefined): HeaderMatch {
  if (!choice) return match;
  const { column, header } = match;
  if (choice.channel === null) return { column, header, confidence: 1 };
  const channel = channelById(choice.channel);
  const unit = choice.unit ?? match.unit ?? channel.unit;
  return { column, header, channel: choice.channel, confidence: 1, ...(unit ? { unit, unitFrom: "file" as const } : {}) };
}

/** Twin columns read alike where they are apart by no more than this, share of what they read; both must have moved to so many values. */
const ALIKE = 0.03;
const MOVED = 5;

/**
 * A channel that stands there twice, each time as surely: the first one counts where both read alike, as two modules do; and of
 * clocks the first always, since each channel may have one beside it.
 */
function resolveTwins(matches: readonly HeaderMatch[], sample: Sample): HeaderMatch[] {
  return matches.map((match, i) => {
    const first = matches.slice(0, i).find((m) => m.channel !== undefined && m.channel === match.channel);
    if (!first || first.unit !== match.unit || match.confidence > first.confidence + 0.15) return match;
    const [a, b] = [sample[first.column] ?? [], sample[match.column] ?? []];
    const apart = a.map((v, k) => Math.abs(v - (b[k] as number)) / Math.max(1, Math.abs(v))).filter(Number.isFinite);
    const median = apart.toSorted((x, y) => x - y)[apart.length >> 1];
    const moved = [a, b].every((values) => new Set(values.filter(Number.isFinite)).size >= MOVED);
    const twin = match.channel === "time" || (moved && median !== undefined && median <= ALIKE);
    return twin ? { column: match.column, header: match.header, confidence: 0 } : match;
  });
}

/** Where one header fits a channel clearly better than another, the other is let go; a tie stays a problem. */
function resolveRivals(matches: readonly HeaderMatch[]): HeaderMatch[] {
  return matches.map((match) => {
    const better = matches.some((m) => m !== match && m.channel === match.channel && m.confidence > match.confidence + 0.15);
    return match.channel && better ? { column: match.column, header: match.header, confidence: 0 } : match;
  });
}

function problemsOf(matches: readonly HeaderMatch[]): LogHead["problems"] {
  const problems: { message: string; header?: string }[] = [];
  const seen = new Map<ChannelId, string>();
  for (const match of matches) {
    if (match.unknownUnit) {
      problems.push({
        header: match.header,
        message: `Unit "${match.unknownUnit}" of "${match.header}" is not known: choose the unit of this column`,
      });
    }
    if (match.unitFrom === "asked" && match.channel) {
      const fit = match.candidates?.join(" or ");
      const of = fit ? `; ${fit} would fit the numbers` : fit === "" ? ", and its numbers fit none" : "";
      problems.push({
        header: match.header,
        message: `The file names no unit for "${match.header}"${of}: choose the unit of this column`,
      });
    }
    if (!match.channel) continue;
    const rival = seen.get(match.channel);
    if (rival !== undefined) {
      problems.push({
        header: match.header,
        message: `"${rival}" and "${match.header}" both look like ${inSentence(channelById(match.channel).name)}: choose which one counts`,
      });
    }
    seen.set(match.channel, match.header);
  }
  const known = matches.filter((m) => m.channel && m.channel !== "time");
  if (known.length === 0) {
    problems.push({
      message: `No known channel among ${matches.length} columns: name at least engine speed, air flow and the trims`,
    });
  }
  return problems;
}

const LOOP_WORDS: readonly (readonly [RegExp, number])[] = [
  [/^(cl|closed|closed loop.*|cl[ -_].*|on|yes|true|2)$/i, 1],
  [/^(ol|open|open loop.*|ol[ -_].*|off|no|false|1|4|8|16)$/i, 0],
];

/** hh:mm:ss[.fff] with or without a date in front and a zone behind, or mm:ss[.fff], in s; NaN when it is none. */
function clockSeconds(text: string): number {
  const m = /(\d{1,2}):(\d\d)(?::(\d\d))?(?:[.,:](\d+))?\s*(?:[ap]m)?\s*(?:Z|[+-]\d\d:?\d\d)?$/i.exec(text);
  if (!m) return Number.NaN;
  const fraction = Number(`0.${m[4] ?? 0}`);
  // Nobody logs by the minute: two parts are minutes and seconds.
  if (m[3] === undefined) return Number(m[1]) * 60 + Number(m[2]) + fraction;
  return Number(m[1]) * 3600 + Number(m[2]) * 60 + Number(m[3]) + fraction;
}

/** Road speed is kept in km/h. */
const KMH_PER_MPH = 1.609344;

/** Steps between rows that no log of seconds has. */
const NO_SECONDS = 15;
/** A day's fraction, as spreadsheets keep time: days since 1900 so many, or less than one; rows no further apart than 5 s. */
const DAY = { seconds: 86_400, from: 20_000, to: 80_000, step: 5.8e-5 } as const;

/** s of one count of a log's clock: as the header says; else milliseconds where the numbers are too far apart for seconds. */
function timeScale(match: HeaderMatch, dialect: Dialect, sample: Sample): number {
  const unit = dialect.units?.[match.column];
  if (countsMilliseconds(match.header, unit)) return 1e-3;
  const times = (sample[match.column] ?? []).filter(Number.isFinite);
  const steps = times.slice(1).flatMap((t, i) => (t > (times[i] as number) ? [t - (times[i] as number)] : []));
  const median = steps.toSorted((a, b) => a - b)[Math.floor(steps.length / 2)] ?? 1;
  const named = unitSpelt(splitUnit(match.header, unit).unitText);
  // No clock of seconds ticks in microseconds far from its beginning, whatever stands above it.
  const inDays = times.every((t) => (t >= DAY.from && t <= DAY.to) || (named === undefined && t >= 0 && t <= 1));
  if (inDays && median <= DAY.step) return DAY.seconds;
  if (named === "min") return 60;
  if (named === "s") return 1;
  return median > NO_SECONDS ? 1e-3 : 1;
}

/**
 * Streams a scan log into typed arrays: push the file's bytes in order, then finish.
 * Repeated header lines are skipped, gaps and text become NaN, clocks become seconds from the first row.
 * Throws ScanLogError for binary or empty files, unresolved headers, and time that runs backwards.
 */
export class ScanLogReader {
  private readonly mapping: Mapping | undefined;
  private readonly totalBytes: number;
  private decoder: TextDecoder | undefined;
  private head: LogHead | undefined;
  private pending = new Uint8Array(0);
  private rest = "";
  private columns: Float64Array[] = [];
  private textCells: number[] = [];
  private parsers: ((cell: string) => number)[] = [];
  private rows = 0;
  private bytes = 0;
  private repeatedHeaders = 0;
  private lastTime = Number.NEGATIVE_INFINITY;
  private timeOrigin = Number.NaN;
  private dayOffset = 0;
  private timeColumn = -1;

  private readonly engine: LoggedEngine | undefined;
  /** Of a log with one reading a row: the columns by name, and the row that is being gathered */
  private names = new Map<string, number>();
  private gathered: string[] = [];

  constructor(options: { mapping?: Mapping; totalBytes?: number; engine?: LoggedEngine } = {}) {
    this.mapping = options.mapping;
    this.engine = options.engine;
    this.totalBytes = options.totalBytes ?? 0;
  }

  /** Feeds the next bytes; returns the rows read so far. */
  push(chunk: Uint8Array): number {
    this.bytes += chunk.length;
    if (!this.head) {
      const joined = new Uint8Array(this.pending.length + chunk.length);
      joined.set(this.pending);
      joined.set(chunk, this.pending.length);
      this.pending = joined;
      if (this.pending.length < HEAD_BYTES) return 0;
      this.begin();
      return this.rows;
    }
    this.read((this.decoder as TextDecoder).decode(chunk, { stream: true }), false);
    return this.rows;
  }

  /** Closes the log and returns its columns. */
  finish(): ScanLog {
    if (!this.head) this.begin();
    this.read((this.decoder as TextDecoder).decode(), true);
    const head = this.head as unknown as LogHead;
    if (this.rows === 0) throw new ScanLogError("The log has headers but no rows of numbers: export it again");
    const notes: string[] = [];
    if (this.repeatedHeaders > 0) notes.push(`${this.repeatedHeaders} repeated header lines skipped`);
    if (this.timeColumn < 0) notes.push("no time column: steady windows cannot be found");
    return {
      dialect: head.dialect,
      signature: head.signature,
      rows: this.rows,
      notes,
      columns: head.matches.map((match, i) => ({
        ...match,
        values: (this.columns[i] as Float64Array).subarray(0, this.rows),
        textCells: this.textCells[i] as number,
      })),
    };
  }

  private begin(): void {
    const head = readHead(this.pending, this.mapping, this.engine);
    const [problem] = head.problems;
    if (problem) throw new ScanLogError(problem.message, problem.header);
    this.head = head;
    this.decoder = new TextDecoder(detectEncoding(this.pending));
    const { dialect, matches } = head;
    this.timeColumn = dialect.long ? 0 : matches.findIndex((m) => m.channel === "time");
    this.names = new Map(dialect.headers.map((h, i) => [h, i]));
    this.parsers = matches.map((match) => this.parserOf(match, dialect));
    this.textCells = matches.map(() => 0);
    const text = this.decoder.decode(this.pending, { stream: true });
    const unitRows = dialect.unitsRow && !dialect.long ? 1 : 0;
    const lines = text.split(/\r\n|\n|\r/, dialect.skip + 2 + unitRows);
    // Rows expected from the bytes of the first rows, so that arrays are laid once and not copied.
    const perRow = Math.max(8, this.pending.length / Math.max(1, text.split("\n").length));
    const expected = Math.ceil((Math.max(this.totalBytes, this.pending.length) / perRow) * 1.15) + 1024;
    this.columns = matches.map(() => new Float64Array(expected));
    this.pending = new Uint8Array(0);
    const skipped = lines.slice(0, dialect.skip + 1 + unitRows);
    let start = 0;
    for (const line of skipped) {
      start = text.indexOf(line, start) + line.length;
      start += text.startsWith("\r\n", start) ? 2 : 1;
    }
    this.read(text.slice(start), false);
  }

  private parserOf(match: HeaderMatch, dialect: Dialect): (cell: string) => number {
    const plain = numberOf(dialect);
    if (match.channel === "time" || (dialect.long && match.column === 0)) {
      const scale = timeScale(match, dialect, (this.head as LogHead).sample);
      return (cell) => (cell.includes(":") ? clockSeconds(cell) : plain(cell) * scale);
    }
    if (match.channel === "loop") {
      return (cell) => LOOP_WORDS.find(([pattern]) => pattern.test(cell))?.[1] ?? Number.NaN;
    }
    const named = unitSpelt(splitUnit(match.header, dialect.units?.[match.column]).unitText);
    if (match.channel === "speed" && named === "mph") return (cell) => plain(cell) * KMH_PER_MPH;
    if (!match.unit) return plain;
    const { scale, offset } = UNITS[match.unit];
    return (cell) => plain(cell) * scale + offset;
  }

  private read(text: string, last: boolean): void {
    const all = this.rest + text;
    const end = last ? all.length : all.lastIndexOf("\n") + 1;
    this.rest = all.slice(end);
    if (end === 0) return;
    const { dialect } = this.head as LogHead;
    const block = last || end < all.length ? all.slice(0, end) : all;
    const parsed = Papa.parse<string[]>(block, { delimiter: dialect.delimiter, skipEmptyLines: true });
    for (const row of parsed.data) {
      if (dialect.long) this.gather(row, dialect);
      else this.addRow(row, dialect);
    }
    if (dialect.long && last) this.putGathered(dialect);
  }

  /** One reading of a log that writes one a row: it joins the row of its moment. */
  private gather(row: readonly string[], dialect: Dialect): void {
    const long = dialect.long as NonNullable<Dialect["long"]>;
    const time = row[long.time]?.trim() ?? "";
    if (this.gathered.length > 0 && this.gathered[0] !== time) this.putGathered(dialect);
    if (this.gathered.length === 0) this.gathered = [time];
    const column = this.names.get(row[long.name]?.trim() ?? "");
    if (column !== undefined) this.gathered[column] = row[long.value]?.trim() ?? "";
  }
  private putGathered(dialect: Dialect): void {
    const row = Array.from(this.gathered, (cell) => cell ?? "");
    this.gathered = [];
    if (row.length > 0) this.addRow(row, dialect);
  }

  private addRow(row: readonly string[], dialect: Dialect): void {
    const { columns, parsers } = this;
    if (row[0] === dialect.headers[0] && row[1]?.trim() === dialect.headers[1]) {
      this.repeatedHeaders++;
      return;
    }
    if (this.rows >= (columns[0] as Float64Array).length) this.grow();
    if (this.timeColumn >= 0 && !this.addTime(row[this.timeColumn]?.trim() ?? "")) return;
    for (let i = 0; i < columns.length; i++) {
      if (i === this.timeColumn) continue;
      const cell = row[i];
      let value = Number.NaN;
      if (cell !== undefined && cell !== "") {
        value = (parsers[i] as (cell: string) => number)(cell);
        if (value !== value && cell.trim() !== "") this.textCells[i] = (this.textCells[i] as number) + 1;
      }
      (columns[i] as Float64Array)[this.rows] = value;
    }
    this.rows++;
  }

  /** Puts the row's time; false when the row has none (a units line repeated, a remark). */
  private addTime(cell: string): boolean {
    const raw = cell === "" ? Number.NaN : (this.parsers[this.timeColumn] as (cell: string) => number)(cell);
    if (Number.isNaN(raw)) {
      this.textCells[this.timeColumn] = (this.textCells[this.timeColumn] as number) + 1;
      return false;
    }
    if (Number.isNaN(this.timeOrigin)) this.timeOrigin = raw;
    let time = raw - this.timeOrigin + this.dayOffset;
    if (time < this.lastTime && cell.includes(":") && this.lastTime - time > 43200) {
      this.dayOffset += 86400;
      time += 86400;
    }
    if (time < this.lastTime) {
      throw new ScanLogError(
        `Time runs backwards at row ${this.rows + 1}: ${time.toFixed(2)} s follows ${this.lastTime.toFixed(2)} s. Split the log there, or sort it by time, and import it again`,
        `row ${this.rows + 1}`,
      );
    }
    this.lastTime = time;
    (this.columns[this.timeColumn] as Float64Array)[this.rows] = time;
    return true;
  }

  private grow(): void {
    this.columns = this.columns.map((old) => {
      const larger = new Float64Array(Math.ceil(old.length * 1.5));
      larger.set(old);
      return larger;
    });
  }
}

/** Reads a log held in memory in blocks; see ScanLogReader. */
export function readScanLog(bytes: Uint8Array, mapping?: Mapping, engine?: LoggedEngine): ScanLog {
  const reader = new ScanLogReader({ totalBytes: bytes.length, ...(mapping ? { mapping } : {}), ...(engine ? { engine } : {}) });
  for (let at = 0; at < bytes.length; at += 1 << 20) reader.push(bytes.subarray(at, at + (1 << 20)));
  return reader.finish();
}

/** The column of a channel, when the log has it. */
export const columnOf = (log: ScanLog, id: ChannelId): LogColumn | undefined => log.columns.find((c) => c.channel === id);
