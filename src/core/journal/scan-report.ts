import { BadInput } from "../input";
import { type ObdLog, type ObdMessage, type ReadinessBit, readObd } from "../scan-log";
import { vinIn } from "../vehicle";
import type { Bodies, CodeRead, FreezeFrame, Monitor } from "./entries";

/** What a scan of a car says of it, read from the text it was kept as. */
export interface ScanReport {
  readonly vin?: string;
  readonly codes: readonly CodeRead[];
  /** Results of the car's own monitors, as entries: those that did not run, and those beyond a limit of their own */
  readonly monitors: readonly Monitor[];
  /** Every monitor that it names, run or not */
  readonly readiness: readonly ReadinessBit[];
  /** Codes that it names and does not say to be there, with its own words */
  readonly left: readonly { readonly code: string; readonly words: string }[];
  readonly modules: readonly string[];
  /** Every message, where it is a hex log */
  readonly log?: ObdLog;
}

/** Larger than any scan report or hex log of a session, characters. */
export const MOST_REPORT = 2e6;

/**
 * A scan as text: an OBD hex log (SAE J1979), or the printed report of a scan tool with the codes of SAE J2012 in it.
 * Throws BadInput where it holds no VIN, no code and no monitor, or is too long.
 */
export function readScanReport(text: string): ScanReport {
  if (text.length > MOST_REPORT) throw new BadInput(`This text is longer than ${MOST_REPORT / 1e6} MB: cut it`, "file");
  const read = isHexLog(text) ? ofObd(readObd(text)) : ofWords(text);
  if (!read.vin && read.codes.length === 0 && read.readiness.length === 0 && read.left.length === 0)
    throw new BadInput("There is no VIN, no code and no monitor in this text", "file");
  return read;
}

type Scanned = { readonly [K in "codes" | "monitor"]: { readonly kind: K; readonly body: Bodies[K] } }["codes" | "monitor"];

/** A scan as entries; a text without a code does not say that none was found. */
export function scanEntries({ codes, modules, monitors }: ScanReport): readonly Scanned[] {
  const read = { codes, ...(modules.length > 0 ? { modules } : {}) };
  return [
    ...(codes.length > 0 ? [{ kind: "codes" as const, body: read }] : []),
    ...monitors.map((body) => ({ kind: "monitor" as const, body })),
  ];
}

/** Whether every line is bytes, as far as a few tell; a code of five signs is none, though it may be hex digits all through. */
const isHexLog = (text: string) => {
  if (text.match(CODE)) return false;
  const lines = text
    .split(/\r\n|\r|\n/, 50)
    .map((line) => (line.split("#")[0] as string).replace(/[<>:,;]/g, " ").trim())
    .filter(Boolean);
  return lines.length > 0 && lines.every((line) => /^(\d+\.\d+\s+)?([0-9a-f]{3}\s|[0-9a-f]{8}\s)?[0-9a-f\s]+$/i.test(line));
};

const tenth = (value: number | string | undefined) => (typeof value === "number" ? Math.round(value * 10) / 10 : undefined);
const told = <T extends object>(values: T) =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)) as T;
const isEmpty = (frame: FreezeFrame) => Object.keys(frame).length === 0;

/** Frames that were frozen, by the code that froze each: values of service 02, by control unit and frame number. */
function frozen(messages: readonly ObdMessage[]): ReadonlyMap<string, FreezeFrame> {
  const groups = new Map<string, ObdMessage[]>();
  for (const m of messages) {
    const key = `${m.ecu ?? ""} ${m.bytes.split(" ")[2]}`;
    if (m.service === "42") groups.set(key, [...(groups.get(key) ?? []), m]);
  }
  const frames = [...groups.values()].flatMap((group): [string, FreezeFrame][] => {
    const values = new Map(group.flatMap((m) => m.values.map((v) => [v.pid, v.value] as const)));
    const code = values.get("02");
    const coolant = tenth(values.get("05"));
    const frame: FreezeFrame = told({
      rpm: tenth(values.get("0C")),
      load: tenth(values.get("04")),
      coolant: coolant === undefined ? undefined : { value: coolant, unit: "°C" as const },
      short: tenth(values.get("06")),
      long: tenth(values.get("07")),
    });
    return typeof code === "string" && !isEmpty(frame) ? [[code, frame]] : [];
  });
  return new Map(frames);
}

const RANK: readonly ObdLog["codes"][number]["status"][] = ["stored", "pending", "permanent"];

/** Codes of a decoded hex log, each with the frame it froze; a permanent code that is stored or pending as well is said once. */
export function codesOfObd({ codes, messages }: Pick<ObdLog, "codes" | "messages">): CodeRead[] {
  const frames = frozen(messages);
  const ranked = codes.toSorted((a, b) => RANK.indexOf(a.status) - RANK.indexOf(b.status));
  const once = ranked.filter(({ code }, i) => ranked.findIndex((c) => c.code === code) === i);
  return once.map(({ code, status }): CodeRead => {
    const frame = frames.get(code);
    return { code, status, ...(frame ? { frame } : {}) };
  });
}

const KNOWN_MONITORS: readonly (readonly [RegExp, NonNullable<Monitor["of"]>])[] = [
  [/^(EVAP|evaporative|purge flow)/i, "evap"],
  [/^fuel system/i, "mixture"],
  [/^misfire/i, "misfire"],
  [/^EGR/i, "egr"],
  [/^secondary air/i, "secondary-air"],
  [/^boost/i, "boost"],
  [/^(particulate|PM) filter/i, "filter"],
];
const monitorNamed = (name: string) => KNOWN_MONITORS.find(([form]) => form.test(name))?.[1];

function ofObd(log: ObdLog): ScanReport {
  // All zeros is how a test answers that has not run since the codes were cleared.
  const ran = log.monitorTests.filter((t) => t.value !== 0 || t.low !== 0 || t.high !== 0);
  const named = [...ran.map((t) => t.monitor), ...log.readiness.map((r) => r.monitor)].flatMap(
    (name) => monitorNamed(name) ?? [],
  );
  const monitors = [...new Set(named)].flatMap((of): Monitor[] => {
    const tests = ran.filter((t) => monitorNamed(t.monitor) === of);
    const waits = log.readiness.some((r) => monitorNamed(r.monitor) === of && !r.complete);
    const values = tests.map((t) => ({
      name: `${t.monitor}, test ${t.test}`,
      value: t.value,
      min: t.low,
      max: t.high,
      ...(t.unit ? { unit: t.unit } : {}),
    }));
    // Values stay from before a repair until they are cleared: that it ran since, and passed, only whoever drove it can say.
    const result = tests.some((t) => !t.passed) ? "failed" : waits ? "not-complete" : undefined;
    return result === undefined ? [] : [{ of, result, readBy: "OBD hex log", ...(values.length > 0 ? { values } : {}) }];
  });
  return {
    ...(log.vin ? { vin: log.vin } : {}),
    codes: codesOfObd(log),
    monitors,
    readiness: log.readiness,
    left: [],
    modules: [],
    log,
  };
}

const CODE = /(?<![A-Z0-9-])[PCBU][0-3][0-9A-F]{3}(?:-[0-9A-F]{2})?(?![A-Z0-9])/gi;
/** A word that also stands in codes' own texts ("heater current", "circuit intermittent"): here it stands by itself. */
const standing = (word: string) =>
  new RegExp(`(?:^|[([|:;,\\t-])\\s*(?:${word})\\s*(?:$|[)\\]|;,\\t]|\\s\\s|codes?|dtcs?|faults?)`, "i");
/** Said of a code, or of all codes below a heading; what is denied was taken out before. */
const SAID: readonly (readonly [RegExp, CodeRead["status"]])[] = [
  [/\bpermanent/i, "permanent"],
  [/\bpending|\bnot confirmed|\bmaturing/i, "pending"],
  [/\bhistor|\bsporadic|\bpast\b/i, "history"],
  [/\bstored|\bconfirmed|\bsaved/i, "stored"],
  [standing("intermittent"), "history"],
  [standing("current|active|present"), "current"],
];
const DENIED = /\bnot (currently )?(present|active|current|stored|set)\b|\b\w+\s*[:=]\s*(no|false|0)\b(?![.,]\d)/gi;
const ABSENT = /\bno (fault|code|dtc)s?\b|\babsent\b|\b(test )?passed\b|\bcleared\b|\bnot tested\b/i;
const NONE = /\bno\b|\bnone\b|[:=]\s*0\s*$/i;
const HEADING = /\b(codes?|dtcs?|faults?)\b/i;
const MODULE = /^\s*(?:module|ECU|control unit|system)\s*[:=]\s*(\S.*)$/i;
const FROZE = /\bfreeze frame\b/i;

const statusIn = (words: string) => SAID.find(([form]) => form.test(words))?.[1];

const N = "([+-]?\\d+(?:[.,]\\d+)?)";
const GAP = "[^\\d%+\\n-]{0,24}";
const FRAME: Readonly<Record<"rpm" | "load" | "celsius" | "fahrenheit" | "short" | "long", readonly RegExp[]>> = {
  rpm: [new RegExp(`${N}\\s*(?:rpm|1?/min|min-1)`, "i"), new RegExp(`(?:engine speed|\\brpm)[\\s:=]*${N}`, "i")],
  load: [new RegExp(`\\bload${GAP}${N}\\s*%`, "i"), new RegExp(`${N}\\s*%\\s*(?:calculated |engine )?load`, "i")],
  celsius: [new RegExp(`(?:coolant|\\bECT\\b)${GAP}${N}\\s*°?\\s*C\\b`, "i")],
  fahrenheit: [new RegExp(`(?:coolant|\\bECT\\b)${GAP}${N}\\s*°?\\s*F\\b`, "i")],
  short: [new RegExp(`(?:STFT|SHRTFT|short[- ]?term)(?:[a-z\\s]*)(?:1\\b|B1\\b|bank 1\\b)?${GAP}${N}\\s*%`, "i")],
  long: [new RegExp(`(?:LTFT|LONGFT|long[- ]?term)(?:[a-z\\s]*)(?:1\\b|B1\\b|bank 1\\b)?${GAP}${N}\\s*%`, "i")],
};

/** The operating point that some words give, as far as it can be one. */
function frameIn(words: string): FreezeFrame {
  const number = (what: keyof typeof FRAME, low: number, high: number) => {
    const found = FRAME[what].map((form) => form.exec(words)?.[1]).find((n) => n !== undefined);
    const value = found === undefined ? Number.NaN : Number(found.replace(",", "."));
    return value >= low && value <= high ? value : undefined;
  };
  const celsius = number("celsius", -60, 200);
  const fahrenheit = number("fahrenheit", -80, 400);
  return told({
    rpm: number("rpm", 0, 12_000),
    load: number("load", 0, 100),
    coolant:
      celsius !== undefined
        ? { value: celsius, unit: "°C" as const }
        : fahrenheit !== undefined
          ? { value: fahrenheit, unit: "°F" as const }
          : undefined,
    short: number("short", -100, 100),
    long: number("long", -100, 100),
  });
}

interface Found {
  readonly code: string;
  status: CodeRead["status"];
  readonly module?: string;
  /** Lines that belong to it, after its own */
  frame: string;
}

/** A printed report: codes with what stands beside them, under headings or within their line. */
function ofWords(text: string): ScanReport {
  const found: Found[] = [];
  const left: { code: string; words: string }[] = [];
  const readiness: ReadinessBit[] = [];
  const modules: string[] = [];
  let heading: CodeRead["status"] | undefined;
  let module: string | undefined;
  let frameOf: Found | undefined;
  for (const line of text.split(/\r\n|\r|\n/)) {
    if (line.trim() === "") continue;
    const codes = [...new Set((line.match(CODE) ?? []).map((code) => code.toUpperCase()))];
    const words = line.replace(CODE, " ").replace(DENIED, " ");
    const named = MODULE.exec(line)?.[1]?.trim().slice(0, 60);
    if (named && codes.length === 0) {
      module = named;
      heading = undefined;
      frameOf = undefined;
      modules.push(named);
      continue;
    }
    if (codes.length === 0) {
      const bit = monitorIn(line);
      if (bit) readiness.push(bit);
      else if (HEADING.test(words) && !FROZE.test(words)) {
        heading = NONE.test(words) ? undefined : statusIn(words);
        frameOf = undefined;
      } else if (frameOf) frameOf.frame += `\n${line.trim()}`;
      continue;
    }
    const said = statusIn(words);
    for (const code of codes) {
      const before = found.find((f) => f.code === code);
      if (FROZE.test(words) && before) frameOf = before;
      else if (!said && (ABSENT.test(words) || line.replace(DENIED, "").length < line.length))
        left.push({ code, words: line.trim().slice(0, 200) });
      else if (!before) {
        frameOf = { code, status: said ?? heading ?? "stored", ...(module ? { module } : {}), frame: "" };
        found.push(frameOf);
      } else frameOf = before;
      if (frameOf?.code === code) frameOf.frame += `\n${line.trim()}`;
    }
  }
  const vin = vinIn(text);
  return {
    ...(vin ? { vin } : {}),
    codes: found.map(codeRead),
    monitors: readiness.flatMap(({ monitor, complete }): Monitor[] => {
      const of = monitorNamed(monitor);
      // That it ran says nothing of how it ended.
      return of && !complete ? [{ of, result: "not-complete", readBy: "scan report" }] : [];
    }),
    readiness,
    left: left.filter(({ code }, i) => !found.some((f) => f.code === code) && left.findIndex((l) => l.code === code) === i),
    modules: [...new Set(modules)],
  };
}

function codeRead({ code, status, module, frame: words }: Found): CodeRead {
  const frame = frameIn(words);
  const freezeFrame = words
    .split("\n")
    .filter((line) => !isEmpty(frameIn(line)))
    .join("; ")
    .slice(0, 500);
  return { code, status, ...(module ? { module } : {}), ...(isEmpty(frame) ? {} : { frame, freezeFrame }) };
}

const MONITOR_LINE =
  /^\s*([A-Za-z][A-Za-z /-]{2,40}?)(?:\s+monitor)?(?:\s*\([^)]*\))?[\s:=.|-]+(complete[d]?|ready|incomplete|not (?:complete[d]?|ready|run)|inc)\s*$/i;

/** A monitor and whether it ran, where a line is nothing else. */
function monitorIn(line: string): ReadinessBit | undefined {
  const [, monitor, state] = MONITOR_LINE.exec(line) ?? [];
  return monitor && state ? { monitor: monitor.trim(), complete: /^(complete|ready)/i.test(state) } : undefined;
}
