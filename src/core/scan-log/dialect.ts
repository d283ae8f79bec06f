import Papa from "papaparse";
import { folded, unitSpelt } from "./headers";

/** Why a file is not a scan log we can read: what was wrong and what to do. */
export class ScanLogError extends Error {
  constructor(
    message: string,
    /** Where in the file, when known: a header or a row number */
    readonly place?: string,
  ) {
    super(message);
    this.name = "ScanLogError";
  }
}

export type Encoding = "utf-8" | "utf-16le" | "utf-16be" | "windows-1252";

export interface Dialect {
  readonly delimiter: string;
  readonly decimal: "." | ",";
  /** Lines before the header line */
  readonly skip: number;
  readonly headers: readonly string[];
  /** Unit of each column, where a row below the headers names them, or each cell does */
  readonly units?: readonly string[];
  /** A row below the headers holds units */
  readonly unitsRow?: true;
  /** Where the log writes one reading a row: the columns of its name, its value and its unit */
  readonly long?: { readonly name: number; readonly value: number; readonly unit: number | undefined; readonly time: number };
}

/** Largest log that is read; above it the file is refused before reading. Bytes */
export const LARGEST_LOG = 150 * 1024 * 1024;

/** Refuses by size alone, before a byte is read. Throws ScanLogError. */
export function checkLogSize(bytes: number): void {
  if (bytes === 0) throw new ScanLogError("The file is empty: export the log again from the scan tool");
  if (bytes > LARGEST_LOG) {
    throw new ScanLogError(
      `The file has ${Math.round(bytes / 1048576)} MB; logs up to ${LARGEST_LOG / 1048576} MB are read. Export a shorter stretch`,
    );
  }
}

/** Encoding from a byte-order mark or from where the zero bytes stand. Throws ScanLogError for a binary file. */
export function detectEncoding(head: Uint8Array): Encoding {
  if (head[0] === 0xff && head[1] === 0xfe) return "utf-16le";
  if (head[0] === 0xfe && head[1] === 0xff) return "utf-16be";
  let even = 0;
  let odd = 0;
  let control = 0;
  const length = Math.min(head.length, 4096);
  for (let i = 0; i < length; i++) {
    const byte = head[i] as number;
    if (byte === 0) i % 2 === 0 ? even++ : odd++;
    else if (byte < 32 && byte !== 9 && byte !== 10 && byte !== 13 && byte !== 12) control++;
  }
  if (odd > length / 4 && even === 0) return "utf-16le";
  if (even > length / 4 && odd === 0) return "utf-16be";
  if (even + odd > 0 || control > length / 50) {
    throw new ScanLogError("This is not a text file: export the log as CSV and import that");
  }
  try {
    // A cut multi-byte character at the end is no error.
    new TextDecoder("utf-8", { fatal: true }).decode(head.subarray(0, length), { stream: true });
    return "utf-8";
  } catch {
    return "windows-1252";
  }
}

const NUMBER = /^[+-]?(\d{1,3}([.,' ]\d{3})+([.,]\d+)?|\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i;
const CLOCK = /^(\d{4}-\d\d-\d\d[ T]|\d\d?[./]\d\d?[./]\d{2,4} )?\d{1,2}:\d\d(:\d\d)?([.,:]\d+)?\s*([ap]m)?(Z|[+-]\d\d:?\d\d)?$/i;
/** "0106" heads a column: no reading is written with its zero in front of three more figures. */
const REQUEST_CODE = /^0\d{3}$/;
const WITH_UNIT = /^([+-]?[\d.,' ]*\d)\s*([^\d\s.,'+([{-].{0,11})$/;
const TURNS = /^([+-]?[\d.,' ]*\d)\s+(1\/min)$/;
const numberAndUnit = (cell: string) => TURNS.exec(cell) ?? WITH_UNIT.exec(cell);
/** The unit that stands behind a number in its own cell, as it is written; undefined where none does. */
function unitInCell(cell: string): string | undefined {
  const [, number = "", unit = ""] = numberAndUnit(cell) ?? [];
  return NUMBER.test(number) && unitSpelt(unit) ? unit : undefined;
}
/** A cell without the unit behind its number. */
export const withoutUnit = (cell: string): string =>
  unitInCell(cell) === undefined ? cell : (numberAndUnit(cell)?.[1] as string);
const isNumber = (cell: string) => (NUMBER.test(cell) || unitInCell(cell) !== undefined) && !REQUEST_CODE.test(cell);
/** Delimiters, likeliest first; a space only where nothing else makes a table. */
const DELIMITERS = [";", "\t", ",", "|", "^", "~", "#", "!", " "];
const isReading = (cell: string) => isNumber(cell) || CLOCK.test(cell);
const UNIT_WORDS = /^(%|rpm|1\/min|u\/min|min-1|s|sec|ms|v|mv|km\/h|kph|mph|hh:mm:ss.*|λ|deg|°|ratio|lambda|-)$/i;

const cellsOf = (line: string, delimiter: string): string[] =>
  (Papa.parse<string[]>(line, { delimiter }).data[0] ?? []).map((cell) => cell.trim());

/**
 * Delimiter, decimal sign, header line and units row from the first lines of a log.
 * @param head decoded text of the file's beginning, whole lines.
 * Throws ScanLogError when no table of numbers is found.
 */
export function detectDialect(head: string): Dialect {
  const lines = head
    .replace(/^\uFEFF/, "")
    .split(/\r\n|\n|\r/)
    .slice(0, 200);
  if (lines.every((line) => line.trim() === ""))
    throw new ScanLogError("The file is empty: export the log again from the scan tool");
  let best: { delimiter: string; first: number; width: number; score: number } | undefined;
  for (const delimiter of DELIMITERS) {
    const rows = lines.map((line) => cellsOf(line, delimiter));
    const numeric = rows.map(
      (row) =>
        row.length > 1 && row.filter(isReading).length >= Math.max(2, row.filter(Boolean).length / 2) && row.some(isNumber),
    );
    const first = numeric.indexOf(true);
    if (first < 1) continue;
    const width = rows[first - 1]?.length ?? 0;
    const score = rows.filter((row, i) => numeric[i] && Math.abs(row.length - width) <= 1).length;
    if (!best || score > best.score) best = { delimiter, first, width, score };
  }
  if (!best || best.score === 0) {
    throw new ScanLogError("No table found: a scan log has a line of headers and then lines of numbers");
  }
  const { delimiter, first } = best;
  const above = cellsOf(lines[first - 1] ?? "", delimiter);
  const filled = above.filter(Boolean);
  const isUnitsRow =
    first >= 2 &&
    filled.length > 0 &&
    filled.filter((c) => UNIT_WORDS.test(c.replace(/^[([]|[)\]]$/g, "")) || unitSpelt(c.replace(/^[([]|[)\]]$/g, ""))).length >=
      filled.length * 0.6 &&
    cellsOf(lines[first - 2] ?? "", delimiter).length === above.length;
  const headerLine = isUnitsRow ? first - 2 : first - 1;
  const rows = lines.slice(first, first + 50).map((line) => cellsOf(line, delimiter));
  const body = rows.flat().map(withoutUnit);
  // "1.234,5" and "1,234.5" settle it; otherwise what stands in most numbers.
  const german = body.filter((c) => /^[+-]?\d{1,3}([.' ]\d{3})+,\d+$/.test(c)).length;
  const english = body.filter((c) => /^[+-]?\d{1,3}(,\d{3})+\.\d+$/.test(c)).length;
  const commas = german > 0 ? 1e6 : body.filter((c) => /^[+-]?\d*,\d+$/.test(c)).length;
  const dots = english > 0 ? 1e6 : body.filter((c) => /^[+-]?\d*\.\d+$/.test(c)).length;
  const headers = cellsOf(lines[headerLine] ?? "", delimiter);
  const long = longColumns(headers);
  // Where each number has its unit behind it, the column's unit is that.
  const inCells = headers.map((_, i) => rows.map((row) => unitInCell(row[i] ?? "")).find((unit) => unit !== undefined) ?? "");
  return {
    delimiter,
    decimal: commas > dots ? "," : ".",
    skip: headerLine,
    headers,
    ...(isUnitsRow ? { units: above, unitsRow: true } : inCells.some(Boolean) ? { units: inCells } : {}),
    ...(long ? { long } : {}),
  };
}

const NAME_HEADER =
  /^(parameter|parametre|parametro|parametr|name|nom|nombre|nome|naam|nazwa|nazev|ad|pid|signal|channel|kanal|messwert|sensor|item)$/;
const VALUE_HEADER = /^(value|wert|valeur|valor|valore|waarde|wartosc|varde|vaerdi|hodnota|deger|reading)$/;
const UNIT_HEADER = /^(unit|units|einheit|unite|unidade?|unita|eenheid|jednostka|enhe[td]|jednotka|birim)$/;

/** The columns of a log that writes one reading a row; undefined for one that writes all readings of a moment in a row. */
function longColumns(headers: readonly string[]): Dialect["long"] {
  if (headers.length > 6) return undefined;
  const at = (pattern: RegExp) => headers.findIndex((h) => pattern.test(folded(h)));
  const [name, value, unit] = [at(NAME_HEADER), at(VALUE_HEADER), at(UNIT_HEADER)];
  const time = headers.findIndex((_, i) => i !== name && i !== value && i !== unit);
  return name < 0 || value < 0 || time < 0 ? undefined : { name, value, unit: unit < 0 ? undefined : unit, time };
}
