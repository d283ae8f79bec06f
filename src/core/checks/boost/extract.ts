import { boostThatMatters } from "../../gas/boost";
import { type ChannelId, columnOf, meanOver, type ScanLog, standingStretch } from "../../scan-log";
import { displayed, fromSi, type Quantity } from "../../units";
import { type BoostPointRead, type BoostRecord, egrOpen, isSteady, type KeyOnRead, type Stretch } from "./fields";

/** Version of what is taken from a log here; kept with every record that rests on it. */
export const BOOST_EXTRACTOR = 4;

/** A point is a stretch so long, s, in which no pressure and no speed moves more than this: Pa, and share. */
const SECONDS = 1;
const PRESSURE_MOVES = 8e3;
const SPEED_MOVES = 0.12;
/** What moves more is a point all the same, with how fast it moves, up to here. */
const MOVES_AT_MOST = { pressure: 30e3, speed: 0.35 } as const;
/** Points of one log, steady and moving ones: more say nothing new. */
const MOST = { steady: 50, moving: 30 } as const;
/** Boost counts as asked for from so much over ambient on, Pa, and as taken back below this. */
const ASKED = 25e3;
const TAKEN_BACK = 8e3;
/** Limp mode is boost taken back for so long while the pedal asks for power, s, 1/min and percent. */
const LIMP = { seconds: 5, rpm: 1400, pedal: 60 } as const;
/** Road speed stands in km/h in a log. */
const KMH = 3.6;
/** Delivered swings through asked at least so often within one stretch under boost. */
const SWINGS = 6;

export type BoostTrace = Pick<BoostRecord, "points" | "keyOn" | "short" | "over" | "hunts" | "limp"> & {
  /** Where the log says it: shut in some of the points, which are enough to learn breathing from, or open in all */
  readonly egr?: "shut" | "open";
};

/**
 * Steady moments of a log, key-on readings, how long boost stayed short or over, and when boost was no longer asked for.
 * @param ambient Pa absolute. @returns undefined where the log has no clock, no engine speed or no pressure.
 */
export function boostTrace(log: ScanLog, ambient: number): BoostTrace | undefined {
  const values = (id: Parameters<typeof columnOf>[1]) => columnOf(log, id)?.values;
  const [time, rpm, map, charge] = [values("time"), values("rpm"), values("map"), values("charge")];
  const got = charge ?? map;
  if (!time || !rpm || !got) return undefined;
  const asked = values("charge-asked");
  const temperature = values("charge-temperature") ?? values("intake-temperature");
  const columns = {
    map,
    charge,
    asked,
    maf: values("maf"),
    command: values("actuator-command"),
    position: values("actuator-position"),
    egr: values("egr"),
  };
  const range = (of: Float64Array, from: number, to: number) => {
    const known = Array.from(of.subarray(from, to)).filter(Number.isFinite);
    return known.length > 0 ? Math.max(...known) - Math.min(...known) : Number.POSITIVE_INFINITY;
  };
  const points: BoostPointRead[] = [];
  for (let i = 0; i < log.rows; ) {
    let end = i + 1;
    while (end < log.rows && (time[end] as number) - (time[i] as number) < SECONDS) end++;
    const speed = meanOver(rpm, i, end);
    const read = { map: meanOver(columns.map, i, end), charge: meanOver(columns.charge, i, end) };
    const moved = (of: Float64Array | undefined) => (of ? range(of, i, end) : 0);
    const [pressure, turned] = [Math.max(moved(columns.map), moved(columns.charge)), range(rpm, i, end)];
    const running = speed !== undefined && speed > 500 && (read.map !== undefined || read.charge !== undefined);
    const steady = running && turned <= SPEED_MOVES * speed && pressure <= PRESSURE_MOVES;
    const warmth = meanOver(temperature, i, end);
    const rates = running && warmth !== undefined ? ratesOf({ time, got, maf: columns.maf, temperature }, i, end) : undefined;
    const goes =
      steady || (running && rates !== undefined && turned <= MOVES_AT_MOST.speed * speed && pressure <= MOVES_AT_MOST.pressure);
    if (goes && speed !== undefined && warmth !== undefined) {
      const [maf, wanted, command, position, egr] = (["maf", "asked", "command", "position", "egr"] as const).map((name) =>
        meanOver(columns[name], i, end),
      );
      const trim = trimOver(log, i, end);
      points.push({
        ...momentOf(((time[i] as number) + (time[end - 1] as number)) / 2 - (time[0] as number)),
        rpm: Math.round(speed),
        ...pressures({ map: read.map, charge: read.charge, asked: wanted }),
        ...(maf === undefined ? {} : { maf: fromSi(maf, "g/s") }),
        chargeTemperature: fromSi(warmth, "°C"),
        ...(command === undefined || position === undefined ? {} : { actuator: { command, position } }),
        ...(rates ? { moving: rates } : {}),
        ...(trim === undefined ? {} : { trim }),
        ...(egr === undefined ? {} : { egr: Math.min(100, Math.max(0, egr)) }),
      });
    }
    i = end;
  }
  if (points.length === 0) return undefined;
  const keyOn = keyOnOf(log);
  const logged = points.filter((p) => p.egr !== undefined);
  const beyond = asked ? stretches(time, rpm, asked, got, ambient) : {};
  const limp = asked ? limpOf(log, time, rpm, asked, ambient) : undefined;
  return {
    points: [
      ...spread(points.filter(isSteady), MOST.steady),
      ...spread(
        points.filter((p) => !isSteady(p)),
        MOST.moving,
      ),
    ],
    ...(keyOn ? { keyOn } : {}),
    ...(logged.length > 0 ? { egr: logged.some((p) => !egrOpen(p)) ? ("shut" as const) : ("open" as const) } : {}),
    ...beyond,
    ...(limp ? { limp } : {}),
  };
}

/** Latest moment that a point is placed at in the picture, s. */
const LATEST = 7200;
const momentOf = (seconds: number) => (seconds <= LATEST ? { time: Math.round(10 * seconds) / 10 } : {});

/** A trim that is held at nothing is no trim: the loop is open. */
const OPEN_LOOP = 1e-9;
/** What lies beyond is no trim, %. */
const MOST_TRIM = 60;

/**
 * Short- and long-term trim together over rows [from, to), mean of the banks, percent; undefined where none was logged, or the
 * loop was open: the short one rests at nothing then.
 */
function trimOver(log: ScanLog, from: number, to: number): number | undefined {
  const of = (id: ChannelId) => columnOf(log, id)?.values;
  const banks = ([1, 2] as const).flatMap((bank) => {
    const total = meanOver(of(`total-trim-${bank}`), from, to);
    if (total !== undefined) return [total];
    const short = of(`short-trim-${bank}`);
    const [now, learnt] = [meanOver(short, from, to), meanOver(of(`long-trim-${bank}`), from, to)];
    const open = short?.subarray(from, to).every((v) => Math.abs(v) < OPEN_LOOP);
    return now === undefined || learnt === undefined || open ? [] : [now + learnt];
  });
  const mean = banks.reduce((sum, v) => sum + v, 0) / banks.length;
  return banks.length === 0 || Math.abs(mean) > MOST_TRIM ? undefined : Math.round(10 * mean) / 10;
}

/** Every pressure sensor with the engine standing. */
function keyOnOf(log: ScanLog): KeyOnRead | undefined {
  const stretch = standingStretch(log);
  if (!stretch) return undefined;
  const read = (id: ChannelId) => meanOver(columnOf(log, id)?.values, ...stretch);
  const filter = read("filter-pressure");
  const absolute = { ambient: read("barometer"), map: read("map"), charge: read("charge"), exhaust: read("exhaust-pressure") };
  const found = {
    ...Object.fromEntries(
      Object.entries(defined(absolute)).map(([name, pa]) => [name, displayed(pa as number, "kPa", 1, "absolute")]),
    ),
    ...(filter === undefined ? {} : { filter: displayed(filter, "hPa", 1, "gauge") }),
  };
  return Object.keys(found).length > 0 ? found : undefined;
}

const defined = <T extends object>(of: T) =>
  Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined)) as { [K in keyof T]?: NonNullable<T[K]> };

const pressures = <T extends { readonly [name: string]: number | undefined }>(read: T) =>
  Object.fromEntries(Object.entries(defined(read)).map(([name, pa]) => [name, fromSi(pa as number, "kPa", "absolute")])) as {
    [K in keyof T]?: Quantity;
  };

/** As many as are kept, spread over all speeds and pressures: every n-th of them in the order of pressure. */
function spread(points: readonly BoostPointRead[], most: number): BoostPointRead[] {
  if (points.length <= most) return [...points];
  const pressure = (p: BoostPointRead) => (p.charge ?? p.map)?.value ?? 0;
  const sorted = points.toSorted((a, b) => pressure(a) - pressure(b));
  return Array.from({ length: most }, (_, i) => sorted[Math.floor((i * sorted.length) / most)] as BoostPointRead);
}

/** Slope of a column over rows [from, to) by least squares, its unit per second; undefined where it has no three numbers. */
function slopeOf(time: Float64Array, values: Float64Array | undefined, from: number, to: number): number | undefined {
  if (!values) return undefined;
  let [n, t, v, tt, tv] = [0, 0, 0, 0, 0];
  for (let i = from; i < to; i++) {
    const [x, y] = [time[i] as number, values[i] as number];
    if (!Number.isFinite(x) || !Number.isFinite(y)) continue;
    [n, t, v, tt, tv] = [n + 1, t + x, v + y, tt + x * x, tv + x * y];
  }
  const spread = n * tt - t * t;
  return n >= 3 && spread > 0 ? (n * tv - t * v) / spread : undefined;
}

/** How fast a stretch moves; undefined where it has too few rows to say so. */
function ratesOf(
  of: { time: Float64Array; got: Float64Array; maf: Float64Array | undefined; temperature: Float64Array | undefined },
  from: number,
  to: number,
): BoostPointRead["moving"] {
  const pressure = slopeOf(of.time, of.got, from, to);
  const flow = slopeOf(of.time, of.maf, from, to);
  // Thermometers show whole degrees: a second either side says how they move.
  const wider = (to - from) >> 1;
  const temperature = slopeOf(of.time, of.temperature, Math.max(0, from - wider), Math.min(of.time.length, to + wider));
  const mean = meanOver(of.maf, from, to);
  if (pressure === undefined || temperature === undefined) return undefined;
  const round = (value: number) => Math.round(1000 * value) / 1000;
  return {
    pressure: round(pressure / 1e3),
    temperature: round(temperature),
    flow: round(flow === undefined || !mean ? 0 : flow / mean),
  };
}

/** The longest stretches short of and over what was asked, and whether delivered swung through it. */
function stretches(
  time: Float64Array,
  rpm: Float64Array,
  asked: Float64Array,
  got: Float64Array,
  ambient: number,
): Pick<BoostTrace, "short" | "over" | "hunts"> {
  const longest: { short?: Stretch; over?: Stretch } = {};
  let open: { side: "short" | "over"; since: number; low: number; high: number } | undefined;
  let crossings = 0;
  let most = 0;
  let before = 0;
  for (let i = 0; i < time.length; i++) {
    const [want, have, speed] = [asked[i] as number, got[i] as number, rpm[i] as number];
    if (!Number.isFinite(want) || !Number.isFinite(have) || !Number.isFinite(speed)) continue;
    const boosting = want > ambient + ASKED;
    const by = want - have;
    const matters = boostThatMatters(want, ambient);
    const side = !boosting ? undefined : by > matters ? "short" : -by > matters ? "over" : undefined;
    if (side && open?.side === side) {
      open = { ...open, low: Math.min(open.low, speed), high: Math.max(open.high, speed) };
      const seconds = (time[i] as number) - open.since;
      if (seconds > (longest[side]?.seconds ?? 0))
        longest[side] = { seconds, from: Math.round(open.low), to: Math.round(open.high) };
    } else open = side ? { side, since: time[i] as number, low: speed, high: speed } : undefined;
    const sign = !boosting || Math.abs(by) < 0.5 * matters ? 0 : Math.sign(by);
    if (!boosting) crossings = 0;
    if (sign !== 0 && before !== 0 && sign !== before) crossings++;
    if (sign !== 0) before = sign;
    most = Math.max(most, crossings);
  }
  return { ...longest, ...(most >= SWINGS ? { hunts: true } : {}) };
}

/** When boost was asked for and then no longer, though the pedal asked for power; without pedal or load nobody can tell it from easing off; and how far it had gone by then. */
function limpOf(log: ScanLog, time: Float64Array, rpm: Float64Array, asked: Float64Array, ambient: number): BoostRecord["limp"] {
  const speed = columnOf(log, "speed")?.values;
  const pedal = columnOf(log, "throttle")?.values ?? columnOf(log, "load")?.values;
  if (!pedal) return undefined;
  let was = false;
  let since: number | undefined;
  let gone = 0;
  let at = 0;
  for (let i = 0; i < log.rows; i++) {
    const step = i > 0 ? Math.max(0, (time[i] as number) - (time[i - 1] as number)) : 0;
    const v = speed?.[i];
    if (v !== undefined && Number.isFinite(v)) gone += (v / KMH) * step;
    const want = asked[i] as number;
    if (!Number.isFinite(want)) continue;
    if (want > ambient + ASKED) {
      was = true;
      since = undefined;
    } else if (was && want < ambient + TAKEN_BACK && (rpm[i] as number) > LIMP.rpm && (pedal[i] as number) >= LIMP.pedal) {
      if (since === undefined) [since, at] = [time[i] as number, gone];
      if ((time[i] as number) - since >= LIMP.seconds)
        return { at: Math.round(since), ...(speed && at > 50 ? { after: fromSi(at, "km") } : {}) };
    } else since = undefined;
  }
  return undefined;
}
