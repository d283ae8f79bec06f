import { parseNumber } from "../units";

/** A reading of a table: s, then what the gauge showed, in its own unit. */
export type Sample = readonly [seconds: number, value: number];

/** A typed table, a reading a line: seconds, then pressure; or which line cannot be read. */
export function readTable(text: string): Sample[] | string {
  const samples: Sample[] = [];
  const lines = text.split(/\r?\n/);
  for (const [i, line] of lines.entries()) {
    if (line.trim() === "") continue;
    const [t, p, ...rest] = line.trim().split(/[\s;]+/);
    const [seconds, value] = [parseNumber(t ?? ""), parseNumber(p ?? "")];
    if (!seconds.ok || !value.ok || rest.length > 0) return `Line ${i + 1}: type seconds and pressure, like "30 9,21"`;
    if (samples.length > 0 && seconds.value <= (samples.at(-1) as Sample)[0])
      return `Line ${i + 1}: time must rise from line to line`;
    samples.push([seconds.value, value.value]);
  }
  return samples;
}
