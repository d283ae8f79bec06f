import { strToU8, zipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { columnOf, readScanLog } from "./read";
import { isWorkbook, workbookText } from "./workbook";
import { type Cell, workbook } from "./workbook.fixture";

const log = (n = 30): (readonly Cell[])[] => [
  ["Time (s)", "Engine RPM", "MAF (g/s)", "ECT (°C)"],
  ...Array.from({ length: n }, (_, i) => [i / 2, 740 + i, 2.6, 90] as const),
];

describe("a workbook", () => {
  it("is read by its first sheet with a table, whatever stands before it", async () => {
    const file = workbook([[["Report of a drive"], ["nothing else"]], log(), log(3)]);
    expect(isWorkbook(file)).toBe(true);
    const read = readScanLog(new TextEncoder().encode(await workbookText(file)));
    expect(read.rows).toBe(30);
    expect(columnOf(read, "rpm")?.values[29]).toBe(769);
    expect(columnOf(read, "maf")?.values[0]).toBeCloseTo(2.6e-3, 9);
    expect(columnOf(read, "time")?.values[10]).toBe(5);
  });
  it.each<[string, () => Uint8Array, RegExp]>([
    ["holds no table", () => workbook([[["only"], ["words"]]]), /No sheet of this workbook has a line of headers/],
    ["is another archive", () => zipSync({ "notes.txt": strToU8("no workbook") }), /is no workbook: export the log as CSV/],
    ["is cut off", () => workbook([log()]).slice(0, 300), /is damaged: export the log again/],
  ])("is refused with what to do where it %s", async (_, file, says) => {
    await expect(workbookText(file())).rejects.toThrow(says);
  });
  it("is none where a text begins otherwise", () => {
    expect(isWorkbook(new TextEncoder().encode("Time,RPM"))).toBe(false);
    expect(isWorkbook(new Uint8Array())).toBe(false);
  });
});
