import Papa from "papaparse";
import type { SmokeRun } from "../checks/smoke";
import type { TrimSurvey } from "../checks/trims";
import type { CheckState, JobState } from "./state";

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
    return readingsOf(check).map((reading) => ({ ...base, ...reading }));
  });
  return Papa.unparse({ fields: COLUMNS, data: rows.map((row) => COLUMNS.map((c) => guard(row[c]))) }, { newline: "\r\n" });
}

const COLUMNS: (keyof ReadingRow)[] = ["check", "began", "by", "outcome", "point", "seconds", "reading", "value", "unit", "kind"];

/** Text that a spreadsheet would take for a formula is quoted with an apostrophe. */
const guard = (cell: string | number) => (typeof cell === "string" && /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);

type Reading = Omit<ReadingRow, "check" | "began" | "by" | "outcome">;

function readingsOf(check: CheckState): Reading[] {
  if (check.check === "trims") {
    return (check.record as TrimSurvey).points.flatMap((p, point) => {
      const seconds: number | "" = p.window?.from ?? "";
      const bare = (reading: string, value: number, unit: string): Reading => ({
        point,
        seconds,
        reading,
        value,
        unit,
        kind: "",
      });
      return [
        bare("engine speed", p.rpm, "1/min"),
        { point, seconds, reading: "air meter flow", value: p.maf.value, unit: p.maf.unit, kind: "" },
        ...(p.map
          ? [{ point, seconds, reading: "manifold pressure", value: p.map.value, unit: p.map.unit, kind: "absolute" }]
          : []),
        ...p.banks.flatMap((b, i) => [
          bare(`short-term trim, bank ${i + 1}`, b.short, "%"),
          bare(`long-term trim, bank ${i + 1}`, b.long, "%"),
        ]),
      ];
    });
  }
  if (check.check === "smoke") {
    const run = check.record as SmokeRun;
    return run.samples.flatMap(([seconds, flow, pressure], point): Reading[] => [
      { point, seconds, reading: "smoke flow", value: flow, unit: run.units.flow, kind: "" },
      { point, seconds, reading: "smoke pressure", value: pressure, unit: run.units.pressure, kind: "gauge" },
    ]);
  }
  return [];
}
