import { BadInput } from "../input";
import { CONTINUOUS, MONITORS, PER_TRIP, PIDS, SCALINGS } from "./obd-tables";

/** One decoded value; what is not known here stays as its bytes. */
export interface ObdValue {
  readonly name: string;
  readonly value: number | string;
  readonly unit?: string;
  readonly kind?: "gauge" | "absolute";
  readonly pid?: string;
}
export interface ObdCode {
  readonly code: string;
  readonly status: "stored" | "pending" | "permanent";
}
/** A monitor result of service 06 with its limits, scaled; raw where its scaling is not known. */
export interface MonitorTest {
  readonly monitor: string;
  readonly test: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly unit: string;
  readonly passed: boolean;
}
export interface ReadinessBit {
  readonly monitor: string;
  readonly complete: boolean;
}
export interface ObdMessage {
  readonly line: number;
  readonly seconds?: number;
  readonly ecu?: string;
  readonly service: string;
  readonly bytes: string;
  readonly values: readonly ObdValue[];
}
export interface ObdLog {
  readonly messages: readonly ObdMessage[];
  readonly codes: readonly ObdCode[];
  readonly readiness: readonly ReadinessBit[];
  readonly monitorTests: readonly MonitorTest[];
  readonly lightOn?: boolean;
  readonly vin?: string;
}

/** Lines beyond this are no log of a scan tool. */
const MOST_LINES = 200_000;
const hex = (bytes: readonly number[]) => bytes.map((x) => x.toString(16).toUpperCase().padStart(2, "0")).join(" ");
const hexId = (n: number) => n.toString(16).toUpperCase().padStart(2, "0");

/** Everything that a log's messages have said so far. */
interface Heard {
  readonly codes: Map<string, ObdCode>;
  readonly monitorTests: MonitorTest[];
  readiness: readonly ReadinessBit[];
  lightOn?: boolean;
  vin?: string;
}
type Service = (data: readonly number[], heard: Heard) => ObdValue[];

const current: Service = (data, heard) => {
  if (data[0] === 0x01 && data.length >= 5) {
    heard.readiness = readinessOf(data.slice(1));
    heard.lightOn = ((data[1] as number) & 0x80) !== 0;
  }
  return pids(false, data);
};

const codesThat =
  (status: ObdCode["status"]): Service =>
  (data, { codes }) =>
    codesOf(data).map((code) => {
      codes.set(`${code} ${status}`, { code, status });
      return { name: `Code, ${status}`, value: code };
    });

const tests: Service = (data, { monitorTests }) => {
  const { known, rest } = monitorsOf(data);
  monitorTests.push(...known);
  return [
    ...known.map((t) => ({ name: `${t.monitor}, test ${t.test}`, value: t.value, ...(t.unit ? { unit: t.unit } : {}) })),
    ...(rest.length > 0 ? [{ name: "Not decoded", value: hex(rest) }] : []),
  ];
};

/** Items of service 09 that are letters. */
const LETTERS: Readonly<Record<number, string>> = { 2: "VIN", 4: "Calibration", 10: "ECU name" };
const information: Service = (data, heard) => {
  const [item = 0] = data;
  const letters = String.fromCharCode(...data.slice(2).filter((x) => x >= 0x20 && x < 0x7f));
  if (item === 0x02) heard.vin = letters;
  const name = LETTERS[item];
  return [name ? { name, value: letters } : { name: `Info ${hexId(item)}`, value: hex(data.slice(1)) }];
};

/** Answers by their service (SAE J1979); what is not here is a request, or is not decoded. */
const SERVICES: Readonly<Record<number, Service>> = {
  65: current,
  66: (data) => pids(true, data),
  67: codesThat("stored"),
  70: tests,
  71: codesThat("pending"),
  73: information,
  74: codesThat("permanent"),
  127: (data) => [{ name: `Service ${hexId(data[0] ?? 0)} refused`, value: hex(data.slice(1)) }],
};
/** Services up to this are requests: kept as bytes. */
const LAST_REQUEST = 0x0a;

/**
 * Decodes the payload bytes of OBD services 01, 02, 03, 06, 07, 09 and 0A (SAE J1979) from a hex log.
 *
 * One message a line: optional time in seconds with a decimal point, optional ECU id of 3 or 8 hex digits, then the
 * payload's bytes, spaced or run together; text after `#` is comment; requests are kept as bytes. Values carry the
 * unit J1979 gives them. An unknown PID stays as bytes, together with what follows it: its length is not known.
 * Throws BadInput for a line that holds no bytes, naming the line.
 */
export function readObd(text: string): ObdLog {
  const lines = text.split(/\r\n|\r|\n/);
  if (lines.length > MOST_LINES)
    throw new BadInput(`This log has ${lines.length} lines; up to ${MOST_LINES} are read. Cut it`, "file");
  const heard: Heard = { codes: new Map(), monitorTests: [], readiness: [] };
  const messages = lines.flatMap((raw, i): ObdMessage[] => {
    const plain = (raw.split("#")[0] as string).trim();
    if (plain === "") return [];
    const { seconds, ecu, bytes } = readLine(plain, i + 1);
    const [service = 0, ...data] = bytes;
    const values =
      SERVICES[service]?.(data, heard) ?? (service > LAST_REQUEST ? [{ name: "Not decoded", value: hex(data) }] : []);
    return [
      {
        line: i + 1,
        ...(seconds === undefined ? {} : { seconds }),
        ...(ecu ? { ecu } : {}),
        service: hexId(service),
        bytes: hex(bytes),
        values,
      },
    ];
  });
  if (messages.length === 0) throw new BadInput("This log holds no OBD message: one message a line, its bytes in hex", "file");
  const { codes, vin, ...rest } = heard;
  return { messages, codes: [...codes.values()], ...rest, ...(vin ? { vin } : {}) };
}

function readLine(plain: string, line: number): { seconds?: number; ecu?: string; bytes: number[] } {
  const words = plain
    .replace(/[<>:,;]/g, " ")
    .trim()
    .split(/\s+/);
  const seconds = /^\d+\.\d+$/.test(words[0] ?? "") ? Number(words.shift()) : undefined;
  const ecu =
    words.length > 1 && /^([0-9A-Fa-f]{3}|[0-9A-Fa-f]{8})$/.test(words[0] ?? "") ? words.shift()?.toUpperCase() : undefined;
  const digits = words.join("");
  if (!/^([0-9A-Fa-f]{2})+$/.test(digits) || words.some((w) => w.length % 2 !== 0)) {
    throw new BadInput(`Line ${line} is no OBD message: bytes are pairs of hex digits, like 41 0C 1A F8`, `line ${line}`);
  }
  const bytes = (digits.match(/../g) as string[]).map((h) => Number.parseInt(h, 16));
  return { ...(seconds === undefined ? {} : { seconds }), ...(ecu ? { ecu } : {}), bytes };
}

/** PIDs one after another; service 02 carries a frame number behind each PID. */
function pids(frozen: boolean, data: readonly number[]): ObdValue[] {
  const values: ObdValue[] = [];
  for (let i = 0; i < data.length; ) {
    const pid = data[i] as number;
    const head = frozen ? 2 : 1;
    const rest = data.slice(i + head);
    if (pid % 0x20 === 0) {
      values.push({ name: `PIDs supported from ${hexId(pid + 1)}`, value: supported(pid, rest), pid: hexId(pid) });
      i += head + 4;
      continue;
    }
    if (pid === 0x01 || pid === 0x41) {
      values.push(
        ...(pid === 0x01
          ? [
              { name: "Engine light", value: ((rest[0] ?? 0) & 0x80) !== 0 ? "on" : "off", pid: "01" },
              { name: "Codes stored", value: (rest[0] ?? 0) & 0x7f, unit: "codes", pid: "01" },
            ]
          : []),
        ...readinessOf(rest).map((r) => ({
          name: `${r.monitor} monitor${pid === 0x41 ? ", this drive" : ""}`,
          value: r.complete ? "complete" : "not complete",
          pid: hexId(pid),
        })),
      );
      i += head + 4;
      continue;
    }
    if (pid === 0x02 && frozen) {
      values.push({ name: "Code that froze this frame", value: codeOf(rest[0] ?? 0, rest[1] ?? 0), pid: "02" });
      i += head + 2;
      continue;
    }
    const row = PIDS[pid];
    if (!row || rest.length < row.bytes) {
      values.push({ name: `PID ${hexId(pid)}, not decoded`, value: hex(rest), pid: hexId(pid) });
      break;
    }
    for (const { name, unit, kind, of } of row.values) {
      const value = of(rest);
      values.push({
        name,
        value: typeof value === "number" ? Math.round(value * 1e6) / 1e6 : value,
        ...(unit && typeof value === "number" ? { unit } : {}),
        ...(kind ? { kind } : {}),
        pid: hexId(pid),
      });
    }
    i += head + row.bytes;
  }
  return values;
}

function supported(first: number, bits: readonly number[]): string {
  const list = bits
    .slice(0, 4)
    .flatMap((byte, k) =>
      Array.from({ length: 8 }, (_, bit) => ((byte >> (7 - bit)) & 1 ? [hexId(first + 8 * k + bit + 1)] : [])).flat(),
    );
  return list.join(" ");
}

/** Bytes A to D of PID 01 or 41: monitors that this engine has, complete or not (a set bit means not complete). */
function readinessOf([, b = 0, c = 0, d = 0]: readonly number[]): ReadinessBit[] {
  return [
    ...CONTINUOUS.flatMap(([bit, monitor]) => ((b >> bit) & 1 ? [{ monitor, complete: !((b >> (bit + 4)) & 1) }] : [])),
    ...PER_TRIP.flatMap(([bit, monitor]) => ((c >> bit) & 1 ? [{ monitor, complete: !((d >> bit) & 1) }] : [])),
  ];
}

/** Two bytes as a trouble code (SAE J2012). */
const codeOf = (high: number, low: number) =>
  `${"PCBU"[high >> 6]}${(high >> 4) & 3}${(high & 15).toString(16).toUpperCase()}${hexId(low)}`;

/** Codes of services 03, 07 and 0A: over CAN a count goes before the pairs, over older links three padded pairs come alone. */
function codesOf(data: readonly number[]): string[] {
  const pairs = data.length % 2 === 1 ? data.slice(1) : data;
  const codes: string[] = [];
  for (let i = 0; i + 1 < pairs.length; i += 2) {
    const [high, low] = [pairs[i] as number, pairs[i + 1] as number];
    if (high !== 0 || low !== 0) codes.push(codeOf(high, low));
  }
  return codes;
}

/** Nine bytes a test over CAN: monitor, test, scaling, value, low, high. What does not fit stays as bytes. */
function monitorsOf(data: readonly number[]): { known: MonitorTest[]; rest: readonly number[] } {
  const known: MonitorTest[] = [];
  let i = 0;
  for (; i + 9 <= data.length; i += 9) {
    const [mid, tid, uas, ...raw] = data.slice(i, i + 9) as number[];
    const scaling = SCALINGS[uas as number];
    const read = (k: number) => {
      const n = 256 * (raw[k] as number) + (raw[k + 1] as number);
      const value = scaling?.signed && n > 32767 ? n - 65536 : n;
      return Math.round((value * (scaling?.factor ?? 1) + (scaling?.offset ?? 0)) * 1e6) / 1e6;
    };
    const [value, low, high] = [read(0), read(2), read(4)];
    known.push({
      monitor: MONITORS[mid as number] ?? `Monitor ${hexId(mid as number)}`,
      test: hexId(tid as number),
      value,
      low,
      high,
      unit: scaling ? scaling.unit : "raw",
      passed: value >= low && value <= high,
    });
  }
  return { known, rest: data.slice(i) };
}
