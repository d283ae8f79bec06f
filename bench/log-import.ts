import { closeSync, openSync, readSync, statSync, writeSync } from "node:fs";
import Papa from "papaparse";
import { seededNoise } from "@/core/maths/random";
import { ScanLogReader } from "@/core/scan-log";

const HEADER =
  "Time (s),Engine RPM (rpm),MAF (g/s),MAP (kPa),ECT (°C),IAT (°C),Barometric pressure (kPa),Throttle position (%),Calculated load (%),Vehicle speed (km/h),STFT (%),LTFT (%)";

/** Writes a log of 12 columns and so many rows, block by block. */
export function writeBigLog(file: string, rows: number): void {
  const noise = seededNoise(1);
  const out = openSync(file, "w");
  writeSync(out, `${HEADER}\n`);
  for (let from = 0; from < rows; from += 10_000) {
    let block = "";
    for (let i = from; i < Math.min(rows, from + 10_000); i++) {
      const rpm = 700 + (Math.floor(i / 400) % 5) * 600;
      const n = () => noise.normal();
      block += `${(i / 10).toFixed(1)},${(rpm + 8 * n()).toFixed(0)},${(rpm / 270 + 0.02 * n()).toFixed(2)},${(33 + n()).toFixed(1)},92,24,100.6,${(14 + n()).toFixed(1)},${(22 + n()).toFixed(1)},0,${(2 + n()).toFixed(1)},${(9).toFixed(1)}\n`;
    }
    writeSync(out, block);
  }
  closeSync(out);
}

function* blocksOf(file: string): Generator<Uint8Array> {
  const input = openSync(file, "r");
  for (;;) {
    const block = new Uint8Array(1 << 20);
    const length = readSync(input, block);
    if (length === 0) break;
    yield block.subarray(0, length);
  }
  closeSync(input);
}

function importWithPapa(file: string): number {
  const decoder = new TextDecoder();
  let rest = "";
  let rows = -1;
  for (const bytes of blocksOf(file)) {
    const text = rest + decoder.decode(bytes, { stream: true });
    const end = text.lastIndexOf("\n") + 1;
    rest = text.slice(end);
    rows += Papa.parse(text.slice(0, end), { delimiter: ",", skipEmptyLines: true }).data.length;
  }
  return rows;
}

function importToArrays(file: string): number {
  const reader = new ScanLogReader({ totalBytes: statSync(file).size });
  for (const bytes of blocksOf(file)) reader.push(bytes);
  return reader.finish().rows;
}

if (process.argv[1]?.endsWith("log-import.ts")) {
  const [mode, file] = process.argv.slice(2) as [string, string];
  const start = performance.now();
  const rows = mode === "papa" ? importWithPapa(file) : importToArrays(file);
  const seconds = (performance.now() - start) / 1000;
  process.stdout.write(JSON.stringify({ rows, seconds, peakMegabytes: process.resourceUsage().maxRSS / 1024 }));
}
