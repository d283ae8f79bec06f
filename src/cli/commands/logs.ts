import { createHash } from "node:crypto";
import { closeSync, createReadStream, openSync, readFileSync, readSync, statSync } from "node:fs";
import { BadInput } from "@/core/input";
import {
  checkLogSize,
  findSteadyWindows,
  isWorkbook,
  type Mapping,
  mappingSchema,
  readObd,
  type ScanLog,
  ScanLogError,
  ScanLogReader,
  surveyPoints,
  workbookText,
} from "@/core/scan-log";
import { DEFAULT_LIMITS } from "@/core/shop/settings";
import { type Command, guarded, parse, readText } from "./door";

export const readLog: Command = {
  reads: "arguments",
  async run(_input, args) {
    const [path, mappingText] = args;
    if (!path) throw new BadInput("Name the CSV file or workbook: read-log <file.csv>", "path");
    const mapping = mappingText ? parse<Mapping>(mappingSchema, mappingText) : undefined;
    const { log } = await readLogFile(path, mapping);
    const windows = findSteadyWindows(log, DEFAULT_LIMITS);
    return {
      rows: log.rows,
      signature: log.signature,
      notes: log.notes,
      channels: log.columns.map((c) => ({
        header: c.header,
        channel: c.channel ?? null,
        confidence: Math.round(c.confidence * 100) / 100,
        unit: c.unit ?? null,
        ...(c.unitFrom ? { unitFrom: c.unitFrom } : {}),
        textCells: c.textCells,
      })),
      steadyWindows: windows.map((w) => ({ from: w.from, to: w.to, rows: w.rows, means: w.means })),
      surveyPoints: surveyPoints(windows),
    };
  },
};

/** The first bytes of a file. */
function headOf(path: string): Uint8Array {
  const file = openSync(path, "r");
  try {
    const head = new Uint8Array(4);
    readSync(file, head, 0, 4, 0);
    return head;
  } finally {
    closeSync(file);
  }
}

/** Streams a scan log in, with the hash of its bytes. Throws BadInput for what the reader refuses. */
export async function readLogFile(path: string, mapping?: Mapping): Promise<{ log: ScanLog; sha256: string }> {
  let size: number;
  try {
    size = statSync(path).size;
  } catch {
    throw new BadInput(`There is no file "${path}"`, "path");
  }
  try {
    checkLogSize(size);
    const reader = new ScanLogReader({ totalBytes: size, ...(mapping ? { mapping } : {}) });
    const hash = createHash("sha256");
    if (isWorkbook(headOf(path))) {
      const bytes = readFileSync(path);
      reader.push(new TextEncoder().encode(await workbookText(bytes)));
      return { log: reader.finish(), sha256: hash.update(bytes).digest("hex") };
    }
    for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 })) {
      hash.update(chunk as Buffer);
      reader.push(chunk as Uint8Array);
    }
    return { log: reader.finish(), sha256: hash.digest("hex") };
  } catch (error) {
    if (error instanceof ScanLogError) throw new BadInput(error.message, error.place ?? path);
    throw error;
  }
}

/** Hex log of OBD messages in, decoded values out. */
export const obd: Command = {
  reads: "arguments",
  run(input, [path]) {
    if (path === undefined) return readObd(input);
    return readObd(guarded(() => readText(path), "file"));
  },
};
