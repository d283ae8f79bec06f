import { formatQuantity, fromSi, toSi, UNITS } from "../../units";
import type { CheckContext } from "../context";
import { instrumentDoubt } from "../instrument";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import type { VacuumReading } from "./fields";
import type { Seen } from "./rows";

const SEA_LEVEL = 101325;
/** No-load vacuum rises with speed as spark advances, Pa per 1/min, up to this much above the target idle. */
const PER_RPM = UNITS.inHg.scale / 1000;
const RISE_ENDS = 1500;
/** Margin by which healthy engines may lie above their band, Pa. */
const ABOVE_BAND = UNITS.inHg.scale;
/** A throttled manifold keeps at least this much, Pa absolute. */
const LEAST_LEFT = 8e3;

/**
 * The vacuum a healthy petrol engine shows at idle: the shop's sea-level band, less the drop of ambient pressure, more a
 * little where it idles above its target.
 * @param at ambient Pa absolute, rpm 1/min. @returns Pa below ambient.
 */
export function expectedVacuum(
  { limits }: Pick<CheckContext, "limits">,
  at: { readonly ambient: number; readonly rpm: number },
): { readonly low: number; readonly high: number } {
  const drop = SEA_LEVEL - at.ambient;
  const rise = PER_RPM * Math.min(RISE_ENDS, Math.max(0, at.rpm - limits.idleSpeed.value));
  return { low: limits.vacuumLow.value - drop + rise, high: limits.vacuumHigh.value - drop + rise };
}

/** Judges a gauge on a manifold port: needle first, then the level against the corrected band, then the high-idle trap. */
export function judgeVacuum(reading: VacuumReading, context: CheckContext): Verdict<Seen> {
  const { limits, vehicle } = context;
  const lost = (trap: string) => voidVerdict("This reading proves nothing", trap);
  if (vehicle.fuel === "diesel") return lost("a diesel's manifold is not throttled: its vacuum comes from a pump");
  if (!reading.portSound) return lost("the gauge's own port or hose was not sound: it is the leak it shows");
  if (!reading.warm) return lost("the engine was cold: idle runs high and rich on purpose");
  const band = expectedVacuum(context, { ambient: toSi(reading.ambient), rpm: reading.rpm });
  const vacuum = toSi(reading.vacuum);
  if (vacuum > toSi(reading.ambient) - LEAST_LEFT)
    return lost(
      "no engine sucks that much: more vacuum than the air outside has pressure to give. Look at gauge, unit and ambient pressure",
    );
  const show = (pa: number) => fromSi(pa, reading.vacuum.unit, "vacuum");
  const measures: Measure[] = [
    {
      name: "Vacuum at idle",
      value: reading.vacuum,
      limit: `${formatQuantity(show(band.low))} to ${formatQuantity(show(band.high))} here and at this idle`,
      limitSource: limits.vacuumLow.source,
    },
    { name: "Engine speed", value: { value: reading.rpm, unit: "rpm" } },
  ];
  const base = { measures, zones: [] };
  const doubt = instrumentDoubt(reading.instrument, band.high - band.low, limits);
  if (doubt) return { ...base, outcome: "unsure", headline: "Gauge not usable: zero or division", reasons: [doubt] };
  if (reading.snap === "slow-return") {
    return {
      ...base,
      outcome: "fail",
      headline: "Comes back slowly after a snap: something holds the exhaust back",
      reasons: ["a blocked catalyst or silencer lets gas out slowly: measure back pressure before the first sensor"],
      observation: "vacuum-slow-return",
    };
  }
  if (reading.needle === "regular-flick") {
    return {
      ...base,
      outcome: "fail",
      headline: "The needle flicks at regular beats: one cylinder does it",
      reasons: ["a valve that does not close, or a cylinder that misses: balance the cylinders, then leak-down"],
      observation: "vacuum-flick",
    };
  }
  if (reading.needle === "fast-flutter") {
    return {
      ...base,
      outcome: "fail",
      headline: "The needle flutters fast: worn guides, weak springs or a leak at one runner",
      reasons: ["a leak beside the gauge's port flutters too: probe that runner"],
      observation: "vacuum-flutter",
    };
  }
  if (reading.needle === "drifting") {
    return {
      ...base,
      outcome: "fail",
      headline: "The needle drifts to and fro: mixture or idle control hunts",
      reasons: ["air that comes and goes, a sticking idle valve, or a mixture at its limit"],
      observation: "vacuum-drifts",
    };
  }
  const division = Math.abs(toSi(reading.instrument.division));
  if (vacuum > band.high + Math.max(division, ABOVE_BAND))
    return {
      ...base,
      outcome: "unsure",
      headline: `More vacuum than this engine makes here: ${formatQuantity(show(vacuum - band.high))} above its band`,
      reasons: [
        "no engine idles with that much vacuum at this ambient pressure: look at gauge, port, unit and the ambient pressure that was set, then read again",
      ],
    };
  if (vacuum < band.low && band.low - vacuum <= division)
    return {
      ...base,
      outcome: "unsure",
      headline: "At the lower edge of its band, within one division of the gauge",
      reasons: ["a finer gauge, or the idle speed beside it, tells: cap branches off one by one and watch it rise"],
    };
  if (vacuum < band.low) {
    return {
      ...base,
      outcome: "fail",
      headline: `Steady and low: ${formatQuantity(show(band.low - vacuum))} short`,
      reasons: ["a leak into the manifold, late timing, or an engine that breathes badly: the gauge alone cannot tell which"],
      observation: "vacuum-low",
    };
  }
  const high = reading.rpm > limits.idleSpeed.value + limits.idleAbove.value;
  if (high) {
    return {
      ...base,
      outcome: "unsure",
      headline: `The gauge reads fine, but the engine idles at ${reading.rpm} rpm`,
      reasons: [
        `a high idle hides a leak: air from the hole raised the speed and the vacuum with it (target ${limits.idleSpeed.value} rpm, ${limits.idleSpeed.source})`,
        "cap branches off one by one and watch the idle come down",
      ],
      observation: "vacuum-fine-idle-high",
    };
  }
  return {
    ...base,
    outcome: "pass",
    headline: "As this engine should read here",
    reasons: ["a good reading does not clear the manifold: a small hole hardly moves the needle"],
    observation: "vacuum-normal",
  };
}
