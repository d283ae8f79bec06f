import { inSentence } from "../../sentence";
import { formatNumber, type Quantity, toSi } from "../../units";
import { type CheckContext, jointName, type Measure, type Verdict, voidVerdict, WITHIN } from "../check";
import { type Loss, lossIn60, lostIn } from "../hold";
import { lossDoubt } from "../instrument";
import { trappedHole, trappedMeasure, weepsFarBelow, weepsLike } from "../trapped";
import type { ValveRecord, ValveState } from "./record";
import type { Seen } from "./rows";

/** A state that passes has let most of it go by the end. */
const PASSED = 0.5;
/** Least time a closed state must be watched, s. */
const WATCH = 20;

/** The hole that a closed state's loss makes in a known gas space. */
const holeOf = (volume: Quantity | undefined, state: ValveState, loss: Loss, unit: ValveRecord["unit"]) =>
  volume && trappedHole(volume, -toSi({ value: state.start, unit }), state.seconds, lostIn(loss, state.seconds));

export type Reading = "holds" | "weeps" | "passes";

/** What one state did: holds within the limit, passes most of it, or weeps in between. */
export function readState(state: ValveState, division: number, limit: number): Reading {
  if (state.end <= (1 - PASSED) * state.start) return "passes";
  const loss = lossIn60(
    [
      [0, state.start],
      [state.seconds, state.end],
    ],
    division,
  );
  return loss.low > limit ? "weeps" : "holds";
}

/** Judges a valve's two states. A click proves the coil, not the seat; a new part says nothing about the car. */
export function judgeValve(record: ValveRecord, context: CheckContext): Verdict<Seen> {
  const { limits, house, layout } = context;
  const name = record.part === "new" ? `New ${inSentence(jointName(layout, record.joint))}` : jointName(layout, record.joint);
  if (record.power === "12v" && !record.unplugged) {
    return voidVerdict(
      `${name}: the test proves nothing`,
      "12 V was put on with the plug still on: the loom fed and loaded it too, and the ECU may have been fed back. Unplug it first, always",
    );
  }
  const rests = layout.joints.find((j) => j.id === record.joint)?.rest;
  if (record.part === "fitted" && (rests === "open" || rests === "closed") && rests !== record.rests) {
    return voidVerdict(
      `${name}: the test proves nothing`,
      `it rests ${rests} on this car, and was read as if it rested ${record.rests}: rest and energised are the wrong way round`,
    );
  }
  const division = Math.abs(toSi(record.instrument.division) / toSi({ value: 1, unit: record.unit }));
  const limit = limits.holdLoss.value;
  const rose = [record.rest, record.energised].find((s) => s.end > s.start + 1.01 * division);
  if (rose)
    return voidVerdict(
      `${name}: the reading cannot be`,
      "what was put on it rose by itself: it was pumped up in between, or the gauge stuck",
    );
  const rest = readState(record.rest, division, limit);
  const energised = readState(record.energised, division, limit);
  const [shut, open] = record.rests === "closed" ? [rest, energised] : [energised, rest];
  const closedState = record.rests === "closed" ? record.rest : record.energised;
  const closedName = record.rests === "closed" ? "at rest" : "energised";
  const openName = record.rests === "closed" ? "energised" : "at rest";
  const loss = lossIn60(
    [
      [0, closedState.start],
      [closedState.seconds, closedState.end],
    ],
    division,
  );
  const measures: Measure[] = [
    {
      name: `Loses in 60 s, ${closedName}`,
      value: { value: 100 * loss.share, unit: "%" },
      low: 100 * loss.low,
      high: 100 * loss.high,
      limit: `${formatNumber(100 * limit, 0)} % in 60 s where it must hold`,
      limitSource: limits.holdLoss.source,
    },
  ];
  const fitted = record.part === "fitted";
  const about = (observation: Seen) => (fitted ? { observation, tested: [record.joint] } : {});
  const joint = layout.joints.find((j) => j.id === record.joint);
  const click =
    record.clicked === undefined
      ? "whether it clicks was not written down"
      : record.clicked
        ? "it clicks: that proves the coil, not the seat"
        : "it does not click: try the circuit first";
  const cure =
    house.weakValve === "clean"
      ? "house method: clean it and test again; cleaning is a temporary repair with a re-check date"
      : "house method: replace it; the new part passes the same test on the bench before it is fitted";
  const base = { measures, zones: [] };
  const missed = record.cycles?.find((c) => c.shut < c.commanded || c.passed < c.commanded || c.released < c.commanded);
  if (missed) {
    const [what, often] =
      missed.shut < missed.commanded
        ? ["shut", missed.shut]
        : missed.passed < missed.commanded
          ? ["passed", missed.passed]
          : ["released", missed.released];
    return {
      ...base,
      outcome: "fail",
      headline: `${name} ${what} only ${often} of ${missed.commanded} times, ${missed.temperature}`,
      reasons: ["one good cycle proves one cycle: it sticks now and then", fitted ? cure : "do not fit it"],
      ...about(what === "shut" ? `valve-leaks:${record.joint}` : `valve-stuck:${record.joint}`),
    };
  }
  if (record.vents === false) {
    return {
      ...base,
      outcome: "fail",
      headline: `${name} does not let go: its venting port is blocked`,
      reasons: ["what it works stays pulled after it is released: clear or renew its vent filter, then the valve", click],
      ...about(`valve-stuck:${record.joint}`),
    };
  }
  const hole = holeOf(record.volume, closedState, loss, record.unit);
  if (hole) {
    const caught = limits.caughtManifold;
    measures.push(
      trappedMeasure(hole, {
        limit: `${formatNumber(1000 * caught.value, 1)} mm must be caught`,
        limitSource: caught.source,
      }),
    );
  }
  // With the gas space known the loss is a hole: one far below what anything asks for is not what set a code.
  const weeps = hole !== undefined && weepsFarBelow(hole, lostIn(loss, closedState.seconds), limits.caughtManifold.value);
  if (shut !== "holds" && !weeps) {
    return {
      ...base,
      outcome: "fail",
      headline: `${name} leaks ${closedName}, where it must hold`,
      reasons: [
        click,
        fitted ? cure : "do not fit it",
        ...(record.temperature === "warm" ? [] : ["cold; warm it may hold: temperature belongs to the finding"]),
      ],
      ...about(`valve-leaks:${record.joint}`),
      ...(fitted && joint
        ? { zones: [{ zone: joint.from, state: "leaking", joint: joint.id, why: `leaks by ${closedName}` }] }
        : {}),
    };
  }
  if (open !== "passes") {
    return {
      ...base,
      outcome: "fail",
      headline: `${name} does not open ${openName}`,
      reasons: [
        click,
        record.clicked === false ? "dead coil or dead circuit: measure across it" : "stuck or blocked inside",
        fitted ? cure : "do not fit it",
      ],
      ...about(`valve-stuck:${record.joint}`),
    };
  }
  const start = toSi({ value: closedState.start, unit: record.unit });
  const doubt = lossDoubt(record.instrument, { start, limit, seconds: closedState.seconds }, limits);
  if (doubt || (loss.high > limit && !weeps) || closedState.seconds < WATCH) {
    return {
      ...base,
      outcome: "unsure",
      headline: `${name} switches; whether its seat holds is not sure yet`,
      reasons: [doubt ?? `hold it ${closedName} for 60 s or longer: ${formatNumber(100 * limit, 0)} % is the limit`],
    };
  }
  if (hole && loss.high > limit) {
    return {
      ...base,
      outcome: "pass",
      word: WITHIN,
      headline: weepsLike(name, hole),
      reasons: [`tested ${record.temperature}; loses ${formatNumber(100 * loss.share, 0)} % in 60 s of a small gas space`],
      ...(fitted ? { tested: [record.joint] } : {}),
    };
  }
  return {
    ...base,
    outcome: "pass",
    headline: `${name} holds where it must and passes where it must`,
    reasons: [
      `tested ${record.temperature}; a seat can hold ${record.temperature} and leak ${record.temperature === "warm" ? "cold" : "warm"}`,
    ],
    ...about(record.temperature === "warm" && record.joint === "purge-valve" ? "valve-good-warm" : "valve-good"),
  };
}
