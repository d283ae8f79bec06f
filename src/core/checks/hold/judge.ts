import { formatNumber, fromSi, toSi } from "../../units";
import { type CheckContext, jointName, type Measure, type Verdict, voidVerdict, type ZoneKnowledge } from "../check";
import { instrumentDoubt } from "../instrument";
import { type Loss, lossIn60 } from "./loss";
import { HOLD_PART_NAMES, type HoldRecord } from "./record";

/** Least time a part that seems to hold must be watched, s. */
const WATCH = 30;
/** Least vacuum a hold is worth anything at, share of what an idling engine supplies. */
const ENOUGH = 0.6;

/** Judges a hold: still first, then under the wiggle; a part that holds until wiggled is intermittent, which is a fault. */
export function judgeHold(record: HoldRecord, context: CheckContext): Verdict {
  const { limits, layout } = context;
  const name = jointName(layout, record.joint);
  const division = Math.abs(toSi(record.instrument.division) / toSi({ value: 1, unit: record.unit }));
  const start = toSi({ value: (record.still[0] as readonly [number, number])[1], unit: record.unit });
  if (start < ENOUGH * limits.actuatorSupply.value && !(record.moved === false)) {
    const needed = fromSi(ENOUGH * limits.actuatorSupply.value, record.unit);
    return voidVerdict(
      `Too little vacuum to judge ${name}`,
      `pump to ${formatNumber(needed.value, 0)} ${record.unit} vacuum or more: a part that is hardly sucked hardly leaks`,
    );
  }
  const still = lossIn60(record.still, division);
  const wiggled = record.wiggled.length >= 2 ? lossIn60(record.wiggled, division) : undefined;
  const limit = limits.holdLoss.value;
  const measures: Measure[] = [
    measureOf("Loses in 60 s, left alone", still, limit, limits.holdLoss.source),
    ...(wiggled ? [measureOf("Loses in 60 s, wiggled", wiggled, limit, limits.holdLoss.source)] : []),
    ...(record.strokes === undefined
      ? []
      : [{ name: "Moves after", value: { value: record.strokes, unit: "strokes" as const } }]),
  ];
  const joint = layout.joints.find((j) => j.id === record.joint);
  const leaking = (why: string): ZoneKnowledge[] => (joint ? [{ zone: joint.from, state: "leaking", joint: joint.id, why }] : []);
  const doubt = instrumentDoubt(record.instrument, limit * start, limits);
  const part = HOLD_PART_NAMES[record.part].toLowerCase();

  if (still.low > limit) {
    return {
      outcome: "fail",
      headline: `${name} does not hold: loses ${percent(still)} in 60 s`,
      measures,
      reasons: ["take pipe and part apart and hold each by itself: the one that falls is the one"],
      observation: `hold-leaks:${record.joint}`,
      tested: [record.joint],
      zones: leaking("loses its vacuum left alone"),
    };
  }
  if (wiggled && wiggled.low > limit) {
    return {
      outcome: "fail",
      headline: `${name} holds until it is wiggled: intermittent`,
      measures,
      reasons: [
        `left alone it loses ${percent(still)} in 60 s, with the pipe ends wiggled ${percent(wiggled)}`,
        "a crack or a loose end that opens as it moves: cut back or renew the pipe, and wiggle again",
      ],
      observation: `hold-leaks:${record.joint}`,
      tested: [record.joint],
      zones: leaking("holds until it is wiggled"),
    };
  }
  if (record.moved === false || record.freeByHand === false) {
    return {
      outcome: "fail",
      headline:
        record.freeByHand === false
          ? `${name} holds, but its lever is stiff by hand`
          : `${name} holds and does not move: look at lever and shaft`,
      measures,
      reasons: ["the vacuum is there and the part does not follow: what it drives is stuck, not the diaphragm"],
      observation: `hold-stuck:${record.joint}`,
      tested: [record.joint],
      zones: [],
    };
  }
  if (doubt) return { outcome: "unsure", headline: "The gauge cannot carry a verdict", measures, reasons: [doubt], zones: [] };
  if (still.high > limit || still.seconds < WATCH) {
    return {
      outcome: "unsure",
      headline: still.seconds < WATCH ? `Watched for ${formatNumber(still.seconds, 0)} s only` : "At the limit: watch it longer",
      measures,
      reasons: [`watch it for 60 s or longer: ${formatNumber(100 * limit, 0)} % in 60 s is the limit`],
      zones: [],
    };
  }
  if (!wiggled) {
    return {
      outcome: "unsure",
      headline: `${name} holds left alone; not wiggled yet`,
      measures,
      reasons: ["intermittent leaks show only under the wiggle: work the pipe ends while it holds"],
      zones: [],
    };
  }
  if (wiggled.high > limit) {
    return {
      outcome: "unsure",
      headline: "At the limit while wiggled: watch it longer",
      measures,
      reasons: [`wiggle for 30 s or longer: ${formatNumber(100 * limit, 0)} % in 60 s is the limit`],
      zones: [],
    };
  }
  const slow = record.strokes !== undefined && record.strokes > limits.holdStrokes.value;
  if (slow) {
    return {
      outcome: "unsure",
      headline: `${name} holds, but moves only after ${record.strokes} strokes`,
      measures,
      reasons: [
        `a healthy ${part} moves within the first ${limits.holdStrokes.value} (${limits.holdStrokes.source}): feel its lever, look for a kinked pipe`,
      ],
      zones: [],
    };
  }
  return {
    outcome: "pass",
    headline: `${name} holds, still and wiggled`,
    measures,
    reasons: record.part === "actuator" && record.moved === undefined ? ["whether it moves was not written down"] : [],
    observation: "hold-good",
    tested: [record.joint],
    zones: joint ? [{ zone: joint.from, state: "reached", why: `${name} held vacuum, still and wiggled` }] : [],
  };
}

const percent = (loss: Loss) => `${formatNumber(100 * loss.share, 0)} %`;

const measureOf = (name: string, loss: Loss, limit: number, source: string): Measure => ({
  name,
  value: { value: 100 * loss.share, unit: "%" },
  low: 100 * loss.low,
  high: 100 * loss.high,
  limit: `${formatNumber(100 * limit, 0)} % in 60 s, still and wiggled`,
  limitSource: source,
});
