import { unzipSync } from "fflate";
import Papa from "papaparse";
import { detectDialect, LARGEST_LOG, ScanLogError } from "./dialect";

/** First bytes of a zip archive, which a workbook is. */
const ZIP = [0x50, 0x4b, 0x03, 0x04] as const;
/** Rows of a sheet that say whether it holds a table. */
const HEAD = 200;

/** Whether a file is a workbook (Office Open XML, ISO/IEC 29500), by its first bytes. */
export const isWorkbook = (head: Uint8Array): boolean => ZIP.every((byte, i) => head[i] === byte);

type Cell = string | number | boolean | Date | null;
const written = (cell: Cell): string =>
  cell === null ? "" : cell instanceof Date ? cell.toISOString().slice(0, -1) : String(cell);

/**
 * The first sheet of a workbook that holds a table, as text with tabs, for the reader of text logs. Throws ScanLogError for an
 * archive that is no workbook, one that unpacks to more than a log may have, and one without a table.
 */
export async function workbookText(bytes: Uint8Array): Promise<string> {
  let unpacked = 0;
  try {
    // Nothing is unpacked here: only what it says of its sizes is read.
    unzipSync(bytes, {
      filter: ({ originalSize }) => {
        unpacked += originalSize;
        return false;
      },
    });
  } catch {
    throw new ScanLogError("This archive is damaged: export the log again, as CSV or as an .xlsx workbook");
  }
  if (unpacked > LARGEST_LOG)
    throw new ScanLogError(
      `This workbook unpacks to ${Math.round(unpacked / 1048576)} MB; logs up to ${LARGEST_LOG / 1048576} MB are read. Export a shorter stretch`,
    );
  const { default: readSheets } = await import("read-excel-file/universal");
  let sheets: Awaited<ReturnType<typeof readSheets>>;
  try {
    sheets = await readSheets(bytes.slice().buffer);
  } catch {
    throw new ScanLogError("This archive is no workbook: export the log as CSV or as an .xlsx workbook");
  }
  for (const { data } of sheets) {
    const text = (rows: readonly (readonly Cell[])[]) =>
      Papa.unparse(
        rows.map((row) => row.map(written)),
        { delimiter: "\t", newline: "\n" },
      );
    try {
      detectDialect(text((data as readonly (readonly Cell[])[]).slice(0, HEAD)));
    } catch {
      continue;
    }
    return `${text(data as readonly (readonly Cell[])[])}\n`;
  }
  throw new ScanLogError("No sheet of this workbook has a line of headers and then lines of numbers");
}
