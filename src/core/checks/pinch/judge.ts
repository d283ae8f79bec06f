import { formatNumber } from "../../units";
import type { Layout } from "../../vehicle";
import type { CheckContext } from "../context";
import { jointName, type Measure, type Verdict, voidVerdict, type ZoneKnowledge } from "../verdict";
import type { PinchReads, PinchRecord } from "./fields";
import type { Seen } from "./rows";

/** Joints that lie behind a pinched or capped place: the hose itself, its zone's seals, and the valve between. */
export function behind(layout: Layout, id: string): string[] {
  const joint = layout.joints.find((j) => j.id === id);
  if (!joint?.feeds) return [id];
  const zone = joint.feeds;
  return [
    id,
    ...layout.joints
      .filter((j) => (j.from === zone && (j.kind === "seal" || j.kind === "valve")) || (j.to === zone && j.kind === "valve"))
      .map((j) => j.id),
  ];
}

const UNITS_OF: Record<PinchReads, string | undefined> = { trim: "%", rpm: "rpm", flow: undefined, vacuum: undefined };

/** Judges a shut-off branch by what recovers: all of it, part of it, or nothing. */
export function judgePinch(record: PinchRecord, context: CheckContext): Verdict<Seen> {
  const { limits, layout } = context;
  const name = jointName(layout, record.joint);
  const unit = UNITS_OF[record.reads] ?? record.unit ?? "";
  const change = record.shut - record.before;
  const back = record.released - record.before;
  const decimals = record.reads === "rpm" ? 0 : 1;
  const show = (x: number) => `${formatNumber(x, decimals)} ${unit}${record.reads === "vacuum" ? " vacuum" : ""}`;
  const measures: Measure[] =
    record.reads === "trim"
      ? [
          { name: "Total trim before", value: { value: record.before, unit: "%" }, signed: true },
          { name: "Total trim while shut off", value: { value: record.shut, unit: "%" }, signed: true },
        ]
      : [];
  // Which way is better: trims and flow fall, a high idle falls, vacuum rises.
  const gain = record.reads === "vacuum" ? change : -change;
  const least =
    record.reads === "trim"
      ? 100 * limits.probeTrim.value
      : record.reads === "rpm"
        ? limits.probeRpm.value
        : Math.max(Math.abs(record.before) * 0.1, 1e-6);
  const moved = gain >= least;
  const bypass = layout.joints.find((j) => j.id === record.joint)?.weeps;
  if (bypass && record.reads === "trim")
    return voidVerdict(
      `${name} carries metered air`,
      "trims say nothing of it: watch idle speed, or the flow ball of a smoke run, with it plugged and open",
    );
  if ((record.reads === "flow" || record.reads === "vacuum") && !(record.before > 0))
    return voidVerdict(
      `Nothing to recover at ${name}`,
      `the ${record.reads} stood at nothing before it was shut off: read it while it shows the fault`,
    );
  const words = `${show(record.before)} → ${show(record.shut)}, released ${show(record.released)}`;
  if (!moved && !record.blankProved) {
    return voidVerdict(
      record.blankProved === false
        ? `Nothing changed at ${name}, but the blank was never proved`
        : `Nothing changed at ${name}, and nobody said that the blank was proved`,
      `a clamp or cap that weeps shows no recovery either: prove it first, then repeat (${words})`,
    );
  }
  const tested = behind(layout, record.joint);
  const apart =
    !moved &&
    (Math.abs(back) >= least ? "did not come back to where it stood" : gain <= -least ? "got worse with it shut off" : undefined);
  if (apart)
    return {
      outcome: "unsure",
      headline: `It ${apart}: something else changed`,
      measures,
      reasons: [words, "hold engine speed and load, and do it again, on and off twice"],
      zones: [],
    };
  if (!moved) {
    return {
      outcome: "pass",
      headline: `No change with ${name} shut off: the leak is not there`,
      measures,
      reasons: [words, "the blank was proved, so what is behind it is cleared"],
      observation: "pinch-no-change",
      tested,
      zones: [],
    };
  }
  if (Math.abs(back) > Math.abs(change) / 2) {
    return {
      outcome: "unsure",
      headline: "It changed, but did not come back on release",
      measures,
      reasons: [words, "something else changed meanwhile: repeat, on and off twice"],
      zones: [],
    };
  }
  const high = limits.idleSpeed.value + limits.idleAbove.value;
  // It passes air by design: only an idle that is too high, and is not with it plugged, is its doing.
  if (bypass && !(record.reads === "rpm" && record.before > high))
    return {
      outcome: "unsure",
      headline: `${name} passes some by design: this much with it open, ${show(record.shut)} with it plugged`,
      measures,
      reasons: [words, "what is left with it plugged is the leak's: go on from there"],
      zones: [],
    };
  const whole =
    record.reads === "trim"
      ? Math.abs(record.shut) <= 100 * limits.trimGood.value
      : record.reads === "rpm"
        ? record.shut <= high
        : true;
  const at = layout.joints.find((j) => j.id === record.joint);
  const zones: ZoneKnowledge[] = at
    ? [{ zone: at.from, state: "leaking", joint: at.id, why: "the reading recovers while it is shut off" }]
    : [];
  return {
    outcome: "fail",
    headline: whole
      ? bypass
        ? `Recovers with ${name} plugged: it flows too much`
        : `Recovers with ${name} shut off: the leak is behind it`
      : `Recovers in part with ${name} shut off: it leaks, and something else does too`,
    measures,
    reasons: [words, ...(whole ? [] : ["a second leak stays, or the blank itself weeps: prove the blank, then go on"])],
    observation: whole ? "pinch-recovers" : "pinch-partly",
    tested,
    zones,
  };
}
