import { formatNumber, fromSi, toSi } from "../../units";
import type { CheckContext } from "../context";
import { lossDoubt, rises } from "../instrument";
import { trappedHole, trappedMeasure, weepsFarBelow, weepsLike } from "../trapped";
import { jointName, type Measure, type Verdict, voidVerdict, WITHIN, type ZoneKnowledge } from "../verdict";
import { HOLD_PART_NAMES, type HoldRecord } from "./fields";
import { type Loss, lossIn60, lostIn } from "./loss";
import type { Seen } from "./rows";

/** Least time a part that seems to hold must be watched, s. */
const WATCH = 30;
/** Least vacuum a hold is worth anything at, share of what an idling engine supplies. */
const ENOUGH = 0.6;

/** No air outside holds more than this, Pa. */
const MOST_VACUUM = 103e3;
/** The larger of the holes that both holds make, with what was lost through it; undefined without a gas space. */
function holeOf({ volume, still: samples, wiggled: moved, unit }: HoldRecord, still: Loss, wiggled: Loss | undefined) {
  if (!volume) return undefined;
  const of = (list: HoldRecord["still"], loss: Loss) => {
    const start = toSi({ value: (list[0] as readonly [number, number])[1], unit });
    const lost = lostIn(loss, loss.seconds);
    return { ...trappedHole(volume, -start, loss.seconds, lost), lost };
  };
  const both = [of(samples, still), ...(wiggled ? [of(moved, wiggled)] : [])].toSorted((a, b) => b.diameter - a.diameter);
  const [larger] = both as [ReturnType<typeof of>];
  // What ran empty in either hold was not watched in it.
  return { ...larger, lost: { ...larger.lost, high: Math.max(...both.map((h) => h.lost.high)) } };
}

/** Measured values: the losses against the shop's limit, the strokes, and the hole where the gas space is known. */
function holdMeasures(
  record: HoldRecord,
  [still, wiggled]: readonly [ReturnType<typeof lossIn60>, ReturnType<typeof lossIn60> | undefined],
  hole: ReturnType<typeof holeOf>,
  { holdLoss, caughtVacuum }: CheckContext["limits"],
): Measure[] {
  const loss = (name: string, of: ReturnType<typeof lossIn60>) => measureOf(name, of, holdLoss.value, holdLoss.source);
  return [
    loss("Loses in 60 s, left alone", still),
    ...(wiggled ? [loss("Loses in 60 s, wiggled", wiggled)] : []),
    ...(record.strokes === undefined
      ? []
      : [{ name: "Moves after", value: { value: record.strokes, unit: "strokes" as const } }]),
    ...(record.startsAt ? [{ name: "Starts to move at", value: { ...record.startsAt, kind: "vacuum" as const } }] : []),
    ...(record.fullAt ? [{ name: "Fully drawn in at", value: { ...record.fullAt, kind: "vacuum" as const } }] : []),
    ...(hole
      ? [
          trappedMeasure(hole, {
            limit: `${formatNumber(1000 * caughtVacuum.value, 1)} mm must be caught`,
            limitSource: caughtVacuum.source,
          }),
        ]
      : []),
  ];
}

/** How it moves, where that is a fault of its own: slow, sticky or short, or held back by a port that does not vent. */
function travelFault({ reach, back, venting }: HoldRecord, name: string): Pick<Verdict, "headline" | "reasons"> | undefined {
  if (venting === "blocked")
    return {
      headline: `${name}: the vent port does not vent`,
      reasons: ["what it works stays drawn in after it is released: clear or renew the solenoid's vent filter, then look again"],
    };
  if (back === "sticks" || back === "slow")
    return {
      headline: `${name} ${back === "sticks" ? "sticks on its way back" : "goes back slowly"}`,
      reasons: [
        "it holds, and what it drives does not follow freely: spindle, vanes or lever, cleaned or renewed; a vent that lets air in slowly does the same",
      ],
    };
  if (reach === "short")
    return {
      headline: `${name} does not come all the way`,
      reasons: ["full vacuum and short travel: carbon in what it drives, a bent rod, or a preload that was turned"],
    };
  return undefined;
}

/** With a branch shut off it is diagnosis of the branches: read together, and no word of the supply by itself. */
export function judgeHold(record: HoldRecord, context: CheckContext): Verdict<Seen> {
  const verdict = judgeHeld(record, context);
  if (!record.isolated || record.isolated.length === 0 || verdict.outcome === "void") return verdict;
  const { observation: _, zones: __, ...rest } = verdict;
  const names = record.isolated.map((id) => jointName(context.layout, id)).join(" and ");
  return { ...rest, zones: [], headline: `${verdict.headline}, with ${names} shut off` };
}

/** Why a part that holds left alone is not cleared by its wiggle; undefined where it is. */
function notWiggled(
  { joint, wiggled: samples, unit }: HoldRecord,
  wiggled: Loss | undefined,
  weeps: boolean,
  { limits, layout }: CheckContext,
): Pick<Verdict, "headline" | "reasons"> | undefined {
  const name = jointName(layout, joint);
  if (!wiggled)
    return {
      headline: `${name} holds left alone; not wiggled yet`,
      reasons: ["intermittent leaks show only under the wiggle: work the pipe ends while it holds"],
    };
  const enough = ENOUGH * limits.actuatorSupply.value;
  if (toSi({ value: (samples[0] as readonly [number, number])[1], unit }) < enough)
    return {
      headline: `${name} holds left alone; wiggled at too little vacuum`,
      reasons: [
        `too little vacuum hides a leak: pump it up to ${formatNumber(fromSi(enough, unit).value, 0)} ${unit} vacuum or more, then wiggle`,
      ],
    };
  if (wiggled.high > limits.holdLoss.value && !weeps)
    return {
      headline: "At the limit while wiggled: watch it longer",
      reasons: [`wiggle for 30 s or longer: ${formatNumber(100 * limits.holdLoss.value, 0)} % in 60 s is the limit`],
    };
  return undefined;
}

/** Judges a hold: still first, then under the wiggle; a part that holds until wiggled is intermittent, which is a fault. */
function judgeHeld(record: HoldRecord, context: CheckContext): Verdict<Seen> {
  const { limits, layout } = context;
  const name = jointName(layout, record.joint);
  const division = Math.abs(toSi(record.instrument.division) / toSi({ value: 1, unit: record.unit }));
  const start = toSi({ value: (record.still[0] as readonly [number, number])[1], unit: record.unit });
  if (start < ENOUGH * limits.actuatorSupply.value && !(record.moved === false)) {
    const needed = fromSi(ENOUGH * limits.actuatorSupply.value, record.unit);
    return voidVerdict(
      `Too little vacuum to judge ${name}`,
      `pump to ${formatNumber(needed.value, 0)} ${record.unit} vacuum or more: too little vacuum hides a leak`,
    );
  }
  const top = Math.max(...[...record.still, ...record.wiggled].map((s) => s[1]));
  if (toSi({ value: top, unit: record.unit }) > MOST_VACUUM)
    return voidVerdict(`${name}: the reading cannot be`, "more vacuum than the air outside has pressure: look at unit and gauge");
  const rose = rises(record.still, division) ?? rises(record.wiggled, division);
  if (rose) return voidVerdict(`${name}: the reading cannot be`, rose);
  const still = lossIn60(record.still, division);
  const wiggled = record.wiggled.length >= 2 ? lossIn60(record.wiggled, division) : undefined;
  const limit = limits.holdLoss.value;
  const joint = layout.joints.find((j) => j.id === record.joint);
  const leaking = (why: string): ZoneKnowledge[] => (joint ? [{ zone: joint.from, state: "leaking", joint: joint.id, why }] : []);
  const doubt = lossDoubt(record.instrument, { start, limit, seconds: still.seconds }, limits);
  const hole = holeOf(record, still, wiggled);
  const measures = holdMeasures(record, [still, wiggled], hole, limits);
  // With the gas space known the loss is a hole: one far below what anything asks for is not what set a code.
  const weeps = hole !== undefined && weepsFarBelow(hole, hole.lost, limits.caughtVacuum.value);
  const part = HOLD_PART_NAMES[record.part].toLowerCase();

  if (still.low > limit && !weeps) {
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
  if (wiggled && wiggled.low > limit && !weeps) {
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
  const travel = travelFault(record, name);
  if (travel)
    return { outcome: "fail", measures, observation: `hold-stuck:${record.joint}`, tested: [record.joint], zones: [], ...travel };
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
  if (doubt && still.seconds >= WATCH)
    return { outcome: "unsure", headline: "Gauge not usable: zero or division", measures, reasons: [doubt], zones: [] };
  if ((still.high > limit && !weeps) || still.seconds < WATCH) {
    return {
      outcome: "unsure",
      headline: still.seconds < WATCH ? `Watched for ${formatNumber(still.seconds, 0)} s only` : "At the limit: watch it longer",
      measures,
      reasons: [`watch it for 60 s or longer: ${formatNumber(100 * limit, 0)} % in 60 s is the limit`],
      zones: [],
    };
  }
  const open = notWiggled(record, wiggled, weeps, context);
  if (open) return { outcome: "unsure", measures, zones: [], ...open };
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
  if (hole && Math.max(still.high, wiggled?.high ?? 0) > limit) {
    return {
      outcome: "pass",
      word: WITHIN,
      headline: weepsLike(name, hole),
      measures,
      reasons: [
        `loses ${percent(still)} in 60 s of a small gas space; ${formatNumber(1000 * limits.caughtVacuum.value, 1)} mm must be caught`,
      ],
      tested: [record.joint],
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
