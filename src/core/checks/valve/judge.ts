import { inSentence } from "../../sentence";
import { formatNumber, toSi } from "../../units";
import { type CheckContext, jointName, type Measure, type Verdict, voidVerdict } from "../check";
import { lossIn60 } from "../hold";
import { instrumentDoubt } from "../instrument";
import type { ValveRecord, ValveState } from "./record";

/** A state that passes has let most of it go by the end. */
const PASSED = 0.5;
/** Least time a closed state must be watched, s. */
const WATCH = 20;

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
export function judgeValve(record: ValveRecord, context: CheckContext): Verdict {
  const { limits, house, layout } = context;
  const name = record.part === "new" ? `New ${inSentence(jointName(layout, record.joint))}` : jointName(layout, record.joint);
  if (record.power === "12v" && !record.unplugged) {
    return voidVerdict(
      `${name}: the test proves nothing`,
      "12 V was put on with the plug still on: the loom fed and loaded it too, and the ECU may have been fed back. Unplug it first, always",
    );
  }
  const division = Math.abs(toSi(record.instrument.division) / toSi({ value: 1, unit: record.unit }));
  const limit = limits.holdLoss.value;
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
  const about = (observation: string) => (fitted ? { observation, tested: [record.joint] } : {});
  const joint = layout.joints.find((j) => j.id === record.joint);
  const click = record.clicked ? "it clicks: that proves the coil, not the seat" : "it does not click: try the circuit first";
  const cure =
    house.weakValve === "clean"
      ? "house method: clean it and test again; cleaning is a temporary repair with a re-check date"
      : "house method: replace it; the new part passes the same test on the bench before it is fitted";
  const base = { measures, zones: [] };
  if (shut !== "holds") {
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
        record.clicked ? "stuck or blocked inside" : "dead coil or dead circuit: measure across it",
        fitted ? cure : "do not fit it",
      ],
      ...about(`valve-stuck:${record.joint}`),
    };
  }
  const doubt = instrumentDoubt(record.instrument, limit * toSi({ value: closedState.start, unit: record.unit }), limits);
  if (doubt || loss.high > limit || closedState.seconds < WATCH) {
    return {
      ...base,
      outcome: "unsure",
      headline: `${name} switches; whether its seat holds is not sure yet`,
      reasons: [doubt ?? `hold it ${closedName} for 60 s or longer: ${formatNumber(100 * limit, 0)} % is the limit`],
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
