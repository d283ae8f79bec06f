import type { Limits } from "../../shop/limits";
import { formatNumber, toSi } from "../../units";
import type { CheckContext } from "../context";
import { jointName, type Measure, type Verdict, voidVerdict, type ZoneKnowledge } from "../verdict";
import { spotsOf } from "./candidates";
import { AGENT_NAMES, type ProbeRecord, type ProbeSeries, type ProbeTap } from "./fields";
import type { Seen } from "./rows";

/** How far a channel moved after a tap, against what it did before. */
export interface Movement {
  /** In the channel's unit: percent of trim, 1/min, or lambda */
  readonly change: number;
  /** sd of the one-second means before the tap, same unit */
  readonly noise: number;
  /** Movement that its line before the tap would have made by in the time a reaction takes */
  readonly drift: number;
  /** The same departure, from where it stood just before the tap */
  readonly level: number;
  /** s from the tap to half of the movement */
  readonly delay: number;
}

export interface TapReading {
  readonly tap: ProbeTap;
  readonly outcome: "reacts" | "quiet" | "void";
  readonly why: string;
  /** Multiple of the limit the stronger channel moved by; 0 for a void tap */
  readonly strength: number;
  readonly trim?: Movement;
  readonly rpm?: Movement;
  readonly lambda?: Movement;
}

/** A level is what stood there for so long before the tap, s. */
const LEVEL = 1.5;
/** Quiet stretch before a tap that its movement is held against, s, and the least of it that will do. */
const BASELINE = 6;
const LEAST_BASELINE = 3;
/** No channel is quieter than this: trim in percent, 1/min, lambda. */
const NOISE_FLOOR = { trim: 0.4, rpm: 4, lambda: 0.004 };
/** Throttle movement that means a foot, percent. */
const FOOT = 2;
/** Why no agent is brought to a diesel. */
const DIESEL_PROBE =
  "it has no trims that would react, and what burns in its intake runs it up: smoke, pressure and the look by hand work here";
/** More than any agent does to an idle, 1/min. */
const BEYOND_AGENT = 400;

/** Every tap read by itself against the log, or by what was typed; in the order they were made. */
export function readTaps(record: ProbeRecord, context: Pick<CheckContext, "limits">): TapReading[] {
  const { limits } = context;
  const taps = record.taps.toSorted((a, b) => (a.at ?? 0) - (b.at ?? 0));
  return taps.map((tap, i): TapReading => {
    const before = taps[i - 1];
    if (tap.typed) return typedTap(tap, record, limits);
    const nothing = (why: string): TapReading => ({ tap, outcome: "void", why, strength: 0 });
    if (tap.at === undefined || !record.series) return nothing("no log to read it against: import it, or type what you saw");
    if (before?.at !== undefined && tap.at - before.at < limits.probeGap.value) {
      return nothing(
        `only ${formatNumber(tap.at - before.at, 1)} s after the tap before it: wait ${limits.probeGap.value} s, or neither can be told`,
      );
    }
    return loggedTap(tap, tap.at, record, record.series, limits);
  });
}

function typedTap(tap: ProbeTap, record: ProbeRecord, limits: Limits): TapReading {
  const typed = tap.typed as NonNullable<ProbeTap["typed"]>;
  if (!record.closedLoop) return { tap, outcome: "void", why: "open loop: trims stood still by themselves", strength: 0 };
  const leap = typed.rpmAfter - typed.rpmBefore;
  if (Math.abs(leap) > BEYOND_AGENT) return { tap, outcome: "void", why: byFoot(leap), strength: 0 };
  const trim = { change: typed.trimAfter - typed.trimBefore, noise: NOISE_FLOOR.trim, delay: Number.NaN, drift: 0, level: 0 };
  const rpm = { change: typed.rpmAfter - typed.rpmBefore, noise: NOISE_FLOOR.rpm, delay: Number.NaN, drift: 0, level: 0 };
  return weighTap(tap, record, { trim, rpm }, limits);
}

/** First row at or after a time; rows follow the clock. */
function rowAt(times: readonly number[], time: number): number {
  let [low, high] = [0, times.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((times[middle] as number) < time) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The rows of a series around a tap: a long log is not gone through once a tap. */
function around(series: ProbeSeries, from: number, to: number): ProbeSeries {
  const [first, end] = [rowAt(series.time, from), rowAt(series.time, to)];
  const cut = Object.entries(series).map(([key, column]) => [key, column?.slice(first, end)]);
  return Object.fromEntries(cut.filter(([, column]) => column)) as ProbeSeries;
}

function loggedTap(tap: ProbeTap, at: number, record: ProbeRecord, whole: ProbeSeries, limits: Limits): TapReading {
  const series = around(whole, at - BASELINE - 2, at + limits.probeLatest.value + 2);
  const nothing = (why: string): TapReading => ({ tap, outcome: "void", why, strength: 0 });
  const latest = at + limits.probeLatest.value;
  const rows = (from: number, to: number) => series.time.flatMap((t, i) => (t >= from && t <= to ? [i] : []));
  const quiet = rows(at - BASELINE, at - 1e-9);
  const span =
    quiet.length > 1 ? (series.time[quiet.at(-1) as number] as number) - (series.time[quiet[0] as number] as number) : 0;
  if (quiet.length < 5 || span < LEAST_BASELINE - 0.5) return nothing("less than 3 s of log before it to compare with");
  if ((series.time.at(-1) ?? 0) < latest - 1) return nothing("the log ends before a reaction could have come");
  const watched = rows(at - BASELINE, latest);
  const loop = series.loop;
  if (loop ? watched.some((i) => loop[i] === 0) : !record.closedLoop)
    return nothing("open loop: trims stood still by themselves");
  const throttle = series.throttle;
  if (throttle) {
    const opened = watched.map((i) => throttle[i] as number);
    if (Math.max(...opened) - Math.min(...opened) > FOOT) return nothing("the throttle moved: the driver did it, not the agent");
  }
  const move = (id: "trim" | "rpm" | "lambda") => movement(series, id, at, quiet, limits);
  const trim = move("trim");
  // A trim that was on its way and stops looks like one that was pulled: it has to have moved from where it stood as well.
  if (trim && adrift(trim, 100 * limits.probeTrim.value))
    return nothing(`trim was on its way by itself, ${signed(trim.drift, 1)} % in that time: wait until it stands, and tap again`);
  const speed = move("rpm");
  const moved = { trim, rpm: speed && adrift(speed, limits.probeRpm.value) ? undefined : speed, lambda: move("lambda") };
  const early = moved.rpm && earlyChange(series, at, quiet);
  if (
    early !== undefined &&
    Math.abs(early) > Math.max(limits.probeRpm.value, limits.probeNoise.value * (moved.rpm?.noise ?? 0))
  ) {
    return nothing("engine speed moved before the agent could arrive: the driver did it, or a load came on");
  }
  if (moved.rpm && Math.abs(moved.rpm.change) > BEYOND_AGENT) {
    return nothing(byFoot(moved.rpm.change));
  }
  return weighTap(tap, record, moved, limits);
}

const byFoot = (change: number) =>
  `engine speed moved by ${formatNumber(change, 0)} rpm, more than a tap does: the driver did it`;

/** Whether a channel drifted by what a reaction has, and did not leave its level before the tap by as much, the same way. */
const adrift = ({ drift, change, level }: Movement, limit: number): boolean =>
  Math.abs(drift) >= limit && !(Math.sign(level) === Math.sign(change) && Math.abs(level) >= limit);

type Moved = { readonly [K in "trim" | "rpm" | "lambda"]?: Movement | undefined };

/** Gas enriches: trim falls, speed rises, lambda falls. Water and soap seal the hole or drown it: either way counts. */
function weighTap(tap: ProbeTap, record: ProbeRecord, moved: Moved, limits: Limits): TapReading {
  const towards = (m: Movement | undefined, sign: 1 | -1) =>
    m === undefined ? 0 : record.agent === "gas" ? Math.max(0, sign * m.change) : Math.abs(m.change);
  const trim = towards(moved.trim, -1) / (100 * limits.probeTrim.value);
  const rpm = towards(moved.rpm, 1) / limits.probeRpm.value;
  const clear = (m: Movement | undefined) => m !== undefined && Math.abs(m.change) >= limits.probeNoise.value * m.noise;
  const reacts = (trim >= 1 && clear(moved.trim)) || (rpm >= 1 && clear(moved.rpm));
  const strength = Math.max(clear(moved.trim) ? trim : 0, clear(moved.rpm) ? rpm : 0);
  const words = [
    moved.trim && `trim ${signed(moved.trim.change, 1)} %`,
    moved.rpm && `speed ${signed(moved.rpm.change, 0)} rpm`,
    moved.lambda && clear(moved.lambda) && `lambda ${signed(moved.lambda.change, 3)}`,
  ].filter(Boolean);
  const lead = trim >= rpm ? moved.trim : moved.rpm;
  const after = reacts && lead && Number.isFinite(lead.delay) ? `, ${formatNumber(lead.delay, 1)} s after the tap` : "";
  return {
    tap,
    outcome: reacts ? "reacts" : "quiet",
    why: `${words.join(", ")}${after}`,
    strength,
    ...(moved.trim ? { trim: moved.trim } : {}),
    ...(moved.rpm ? { rpm: moved.rpm } : {}),
    ...(moved.lambda ? { lambda: moved.lambda } : {}),
  };
}

const signed = (value: number, decimals: number) => `${value > 0 ? "+" : ""}${formatNumber(value, decimals)}`;

/**
 * Largest departure of a channel's one-second mean from its line before the tap, within the time a reaction takes.
 * The line has a slope only where the drift before the tap is beyond doubt (|t| > 3).
 */
function movement(
  series: ProbeSeries,
  id: "trim" | "rpm" | "lambda",
  at: number,
  quiet: readonly number[],
  limits: Limits,
): Movement | undefined {
  const values = series[id];
  if (!values) return undefined;
  const line = baseline(series.time, values, quiet);
  const departure = (t: number) => {
    const near = series.time.flatMap((s, i) => (Math.abs(s - t) <= 0.5 ? [(values[i] as number) - line(s)] : []));
    return near.length > 0 ? near.reduce((a, b) => a + b, 0) / near.length : Number.NaN;
  };
  const means = quiet.map((i) => departure(Math.min(series.time[i] as number, at - 0.5))).filter(Number.isFinite);
  const noise = Math.max(NOISE_FLOOR[id], Math.sqrt(means.reduce((s, v) => s + v * v, 0) / Math.max(1, means.length - 1)));
  const track: [number, number][] = [];
  for (let t = at + limits.probeEarliest.value; t <= at + limits.probeLatest.value + 1e-9; t += 0.25) {
    const d = departure(t);
    if (Number.isFinite(d)) track.push([t, d]);
  }
  const extreme = track.reduce((best, p) => (Math.abs(p[1]) > Math.abs(best[1]) ? p : best), track[0] ?? [at, 0]);
  const half = track.find((p) => p[1] * extreme[1] > 0 && Math.abs(p[1]) >= Math.abs(extreme[1]) / 2);
  // The drift is in the line; against the level just before the tap it is not.
  const stood = quiet.filter((i) => (series.time[i] as number) >= at - LEVEL).map((i) => values[i] as number);
  const level = stood.reduce((sum, v) => sum + v, 0) / Math.max(1, stood.length);
  return {
    change: extreme[1],
    noise,
    delay: (half?.[0] ?? extreme[0]) - at,
    drift: line(at + limits.probeLatest.value) - line(at),
    level: extreme[1] + line(extreme[0]) - level,
  };
}

/** Engine speed in the first second after a tap against the stretch before it: too soon for any agent. */
function earlyChange(series: ProbeSeries, at: number, quiet: readonly number[]): number | undefined {
  const rpm = series.rpm;
  if (!rpm) return undefined;
  const line = baseline(series.time, rpm, quiet);
  const soon = series.time.flatMap((t, i) => (t >= at && t <= at + 0.7 ? [(rpm[i] as number) - line(t)] : []));
  return soon.length > 0 ? soon.reduce((a, b) => a + b, 0) / soon.length : undefined;
}

function baseline(time: readonly number[], values: readonly number[], rows: readonly number[]): (t: number) => number {
  const n = rows.length;
  const tm = rows.reduce((s, i) => s + (time[i] as number), 0) / n;
  const vm = rows.reduce((s, i) => s + (values[i] as number), 0) / n;
  const stt = rows.reduce((s, i) => s + ((time[i] as number) - tm) ** 2, 0);
  const slope = rows.reduce((s, i) => s + ((time[i] as number) - tm) * ((values[i] as number) - vm), 0) / (stt || 1);
  const rest = rows.reduce((s, i) => s + ((values[i] as number) - vm - slope * ((time[i] as number) - tm)) ** 2, 0);
  const error = Math.sqrt(rest / Math.max(1, n - 2) / (stt || 1));
  const drifts = Math.abs(slope) > 3 * error && error > 0;
  return (t) => vm + (drifts ? slope * (t - tm) : 0);
}

/** Scatter before a tap from which an idle wanders, 1/min and percent of trim. */
const WANDERS = { rpm: 14, trim: 1.1 };
const wanders = (r: TapReading) => (r.rpm?.noise ?? 0) > WANDERS.rpm || (r.trim?.noise ?? 0) > WANDERS.trim;

/** Judges a probe: void taps aside, the strongest reaction names the spot; the rest of the spots stayed quiet. */
export function judgeProbe(record: ProbeRecord, context: CheckContext): Verdict<Seen> {
  const { layout, limits, vehicle } = context;
  if (vehicle.fuel === "diesel") return voidVerdict("A probe says nothing on a diesel", DIESEL_PROBE);
  if (record.coolant && toSi(record.coolant) < limits.warmCoolant.value) {
    return voidVerdict("This probe proves nothing", "the engine was not warm: closed loop was not settled");
  }
  const spots = spotsOf(layout);
  const readings = readTaps(record, context).map(
    (r): TapReading =>
      spots.includes(r.tap.joint)
        ? r
        : { ...r, outcome: "void", why: "there is no suction there: the agent says nothing", strength: 0 },
  );
  const name = (r: TapReading) => jointName(layout, r.tap.joint);
  const lost = readings.filter((r) => r.outcome === "void").map((r) => `${name(r)}: void, ${r.why}`);
  const good = readings.filter((r) => r.outcome !== "void");
  if (good.length === 0) {
    return voidVerdict("This probe proves nothing", lost[0] ?? "no tap could be read");
  }
  const all = good.filter((r) => r.outcome === "reacts").sort((a, b) => b.strength - a.strength);
  // On an idle that wanders one reaction may be the idle's own: it takes a second one at the same spot, and no quiet one.
  const again = (r: TapReading) =>
    !wanders(r) ||
    (all.filter((x) => x.tap.joint === r.tap.joint).length > 1 &&
      !good.some((x) => x.outcome === "quiet" && x.tap.joint === r.tap.joint));
  const reacting = all.filter(again);
  const [doubtful] = all;
  if (doubtful && reacting.length === 0) {
    return {
      outcome: "unsure",
      headline: `Moves at ${jointName(layout, doubtful.tap.joint)}, on an idle that wanders: tap it a second time`,
      measures: [],
      reasons: [doubtful.why, "one movement of a wandering idle names no spot; the same spot twice does", ...lost],
      zones: [],
    };
  }
  const quiet = good.filter((r) => r.outcome === "quiet");
  const tested = [...new Set(good.map((r) => r.tap.joint))];
  const [first, second] = reacting;
  const quietWords = quiet.length > 0 ? [`quiet at ${[...new Set(quiet.map(name))].join(", ")}`] : [];
  if (!first) {
    return {
      outcome: "pass",
      headline: `No reaction at ${tested.length === 1 ? "the spot" : `any of ${tested.length} spots`}`,
      measures: [],
      reasons: [
        "a quiet spot is not proved tight: the agent may not have been drawn in there",
        ...quiet.map((r) => `${name(r)}: ${r.why}`),
        ...lost,
      ],
      observation: "probe-quiet",
      tested,
      zones: [],
    };
  }
  const measures: Measure[] = [
    ...(first.trim
      ? [
          {
            name: `Total trim at ${name(first)}`,
            value: { value: first.trim.change, unit: "%" as const },
            signed: true as const,
            limit: `${formatNumber(100 * limits.probeTrim.value, 0)} % or ${limits.probeRpm.value} rpm, and ${limits.probeNoise.value} × the noise`,
            limitSource: limits.probeTrim.source,
          },
        ]
      : []),
    ...(first.rpm
      ? [{ name: `Engine speed at ${name(first)}`, value: { value: Math.round(first.rpm.change), unit: "rpm" as const } }]
      : []),
  ];
  const joint = layout.joints.find((j) => j.id === first.tap.joint);
  const zones: ZoneKnowledge[] = joint
    ? [{ zone: joint.from, state: "leaking", joint: joint.id, why: `${AGENT_NAMES[record.agent]} reacted there` }]
    : [];
  return {
    outcome: "fail",
    headline: `Reacts at ${name(first)}${first.tap.flexed ? " while flexed" : ""}: ${first.why}`,
    measures,
    reasons: [
      ...(second ? [`also at ${name(second)}: ${second.why}. Neighbouring spots share it: tap both again, apart`] : []),
      "pinch it or cap it off and see the reading recover: that confirms",
      ...quietWords,
      ...lost,
    ],
    observation: `probe-at:${first.tap.joint}`,
    tested,
    zones,
  };
}
