import { R_AIR } from "../../gas/air";
import { holeDiameter, massFlux, SHARP_EDGED } from "../../gas/orifice";
import { fillHeating } from "../../gas/vessel";
import { formatNumber, fromSi, toSi, UNITS } from "../../units";
import { vapourVolume } from "../../vehicle";
import type { CheckContext } from "../context";
import { fuelLevelDoubt, holeMeasure, temperatureDoubt } from "../evap-fields";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import type { PulldownRecord } from "./fields";
import type { Seen } from "./rows";

/** Least change that counts, Pa, where the trace scatters less. */
const LEAST = 25;
/** Share of the depth asked for below which nothing was pulled at all. */
const NOTHING = 0.15;
/** Share of the depth that must be back soon after the vent opens, and how soon, s. */
const RELIEVED = 0.8;
const RELIEF_TIME = 15;
/** Shortest hold and shortest baseline that say something, s. */
const HOLD_TIME = 20;
const BASELINE_TIME = 5;
/** Wall time constant of a tank, s (see `gas/decay.ts`). */
const WALL_TIME = 25;
const T_95 = 1.96;

type Part = "good" | "bad" | "unsure";

/** The three verdicts of a trace, and what happened while everything was shut. SI. */
export interface PulldownReading {
  /** Scatter of the trace about itself, Pa */
  readonly noise: number;
  /** Change with purge and vent both shut, before purge opened, Pa; undefined when it was not waited for */
  readonly creep: number | undefined;
  /** Deepest drop from the start, Pa */
  readonly depth: number;
  /** Change during the hold, Pa: positive when vacuum was lost */
  readonly lost: number;
  readonly holdSeconds: number;
  /** Leak that the loss makes, m, where it was pulled down */
  readonly hole?: { readonly diameter: number; readonly low: number; readonly high: number };
  /** Share of the depth that came back within the time allowed */
  readonly relieved: number;
  readonly pullDown: Part;
  readonly hold: Part;
  readonly relief: Part;
}

const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);

/**
 * Reads a trace phase by phase. The leak in the hold follows from p·V = m·R·T with orifice inflow: CdA = V·Δp/(R·T·∫ψ dt),
 * less the warming of gas that expansion cooled (ideal gas, wall time constant 25 s), which is known to about 40 %.
 */
export function readPulldown(
  record: PulldownRecord,
  { vehicle, limits }: Pick<CheckContext, "vehicle" | "limits">,
): PulldownReading {
  const scale = UNITS[record.unit].scale;
  const points = record.points.map(([t, p]) => ({ t, p: p * scale }));
  // A sample at the moment of a change belongs to what comes after it: the log says that it was done since the one before.
  const between = (from: number, to: number) => points.filter((x) => x.t >= from && x.t < to);
  const near = (t: number, width = 2) => {
    const close = points.filter((x) => Math.abs(x.t - t) <= width);
    return close.length > 0
      ? mean(close.map((x) => x.p))
      : (points.toSorted((a, b) => Math.abs(a.t - t) - Math.abs(b.t - t))[0]?.p ?? 0);
  };
  const hold = between(record.purgeShutAt, record.ventOpenAt);
  const noise = scatter(hold.length > 4 ? hold.map((x) => x.p) : points.map((x) => x.p));
  const counts = Math.max(LEAST, 4 * noise);
  const before = points.filter((x) => x.t <= record.ventShutAt);
  const start = before.length > 0 ? mean(before.map((x) => x.p)) : (points[0]?.p ?? 0);
  const shut = between(record.ventShutAt, record.purgeOpenAt);
  const creep =
    record.purgeOpenAt - record.ventShutAt >= BASELINE_TIME && shut.length > 1
      ? (shut.at(-1)?.p ?? 0) - (shut[0]?.p ?? 0)
      : undefined;
  const bottom = mean(hold.slice(0, 2).map((x) => x.p));
  const depth = start - Math.min(bottom, near(record.purgeShutAt, 1));
  const end = mean(hold.slice(-2).map((x) => x.p));
  const lost = end - bottom;
  const holdSeconds = (hold.at(-1)?.t ?? 0) - (hold[0]?.t ?? 0);
  const after = between(record.ventOpenAt, record.ventOpenAt + RELIEF_TIME);
  const fromEnd = start - end;
  const relieved = fromEnd > counts && after.length > 0 ? ((after.at(-1)?.p ?? end) - end) / fromEnd : Number.NaN;

  const asked = limits.evapPullDown.value;
  const pullDown: Part = depth >= 0.95 * asked ? "good" : depth <= Math.max(counts, NOTHING * asked) ? "bad" : "unsure";
  const hole =
    pullDown === "bad" || !vehicle.evap
      ? undefined
      : holdHole(record, vehicle.evap, { start, depth, lost, noise, holdSeconds, hold });
  const required = record.required && toSi(record.required.size);
  const holds: Part =
    pullDown === "bad" || holdSeconds < HOLD_TIME
      ? "unsure"
      : lost <= counts
        ? "good"
        : hole && required
          ? hole.low >= required
            ? "bad"
            : hole.high < required
              ? "good"
              : "unsure"
          : lost > 0.5 * depth
            ? "bad"
            : "unsure";
  const relief: Part = Number.isNaN(relieved) ? "unsure" : relieved >= RELIEVED ? "good" : relieved < 0.5 ? "bad" : "unsure";
  return { noise, creep, depth, lost, holdSeconds, ...(hole ? { hole } : {}), relieved, pullDown, hold: holds, relief };
}

/** Scatter of a slowly moving trace: from second differences, which a ramp leaves at zero. */
function scatter(values: readonly number[]): number {
  if (values.length < 4) return 0;
  const second = values.slice(2).map((v, i) => v - 2 * (values[i + 1] as number) + (values[i] as number));
  return Math.sqrt(mean(second.map((d) => d * d)) / 6);
}

function holdHole(
  record: PulldownRecord,
  evap: Parameters<typeof vapourVolume>[0],
  seen: {
    start: number;
    depth: number;
    lost: number;
    noise: number;
    holdSeconds: number;
    hold: readonly { t: number; p: number }[];
  },
): PulldownReading["hole"] {
  const ambient = toSi(record.ambient);
  const temperature = toSi(record.temperature);
  const { volume, sd } = vapourVolume(evap, record.fuelLevel / 100);
  const flux = seen.hold.reduce((sum, x, i) => {
    const next = seen.hold[i + 1];
    if (!next) return sum;
    const below = Math.max(0, seen.start - (x.p + next.p) / 2);
    return sum + massFlux(ambient, ambient - below, temperature) * (next.t - x.t);
  }, 0);
  if (!(flux > 0)) return undefined;
  const pulled = record.purgeShutAt - record.purgeOpenAt;
  // Expansion cooled the gas; what the walls had not given back by the end of the pull comes back in the hold.
  const left = (WALL_TIME / pulled) * (1 - Math.exp(-pulled / WALL_TIME));
  const warmed = fillHeating(temperature, seen.depth, ambient) * left * (1 - Math.exp(-seen.holdSeconds / WALL_TIME));
  const warming = (ambient * warmed) / temperature;
  const size = (rise: number, gas: number) =>
    holeDiameter((gas * Math.max(0, rise)) / (R_AIR * temperature * flux) / SHARP_EDGED);
  const spread = T_95 * seen.noise;
  return {
    diameter: size(seen.lost - warming, volume),
    low: size(seen.lost - 1.4 * warming - spread, volume - T_95 * sd),
    high: size(seen.lost - 0.6 * warming + spread, volume + T_95 * sd),
  };
}

/** From about this size an idling purge cannot keep up with a leak, m. */
const GROSS = 4e-3;

/** Judges a trace: pull-down, hold and relief each by itself; flow with everything shut is the purge valve's. */
export function judgePulldown(record: PulldownRecord, context: CheckContext): Verdict<Seen> {
  const { limits, vehicle } = context;
  if (!record.idled)
    return voidVerdict("This trace proves nothing", "the engine did not idle through it: vacuum changed with the foot");
  const { vent } = record;
  if (vent.by === "command" && vent.at + vent.seconds < record.ventOpenAt) {
    return voidVerdict(
      "This trace proves nothing",
      `the vent command timed out ${formatNumber(record.ventOpenAt - vent.at - vent.seconds, 0)} s before the hold ended: re-arm it, or plug the vent`,
    );
  }
  const read = readPulldown(record, context);
  const inUnit = (pa: number) => fromSi(pa, record.unit);
  const measures: Measure[] = [
    {
      name: "Pull-down",
      value: { ...inUnit(read.depth), kind: "vacuum" },
      limit: `${formatNumber(inUnit(limits.evapPullDown.value).value, 1)} ${record.unit} vacuum`,
      limitSource: limits.evapPullDown.source,
    },
    { name: `Lost in a hold of ${formatNumber(read.holdSeconds, 0)} s`, value: { ...inUnit(read.lost), kind: "vacuum" } },
    ...(Number.isNaN(read.relieved)
      ? []
      : [
          {
            name: `Back ${RELIEF_TIME} s after the vent opened`,
            value: { value: 100 * read.relieved, unit: "%" as const },
            limit: `${100 * RELIEVED} % or more`,
          },
        ]),
    ...(read.hole && read.hole.high > 0
      ? [holeMeasure(read.hole, record.required, "Leak in the hold as one sharp-edged hole (Cd 0.61)")]
      : []),
  ];
  const plugged = vent.by === "plug";
  const pulled = { good: "pulls down", bad: "does not pull down", unsure: "pulls down short of the depth asked for" }[
    read.pullDown
  ];
  const held = { good: "holds", bad: "does not hold", unsure: read.pullDown === "bad" ? "not read" : "not sure" }[read.hold];
  const relieved = {
    good: "relieves at once",
    bad: "does not relieve",
    unsure: read.pullDown === "bad" ? "not read" : "not sure",
  }[read.relief];
  const parts = `Pull-down: ${pulled}. Hold: ${held}. Relief: ${relieved}`;
  const base = { measures, zones: [] };
  const counts = Math.max(LEAST, 4 * read.noise);
  if (read.creep !== undefined && read.creep < -counts) {
    return {
      ...base,
      outcome: "fail",
      headline: `Vacuum comes in with everything shut: purge leaks by`,
      reasons: [
        `pressure fell ${formatNumber(inUnit(-read.creep).value, 2)} ${record.unit} before purge was asked to open`,
        "try the purge valve by itself in both states, cold and warm",
        parts,
      ],
      observation: "pulldown-creeps",
      tested: ["purge-valve"],
    };
  }
  if (read.pullDown === "bad") {
    return {
      ...base,
      outcome: "fail",
      headline: plugged
        ? "No pull-down with the vent plugged by hand"
        : "No pull-down with purge open and the vent commanded shut",
      reasons: plugged
        ? [
            `the vent is out of it: a gross leak (${formatNumber(1000 * GROSS, 0)} mm and more, cap or neck first), or the purge path is blocked or shut`,
            "next: feel for vacuum at the purge line's canister end; with vacuum there smoke finds the gross leak, without it try the purge valve's two states",
            parts,
          ]
        : [
            "vent stuck open, a large leak, or the purge path blocked: this trace cannot tell them apart",
            "next: plug the vent by hand and pull again. It pulls down now: the vent valve did not shut. It still does not: gross leak or purge path",
            parts,
          ],
      observation: plugged ? "pulldown-none-plugged" : "pulldown-none",
    };
  }
  if (read.hold === "good" && read.lost < -counts && read.holdSeconds >= HOLD_TIME) {
    return {
      ...base,
      outcome: "fail",
      headline: "Goes on falling after purge was shut: purge does not close",
      reasons: ["the purge valve leaks by or sticks open: try its two states, cold and warm", parts],
      observation: "pulldown-creeps",
      tested: ["purge-valve"],
    };
  }
  if (read.hold === "bad") {
    return {
      ...base,
      outcome: "fail",
      headline: `Pulls down and does not hold${read.hole ? `: a ${formatNumber(1000 * read.hole.diameter, 2)} mm hole` : ""}`,
      reasons: ["a leak somewhere in the system, or a vent that weeps: plug the vent and hold again, then smoke", parts],
      observation: "pulldown-loses",
    };
  }
  if (read.relief === "bad") {
    return {
      ...base,
      outcome: "fail",
      headline: "Pulls down and holds, but does not relieve: the vent path is blocked",
      reasons: ["vent valve stuck shut, filter or canister clogged: try the path from outside in, part by part", parts],
      observation: "pulldown-no-relief",
      tested: ["vent-valve", "vent-filter"],
    };
  }
  const doubts = [
    read.pullDown === "unsure"
      ? `pulled only ${formatNumber(inUnit(read.depth).value, 1)} ${record.unit}: pull longer; weak vacuum or a leak that eats it`
      : undefined,
    read.holdSeconds < HOLD_TIME ? `hold it for ${HOLD_TIME} s or longer` : undefined,
    read.hold === "unsure"
      ? "what it loses may be a leak of the size to be caught or gas warming up: decay from a hold tells"
      : undefined,
    read.relief === "unsure" ? "watch the relief: open the vent and follow it for 15 s" : undefined,
    fuelLevelDoubt(record, context),
    temperatureDoubt(record, context),
    vehicle.evap ? undefined : "describe the EVAP system: without its volume a loss has no size",
  ].filter((d) => d !== undefined);
  if (doubts.length > 0) {
    return { ...base, outcome: "unsure", headline: parts, reasons: doubts };
  }
  return {
    ...base,
    outcome: "pass",
    headline: plugged ? "Pulls down and holds with the vent plugged by hand, relieves at once" : "Pulls down, holds, relieves",
    reasons: [
      parts,
      ...(plugged ? ["if it did not pull down with the vent commanded shut, the vent valve did not shut"] : []),
      "what the hold can see is coarser than smoke or decay",
    ],
    observation: plugged ? "pulldown-good-plugged" : "pulldown-good",
    tested: plugged ? ["purge-valve"] : ["purge-valve", "vent-valve"],
  };
}
