import Papa from "papaparse";
import { readingsOf } from "../checks";
import type { JobState } from "./state";

/** One reading a row, long form: any spreadsheet can filter it. */
interface ReadingRow {
  check: string;
  began: string;
  by: string;
  outcome: string;
  point: number;
  seconds: number | "";
  reading: string;
  value: number;
  unit: string;
  kind: string;
}

/** All readings of a job as CSV (RFC 4180), in the units they were taken in; docs/formats.md names the columns. */
export function readingsCsv(job: JobState): string {
  const rows = job.checks.flatMap((check): ReadingRow[] => {
    const base = {
      check: check.check,
      began: typeof check.at === "string" ? check.at : check.at.from,
      by: check.by,
      outcome: check.verdict.outcome,
    };
    return readingsOf(check.check, check.record).map((r, i) => ({
      ...base,
      point: r.point ?? i,
      seconds: r.seconds ?? "",
      reading: r.reading,
      value: r.value,
      unit: r.unit,
      kind: r.kind ?? "",
    }));
  });
  return Papa.unparse({ fields: COLUMNS, data: rows.map((row) => COLUMNS.map((c) => guard(row[c]))) }, { newline: "\r\n" });
}

const COLUMNS: (keyof ReadingRow)[] = ["check", "began", "by", "outcome", "point", "seconds", "reading", "value", "unit", "kind"];

/** Text that a spreadsheet would take for a formula is quoted with an apostrophe. */
const guard = (cell: string | number) => (typeof cell === "string" && /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);
