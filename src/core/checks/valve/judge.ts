import { inSentence } from "../../sentence";
import { formatNumber, type Quantity, toSi } from "../../units";
import type { CheckContext } from "../context";
import { type Loss, lossIn60, lostIn } from "../hold";
import { lossDoubt } from "../instrument";
import { trappedHole, trappedMeasure, weepsFarBelow, weepsLike } from "../trapped";
import { jointName, type Measure, type Verdict, voidVerdict, WITHIN } from "../verdict";
import type { ValveRecord, ValveState } from "./fields";
import type { Seen } from "./rows";

/** A state that passes has let most of it go by the end. */
const PASSED = 0.5;
/** Least time a closed state must be watched, s. */
const WATCH = 20;

/** The hole that a closed state's loss makes in a known gas space. */
const holeOf = (volume: Quantity | undefined, state: ValveState, loss: Loss, unit: ValveRecord["unit"]) =>
  volume && trappedHole(volume, -toSi({ value: state.start, unit }), state.seconds, lostIn(loss, state.seconds));

export type Reading = "holds" | "weeps" | "passes";

/** Verdict on one state: holds within the limit, passes most of it, or weeps in between. */
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

/** The state that must hold and the one that must pass, with what each is called. */
function statesOf(record: ValveRecord) {
  const closed = record.rests === "closed";
  return {
    shut: closed ? record.rest : record.energised,
    open: closed ? record.energised : record.rest,
    shutName: closed ? "at rest" : "energised",
    openName: closed ? "energised" : "at rest",
  };
}

/** Largest pressure of a hand pump, either way, Pa. */
const MOST_ON_IT = 200e3;

/** The trap that the test fell into; undefined when there is none. */
function trapOf(record: ValveRecord, division: number, name: string, { layout }: CheckContext): Verdict<Seen> | undefined {
  // One on the bench hangs on no loom.
  if (record.power === "12v" && record.part !== "new" && !record.unplugged) {
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
  const most = Math.max(...[record.rest, record.energised].map((s) => toSi({ value: s?.start ?? 0, unit: record.unit })));
  if (most > MOST_ON_IT)
    return voidVerdict(`${name}: the reading cannot be`, "no hand pump puts so much on a valve: look at unit and gauge");
  const rose = [record.rest, record.energised].some((s) => s && s.end > s.start + 1.01 * division);
  return rose
    ? voidVerdict(
        `${name}: the reading cannot be`,
        "what was put on it rose by itself: it was pumped up in between, or the gauge stuck",
      )
    : undefined;
}

const clickOf = ({ clicked }: ValveRecord) =>
  clicked === undefined
    ? "whether it clicks was not written down"
    : clicked
      ? "it clicks: that proves the coil, not the seat"
      : "it does not click: try the circuit first";

const CURES = {
  clean: "house method: clean it and test again; cleaning is a temporary repair with a re-check date",
  replace: "house method: replace it; the new part passes the same test on the bench before it is fitted",
} as const;

/** Verdict by repeated commands and the third port: either decides by itself. */
function switchingFault(record: ValveRecord, name: string, cure: string): Verdict<Seen> | undefined {
  const missed = record.cycles?.find((c) => c.shut < c.commanded || c.passed < c.commanded || c.released < c.commanded);
  const base = { outcome: "fail" as const, measures: [], zones: [] };
  if (missed) {
    const [what, often] =
      missed.shut < missed.commanded
        ? ["shut", missed.shut]
        : missed.passed < missed.commanded
          ? ["passed", missed.passed]
          : ["released", missed.released];
    return {
      ...base,
      headline: `${name} ${what} only ${often} of ${missed.commanded} times, ${missed.temperature}`,
      reasons: ["one good cycle proves one cycle: it sticks now and then", cure],
      observation: what === "shut" ? `valve-leaks:${record.joint}` : `valve-stuck:${record.joint}`,
    };
  }
  if (record.vents !== false) return undefined;
  return {
    ...base,
    headline: `${name} does not let go: its vent port is blocked`,
    reasons: ["what it works stays pulled after it is released: clear or renew its vent filter, then the valve", clickOf(record)],
    observation: `valve-stuck:${record.joint}`,
  };
}

/** The state that must hold, as it was read: its loss, and where the gas space is known the hole that it comes through. */
function seatOf(record: ValveRecord, division: number, { limits }: CheckContext) {
  const { shut, shutName } = statesOf(record);
  if (!shut) return undefined;
  const loss = lossIn60(
    [
      [0, shut.start],
      [shut.seconds, shut.end],
    ],
    division,
  );
  const hole = holeOf(record.volume, shut, loss, record.unit);
  const caught = limits.caughtManifold;
  const measures: Measure[] = [
    {
      name: `Loses in 60 s, ${shutName}`,
      value: { value: 100 * loss.share, unit: "%" },
      low: 100 * loss.low,
      high: 100 * loss.high,
      limit: `${formatNumber(100 * limits.holdLoss.value, 0)} % in 60 s where it must hold`,
      limitSource: limits.holdLoss.source,
    },
    ...(hole
      ? [
          trappedMeasure(hole, {
            limit: `${formatNumber(1000 * caught.value, 1)} mm must be caught`,
            limitSource: caught.source,
          }),
        ]
      : []),
  ];
  return {
    state: shut,
    loss,
    hole,
    measures,
    reads: readState(shut, division, limits.holdLoss.value),
    // With the gas space known the loss is a hole: one far below what anything asks for is not what set a code.
    weeps: hole !== undefined && weepsFarBelow(hole, lostIn(loss, shut.seconds), caught.value),
  };
}

/**
 * Judges a valve's two states. One of them alone decides where it is bad; both are needed for a pass. A click proves the
 * coil, not the seat; a new part says nothing about the car.
 */
export function judgeValve(record: ValveRecord, context: CheckContext): Verdict<Seen> {
  const { limits, house, layout } = context;
  const fitted = record.part === "fitted";
  const name = fitted ? jointName(layout, record.joint) : `New ${inSentence(jointName(layout, record.joint))}`;
  const division = Math.abs(toSi(record.instrument.division) / toSi({ value: 1, unit: record.unit }));
  const trap = trapOf(record, division, name, context);
  if (trap) return trap;
  const { open, shutName, openName } = statesOf(record);
  const cure = fitted ? CURES[house.weakValve] : "do not fit it";
  const seat = seatOf(record, division, context);
  const measures = seat?.measures ?? [];
  const about = (observation: Seen) => (fitted ? { observation, tested: [record.joint] } : {});
  const switching = switchingFault(record, name, cure);
  if (switching) {
    const { observation, ...said } = switching;
    return { ...said, measures, ...(observation ? about(observation) : {}) };
  }
  const base = { measures, zones: [] };
  const click = clickOf(record);
  if (seat && seat.reads !== "holds" && !seat.weeps) {
    const joint = layout.joints.find((j) => j.id === record.joint);
    return {
      ...base,
      outcome: "fail",
      headline: `${name} leaks ${shutName}, where it must hold`,
      reasons: [
        click,
        cure,
        ...(record.temperature === "warm" ? [] : ["cold; warm it may hold: temperature belongs to the finding"]),
      ],
      ...about(`valve-leaks:${record.joint}`),
      ...(fitted && joint
        ? { zones: [{ zone: joint.from, state: "leaking", joint: joint.id, why: `leaks by ${shutName}` }] }
        : {}),
    };
  }
  if (open && readState(open, division, limits.holdLoss.value) !== "passes") {
    return {
      ...base,
      outcome: "fail",
      headline: `${name} does not open ${openName}`,
      reasons: [
        click,
        record.clicked === false ? "dead coil or dead circuit: measure across it" : "stuck or blocked inside",
        cure,
      ],
      ...about(`valve-stuck:${record.joint}`),
    };
  }
  if (!seat || !open) {
    const [did, owed] = seat ? [`holds ${shutName}`, `passes ${openName}`] : [`passes ${openName}`, `holds ${shutName}`];
    return {
      ...base,
      outcome: "unsure",
      headline: `${name} ${did}; whether it ${owed} was not tried`,
      reasons: ["one state alone decides only where it is bad: read the other one too"],
    };
  }
  const { loss, hole, weeps, state } = seat;
  const limit = limits.holdLoss.value;
  const start = toSi({ value: state.start, unit: record.unit });
  const doubt = lossDoubt(record.instrument, { start, limit, seconds: state.seconds }, limits);
  if (doubt || (loss.high > limit && !weeps) || state.seconds < WATCH) {
    return {
      ...base,
      outcome: "unsure",
      headline: `${name} switches; whether its seat holds is not sure yet`,
      reasons: [doubt ?? `hold it ${shutName} for 60 s or longer: ${formatNumber(100 * limit, 0)} % is the limit`],
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
