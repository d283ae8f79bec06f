/** Made-up scan logs of every dialect, with the truth they were made from, and how many of them are read right. */
import { readSurvey } from "@/core/checks/trims";
import { type Noise, seededNoise } from "@/core/maths/random";
import { type ChannelId, findSteadyWindows, type Mapping, readHead, readScanLog, surveyPoints } from "@/core/scan-log";
import { DEFAULT_LIMITS } from "@/core/shop/settings";
import {
  ACRONYMS,
  BANKS,
  BESIDE,
  BRACKETED,
  DATE_NAMES,
  type Language,
  LONG_HEADERS,
  type Logged,
  NAMES,
  PIDS,
  TIME_NAMES,
  TRIM_PIDS,
  UNIT_SPELLINGS,
} from "./log-words";

const HOLE = 2e-3;
const AMBIENT = 101.3;
const DISPLACEMENT = 1.6;

interface Column {
  /** As the file heads it */
  readonly header: string;
  readonly unit: string;
  readonly channel: ChannelId | null;
  readonly unitId?: string;
  readonly value: (t: number) => number | string;
  readonly decimals: number;
}
export interface MadeLog {
  readonly text: string;
  readonly columns: readonly Column[];
  readonly banks: 1 | 2;
  readonly note: string;
}

/** Five steady stretches of 9 s, 3 s apart: speed, airflow g/s, manifold kPa. */
const POINTS = [
  [740, 2.6, 33],
  [1500, 5.3, 31],
  [2500, 9.8, 32],
  [2300, 19, 62],
  [3100, 44, 92],
] as const;
const STRETCH = 12;

const at = (t: number) => POINTS[Math.min(POINTS.length - 1, Math.floor(t / STRETCH))] as (typeof POINTS)[number];
/** Lean by a hole: CdA·ψ/m, choked below 53.5 kPa and by the orifice equation above. */
function lean(map: number, flow: number): number {
  const area = 0.61 * (Math.PI / 4) * HOLE ** 2;
  const r = map / AMBIENT;
  const choked = 1e3 * AMBIENT * Math.sqrt(1.4 / (287.05 * 293.15)) * (2 / 2.4) ** (2.4 / 0.8);
  const psi = r < 0.528 ? choked : 1e3 * AMBIENT * Math.sqrt((7 / (287.05 * 293.15)) * (r ** (2 / 1.4) - r ** (2.4 / 1.4)));
  return (100 * area * psi) / (flow / 1e3);
}

const UNITS_OF: Partial<Record<Logged, readonly string[]>> = {
  maf: ["g/s", "g/s", "g/s", "kg/h", "lb/min"],
  map: ["kPa", "kPa", "hPa", "inHg", "psi"],
  baro: ["kPa", "hPa", "inHg"],
  coolant: ["°C", "°C", "°F"],
  iat: ["°C", "°C", "°F"],
};
const CHANNEL: Record<Exclude<Logged, "short" | "long">, ChannelId> = {
  rpm: "rpm",
  maf: "maf",
  map: "map",
  coolant: "coolant",
  iat: "intake-temperature",
  loop: "loop",
  throttle: "throttle",
  baro: "barometer",
  speed: "speed",
  load: "load",
};
const BARE: Partial<Record<Logged, readonly string[]>> = {
  rpm: ["rpm", "1/min", ""],
  short: ["%"],
  long: ["%"],
  throttle: ["%"],
  load: ["%"],
  speed: ["km/h"],
};

const snake = (text: string) =>
  text
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .replace(/ł/g, "l")
    .replace(/ø/gi, "o")
    .replace(/æ/gi, "ae")
    .replace(/ı/g, "i")
    .replace(/ß/g, "ss")
    .replace(/[^A-Za-z0-9]+/g, "_")
    .replace(/^_|_$/g, "")
    .toLowerCase();

/** One made-up log; `seed` decides everything about it. */
function makeLog(seed: number): MadeLog {
  const noise = seededNoise(seed);
  const any = <T>(list: readonly T[]): T => list[Math.floor(noise.uniform(0, list.length))] as T;
  const chance = (p: number) => noise.uniform() < p;
  const language = any<Language>(["en", "en", "en", "de", "fr", "es", "it", "nl", "pl", "pt", "sv", "da", "cs", "tr"]);
  const style = any(["words", "words", "words", "snake", "codes", "acronyms"] as const);
  // The standard fixes the units of its own acronyms: where they are written, they are of use to nobody.
  const placed =
    style === "acronyms" ? "none" : any(["brackets", "tight", "square", "comma", "row", "suffix", "cell", "none"] as const);
  const explained = style === "words" && chance(0.25);
  const banks = chance(0.4) ? 2 : 1;
  const total = style === "words" && language === "en" && chance(0.12);
  const oneARow = chance(0.1);
  const columns: Column[] = [];
  const put = (name: string, unit: string, rest: Omit<Column, "header" | "unit">) => {
    const label = style === "snake" ? snake(name) : name;
    const named =
      unit === "" || placed === "none" || placed === "row" || placed === "cell" || oneARow
        ? label
        : style === "snake" || placed === "suffix"
          ? `${label}${style === "snake" ? "_" : " "}${style === "snake" ? snake(unit.replace("%", "pct").replace("°", "deg_")) : unit}`
          : placed === "brackets" || placed === "tight"
            ? `${label}${placed === "tight" ? "" : " "}(${unit})`
            : placed === "square"
              ? `${label} [${unit}]`
              : `${label}, ${unit}`;
    columns.push({ header: named, unit, ...rest });
  };
  const logged = ["rpm", "maf", "map", "coolant", "iat", "loop", "throttle", "baro", "speed", "load"] as const;
  const here = logged.filter((id) => ["rpm", "maf", "map"].includes(id) || chance(0.6));
  for (const id of here) {
    const name =
      style === "acronyms"
        ? ACRONYMS[id]
        : style === "codes"
          ? any([`01${PIDS[id]}`, `01 ${PIDS[id]}`, `0x${PIDS[id]}`, `PID ${PIDS[id]}`])
          : `${any(NAMES[id][language])}${explained && BRACKETED[id] ? ` (${BRACKETED[id]})` : ""}`;
    // Codes and acronyms of the standard stand in the standard's units.
    const bare = style === "acronyms" || (style === "codes" && placed === "none" && !oneARow);
    const unitId = bare ? (UNITS_OF[id]?.[0] ?? "") : any(UNITS_OF[id] ?? [""]);
    const spelling = unitId ? any(UNIT_SPELLINGS[unitId]?.words ?? [""]) : any(BARE[id] ?? [""]);
    const of = UNIT_SPELLINGS[unitId]?.of ?? ((x: number) => x);
    const truth = (t: number): number | string => {
      const [rpm, maf, map] = at(t);
      switch (id) {
        case "rpm":
          return rpm + noise.normal(6);
        case "maf":
          return of(maf * (1 + noise.normal(0.008)));
        case "map":
          return of(map + noise.normal(0.2));
        case "coolant":
          return of(91 + noise.normal(0.4));
        case "iat":
          return of(24 + noise.normal(0.3));
        case "baro":
          return of(AMBIENT);
        case "loop":
          return "CL";
        case "throttle":
          return 12 + rpm / 200;
        case "speed":
          return t > 36 ? 60 : 0;
        case "load":
          return 20 + map / 2;
      }
    };
    const decimals = unitId === "psi" || unitId === "lb/min" || unitId === "inHg" ? 3 : id === "rpm" ? 0 : 2;
    put(name, spelling, { channel: CHANNEL[id], ...(unitId ? { unitId } : {}), value: truth, decimals });
    // The same channel once more, as some tools write what two modules report.
    if (id === "rpm" && style === "words" && !oneARow && chance(0.12))
      columns.push({ ...(columns.at(-1) as Column), header: `${(columns.at(-1) as Column).header}`, channel: null });
    // A channel with its smallest and largest value so far beside it.
    if ((id === "maf" || id === "rpm") && style !== "codes" && chance(0.15)) {
      for (const [i, word] of BESIDE[language].entries()) {
        put(chance(0.5) ? `${name} ${word}` : `${word} ${name}`, spelling, {
          channel: null,
          value: (t) => of(i === 0 ? 0.5 : t + 60),
          decimals: 1,
        });
      }
    }
  }
  for (const bank of Array.from({ length: banks }, (_, i) => (i + 1) as 1 | 2)) {
    const mark = banks === 1 && chance(0.4) ? () => "" : any(BANKS[language]);
    const trim = (t: number) => lean(at(t)[2], at(t)[1]) + noise.normal(0.5);
    const head = (term: "short" | "long") =>
      style === "acronyms"
        ? ACRONYMS[term](bank)
        : style === "codes"
          ? `01${TRIM_PIDS[term][bank - 1]}`
          : `${any(NAMES[term][language])}${mark(bank)}`;
    if (total) put(`Total fuel trim${mark(bank)}`, "%", { channel: `total-trim-${bank}`, value: trim, decimals: 1 });
    else {
      put(head("short"), "%", { channel: `short-trim-${bank}`, value: () => noise.normal(0.4), decimals: 1 });
      put(head("long"), "%", { channel: `long-trim-${bank}`, value: trim, decimals: 1 });
    }
  }
  const text = written(columns, {
    noise,
    any,
    chance,
    language,
    oneARow,
    row: placed === "row" && style !== "codes",
    inCell: placed === "cell" && !oneARow,
    perChannel: style === "words" && !oneARow && placed !== "row" && chance(0.1),
  });
  return {
    text,
    columns,
    banks,
    note: `${language} ${style} ${placed}${explained ? " explained" : ""}${oneARow ? " one a row" : ""}${total ? " total" : ""}`,
  };
}

interface Style {
  readonly noise: Noise;
  readonly any: <T>(list: readonly T[]) => T;
  readonly chance: (p: number) => boolean;
  readonly language: Language;
  readonly oneARow: boolean;
  readonly row: boolean;
  /** The unit stands behind each number */
  readonly inCell: boolean;
  /** Each channel has a time of its own beside it */
  readonly perChannel: boolean;
}

function written(columns: readonly Column[], { any, chance, language, oneARow, row, inCell, perChannel }: Style): string {
  const comma = chance(0.4);
  const delimiter = comma ? any([";", ";", "\t", "|", "^"]) : any([",", ",", ";", "\t", "|", "~"]);
  const thousands = chance(0.2);
  const mark = any(["'", comma ? "." : ",", comma ? "." : ","]);
  const number = (value: number, decimals: number) => {
    const plain = value.toFixed(decimals);
    const [whole, rest] = plain.split(".") as [string, string | undefined];
    const grouped = thousands ? whole.replace(/\B(?=(\d{3})+$)/g, mark) : whole;
    const all = rest === undefined ? grouped : `${grouped}${comma ? "," : "."}${rest}`;
    return all.includes(delimiter) ? `"${all}"` : all;
  };
  const clock = any(["seconds", "seconds", "ms", "clock", "mm:ss", "iso", "days", "date beside"] as const);
  const start = Date.parse("2026-03-02T09:58:10Z");
  const two = (n: number) => String(Math.floor(n)).padStart(2, "0");
  const time = (t: number): string => {
    switch (clock) {
      case "seconds":
        return number(t, 2);
      case "ms":
        return String(Math.round(t * 1000));
      case "clock": {
        const d = new Date(start + t * 1000);
        return `${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())}.${String(d.getUTCMilliseconds()).padStart(3, "0")}`;
      }
      case "mm:ss":
        return `${two(t / 60)}:${two(t % 60)}.${Math.floor((t * 10) % 10)}`;
      // A day's fraction, as a spreadsheet keeps it: 46,083.415…
      case "days":
        return (46_083 + 35_890 / 86_400 + t / 86_400).toFixed(8).replace(".", comma ? "," : ".");
      case "date beside": {
        // Over midnight.
        const d = new Date(Date.parse("2026-03-02T23:59:40Z") + t * 1000);
        return `${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())}.${Math.floor(d.getUTCMilliseconds() / 100)}`;
      }
      case "iso":
        return new Date(start + t * 1000).toISOString().replace("Z", any(["Z", "+01:00"]));
    }
  };
  const timeHeader = clock === "ms" ? any([`${any(TIME_NAMES[language])} (ms)`, "time_ms"]) : any(TIME_NAMES[language]);
  const quoted = (text: string) => (text.includes(delimiter) ? `"${text}"` : text);
  const date = (t: number) => new Date(Date.parse("2026-03-02T23:59:40Z") + t * 1000).toISOString().slice(0, 10);
  const dated = clock === "date beside" && !oneARow;
  const cell = (column: Column, t: number) => {
    const value = column.value(t);
    if (typeof value === "string") return value;
    const plain = number(value, column.decimals);
    return inCell && column.unit !== "" ? quoted(`${plain.replaceAll('"', "")} ${column.unit}`) : plain;
  };
  const times = Array.from({ length: 5 * STRETCH * 2 }, (_, i) => i / 2);
  const lines: string[] = chance(0.2) ? ["Scan log", ""] : [];
  if (oneARow) {
    lines.push([timeHeader, ...LONG_HEADERS[language]].map(quoted).join(delimiter));
    for (const t of times) {
      const stamp = time(t);
      for (const c of columns) lines.push([stamp, quoted(c.header), cell(c, t), quoted(c.unit)].join(delimiter));
    }
  } else {
    const dateHeader = dated ? [DATE_NAMES[language]] : [];
    const beside = <T>(list: readonly T[], own: T) =>
      perChannel ? list.flatMap((one, i) => (i === 0 ? [one] : [own, one])) : list;
    lines.push(
      [
        ...dateHeader,
        timeHeader,
        ...beside(
          columns.map((c) => c.header),
          timeHeader,
        ),
      ]
        .map(quoted)
        .join(delimiter),
    );
    if (row)
      lines.push(
        [...(dated ? ["-"] : []), clock === "ms" ? "ms" : "s", ...columns.map((c) => c.unit || "-")].map(quoted).join(delimiter),
      );
    for (const t of times) {
      const cells = columns.map((c) => cell(c, t));
      lines.push([...(dated ? [date(t)] : []), quoted(time(t)), ...beside(cells, quoted(time(t)))].join(delimiter));
    }
  }
  return `${lines.join("\n")}\n`;
}

export type Read = "right" | "one-question" | "silently-wrong" | "not-read";

/** Reads one log as the app does, answering at most one question truthfully, and holds the hole against the truth. */
function readMade({ text, columns, banks }: MadeLog): Read {
  const bytes = new TextEncoder().encode(text);
  const engine = { displacement: DISPLACEMENT * 1e-3, induction: "natural" as const, fuel: "petrol" as const };
  let mapping: Mapping | undefined;
  let asked = 0;
  for (;;) {
    let head: ReturnType<typeof readHead>;
    try {
      head = readHead(bytes, mapping, engine);
    } catch {
      return "not-read";
    }
    const [problem] = head.problems;
    if (!problem) break;
    asked++;
    const column = columns.find((c) => c.header === problem.header);
    if (asked > 1 || !problem.header) return "not-read";
    mapping = {
      ...mapping,
      [problem.header]: { channel: column?.channel ?? null, ...(column?.unitId ? { unit: column.unitId as never } : {}) },
    };
  }
  try {
    const points = surveyPoints(findSteadyWindows(readScanLog(bytes, mapping, engine), DEFAULT_LIMITS));
    const { banks: read, shared } = readSurvey(
      { ambient: { value: AMBIENT, unit: "kPa" }, intakeTemperature: { value: 20, unit: "°C" }, points },
      { induction: "natural", displacement: { value: DISPLACEMENT, unit: "L" } },
      "product",
      { good: 0.05, act: 0.1 },
    );
    const hole = shared?.hole.diameter ?? read[0]?.hole?.diameter;
    const fits = hole !== undefined && Math.abs(hole / HOLE - 1) < 0.15 && read.length === banks;
    return fits ? (asked > 0 ? "one-question" : "right") : "silently-wrong";
  } catch {
    return "not-read";
  }
}

export interface GrammarScore {
  readonly files: number;
  readonly right: number;
  readonly oneQuestion: number;
  readonly silentlyWrong: number;
  readonly notRead: number;
  readonly wrong: readonly string[];
}

/** Scores files of the grammar from a seed on. */
export function logGrammar(files: number, seed: number): GrammarScore {
  const count: Record<Read, number> = { right: 0, "one-question": 0, "silently-wrong": 0, "not-read": 0 };
  const wrong: string[] = [];
  for (let i = 0; i < files; i++) {
    const made = makeLog(seed + i);
    const read = readMade(made);
    count[read]++;
    if (read === "silently-wrong" || read === "not-read") wrong.push(`${seed + i} ${read}: ${made.note}`);
  }
  return {
    files,
    right: count.right,
    oneQuestion: count["one-question"],
    silentlyWrong: count["silently-wrong"],
    notRead: count["not-read"],
    wrong,
  };
}
