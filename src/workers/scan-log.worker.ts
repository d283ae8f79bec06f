import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { expose } from "comlink";
import { EXTRACTORS, type LoggedCheck } from "@/core/checks/extractors";
import type { TrimPoint } from "@/core/checks/trims";
import {
  type ChannelId,
  checkLogSize,
  columnOf,
  decimate,
  findSteadyWindows,
  isWorkbook,
  type LoggedEngine,
  type LogHead,
  type Mapping,
  readHead,
  type ScanLog,
  ScanLogReader,
  type SteadyWindow,
  surveyPoints,
  wasWarm,
  workbookText,
} from "@/core/scan-log";
import type { Limits } from "@/core/shop/settings";

export interface ImportedLog {
  readonly sha256: string;
  readonly rows: number;
  readonly seconds: number;
  readonly notes: readonly string[];
  readonly windows: readonly SteadyWindow[];
  readonly points: readonly TrimPoint[];
  /** Means over the whole log, SI: for conditions the log knows */
  readonly barometer?: number;
  readonly intakeTemperature?: number;
  /** Whether the engine was warm, where its coolant says so for all of the log */
  readonly warm?: boolean;
  readonly channels: readonly ChannelId[];
}

export type Result<T> = { ok: true; value: T } | { ok: false; message: string };

let log: ScanLog | undefined;

async function guarded<T>(work: () => Promise<T>): Promise<Result<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    return { ok: false, message: error instanceof Error ? error.message : String(error) };
  }
}

/** The workbook that was unpacked last: its head is looked at before it is read. */
let unpacked: { readonly of: string; readonly text: Blob } | undefined;

/** A log as text, whatever it came in. */
async function textOf(file: Blob): Promise<Blob> {
  if (!isWorkbook(new Uint8Array(await file.slice(0, 4).arrayBuffer()))) return file;
  const { name, lastModified } = file as Partial<File>;
  const of = JSON.stringify([name, lastModified, file.size]);
  if (unpacked?.of !== of) unpacked = { of, text: new Blob([await workbookText(new Uint8Array(await file.arrayBuffer()))]) };
  return unpacked.text;
}

/** Scan logs off the main thread: look at the head, import with progress, then slices decimated for drawing. */
const api = {
  head: (file: Blob, mapping?: Mapping, engine?: LoggedEngine): Promise<Result<LogHead>> =>
    guarded(async () => {
      checkLogSize(file.size);
      const text = await textOf(file);
      return readHead(new Uint8Array(await text.slice(0, 65536).arrayBuffer()), mapping, engine);
    }),

  import: (
    file: Blob,
    mapping: Mapping | undefined,
    engine: LoggedEngine | undefined,
    limits: Limits,
    progress: (share: number) => void,
  ): Promise<Result<ImportedLog>> =>
    guarded(async () => {
      checkLogSize(file.size);
      const text = await textOf(file);
      const reader = new ScanLogReader({ totalBytes: text.size, ...(mapping ? { mapping } : {}), ...(engine ? { engine } : {}) });
      const hash = sha256.create();
      const block = 1 << 20;
      // What is kept and named is the file as it came.
      const blocks = async (of: Blob, each: (bytes: Uint8Array, done: number) => void) => {
        for (let at = 0; at < of.size; at += block)
          each(new Uint8Array(await of.slice(at, at + block).arrayBuffer()), Math.min(1, (at + block) / of.size));
      };
      if (text !== file) await blocks(file, (bytes) => hash.update(bytes));
      await blocks(text, (bytes, done) => {
        if (text === file) hash.update(bytes);
        reader.push(bytes);
        progress(done);
      });
      log = reader.finish();
      const windows = findSteadyWindows(log, limits);
      const mean = (id: ChannelId) => {
        const known = windows.flatMap((w) => w.means[id] ?? []);
        return known.length > 0 ? known.reduce((a, b) => a + b, 0) / known.length : undefined;
      };
      const barometer = mean("barometer");
      const intakeTemperature = mean("intake-temperature");
      const time = columnOf(log, "time")?.values;
      const warm = wasWarm(log, limits.warmCoolant.value);
      return {
        sha256: bytesToHex(hash.digest()),
        rows: log.rows,
        seconds: time?.[log.rows - 1] ?? 0,
        notes: log.notes,
        windows,
        points: surveyPoints(windows),
        channels: log.columns.flatMap((c) => c.channel ?? []),
        ...(barometer === undefined ? {} : { barometer }),
        ...(intakeTemperature === undefined ? {} : { intakeTemperature }),
        ...(warm === undefined ? {} : { warm }),
      };
    }),

  /** A stretch of channels as points to draw, at most about `width` each. */
  slice: async (ids: readonly ChannelId[], from: number, to: number, width: number) =>
    log ? decimate(log, ids, from, to, width) : [],

  /** The record a check takes out of the log by itself; undefined before one was imported. */
  extract: async (check: LoggedCheck, aim: readonly unknown[]): Promise<unknown> =>
    log && (EXTRACTORS[check].extract as (log: ScanLog, ...aim: readonly unknown[]) => unknown)(log, ...aim),
};

export type ScanLogWorker = typeof api;
expose(api);
