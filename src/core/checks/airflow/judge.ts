import { engineAirflow } from "../../gas/engine-airflow";
import { formatNumber, formatQuantity, fromSi, toSi } from "../../units";
import { isKnown } from "../../vehicle";
import type { CheckContext } from "../context";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import type { AirflowPoint, AirflowRecord } from "./fields";
import type { Seen } from "./rows";

/** Charge air is warmer than outside by about this much, K. */
const CHARGE_HEATING = 15;
/** Share that an engine's valves pass of its manifold's density, whole range of healthy engines. */
const MANIFOLD_LOW = 0.7;
/** No engine takes in more than this of its manifold's density. */
const MANIFOLD_HIGH = 1.3;
/** With the throttle wide open at least this share of ambient stands in the manifold, however clogged its filter. */
const WIDE_OPEN = 0.5;
/** So far above its target an engine does not idle, 1/min. */
const NO_IDLE = 700;
/** Share of ambient that a free intake keeps in the manifold at wide open throttle. */
const FREE_INTAKE = 0.93;
/** Wide-open readings below this speed say little, 1/min. */
const SLOWEST_PULL = 2000;

export interface AirflowReading {
  readonly point: AirflowPoint;
  /** Measured flow over what the displacement sweeps at ambient density */
  readonly onAmbient?: number;
  /** The same at manifold density */
  readonly onManifold?: number;
  /** Manifold pressure over ambient */
  readonly pressureShare?: number;
  /** kg/(s·m³) */
  readonly perDisplacement?: number;
}

/** Both breathing ratios of each point: η on ambient and on manifold density (speed-density; Heywood 1988, eq. 2.27). */
export function readAirflow(record: AirflowRecord, context: Pick<CheckContext, "vehicle">): AirflowReading[] {
  const displacement = toSi(context.vehicle.displacement);
  const ambient = toSi(record.ambient);
  const temperature = toSi(record.intakeTemperature);
  return record.points.map((point) => {
    const map = point.map && toSi(point.map);
    const flow = point.maf && toSi(point.maf);
    const swept = (pressure: number, at: number) =>
      engineAirflow({ displacement, rpm: point.rpm, efficiency: 1, pressure, temperature: at });
    return {
      point,
      ...(map === undefined ? {} : { pressureShare: map / ambient }),
      ...(flow === undefined
        ? {}
        : {
            onAmbient: flow / swept(ambient, temperature),
            perDisplacement: flow / displacement,
            ...(map === undefined ? {} : { onManifold: flow / swept(map, temperature + CHARGE_HEATING) }),
          }),
    };
  });
}

/** The trap that makes a reading prove nothing; undefined where nothing does. */
function trapOf(
  record: AirflowRecord,
  readings: readonly AirflowReading[],
  { limits, vehicle }: CheckContext,
): string | undefined {
  if (!record.warm) return "the engine was cold: idle runs high on purpose";
  if (vehicle.fuel === "diesel") {
    return "a diesel idles unthrottled: the petrol limits do not apply";
  }
  const above =
    vehicle.induction === "natural" &&
    isKnown(vehicle, "induction") &&
    record.points.some((p) => p.map && toSi(p.map) > 1.03 * toSi(record.ambient));
  if (above) return "a manifold above ambient on an engine without a blower: look at unit and sensor";
  const fast = record.points.find((p) => p.state === "idle" && p.rpm > limits.idleSpeed.value + NO_IDLE);
  if (fast) return `${formatNumber(fast.rpm, 0)} rpm is no idle: let it idle, and read it again`;
  if (record.points.some((p) => p.maf && toSi(p.maf) <= 0)) return "no engine runs on no air: the meter was not read, or is dead";
  const shut = readings.find((r) => r.point.state === "wide-open" && (r.pressureShare ?? 1) < WIDE_OPEN);
  if (shut && vehicle.induction === "natural")
    return `at ${formatNumber((shut.pressureShare ?? 0) * 100, 0)} % of the ambient pressure in the manifold the throttle was not wide open: floor it, and read it again`;
  const crammed = readings.find((r) => r.onManifold !== undefined && r.onManifold > MANIFOLD_HIGH);
  if (crammed)
    return `meter and manifold contradict each other: at ${formatNumber((crammed.pressureShare ?? 0) * 100, 0)} % of the ambient pressure in the manifold no engine breathes ${formatNumber((crammed.onAmbient ?? 0) * 100, 0)} %. Take both at the same moment, look at units and sensors`;
  return undefined;
}

/**
 * Judges what the engine breathes. On ambient density low and on manifold density right: something before the manifold
 * restricts it. Both low: the meter reads low, air comes in behind it, or the exhaust is blocked. Turbo engines are judged
 * on manifold density only; speed-density ones by the pressure that reaches the manifold.
 */
export function judgeAirflow(record: AirflowRecord, context: CheckContext): Verdict<Seen> {
  const { limits, vehicle } = context;
  const readings = readAirflow(record, context);
  const trap = trapOf(record, readings, context);
  if (trap) return voidVerdict("This reading proves nothing", trap);
  const idle = readings.find((r) => r.point.state === "idle");
  const open = readings.filter((r) => r.point.state === "wide-open").toSorted((a, b) => b.point.rpm - a.point.rpm)[0];
  const measures = measuresOf(idle, open, context);
  const base = { measures, zones: [] };
  const turbo = vehicle.induction === "turbo";
  const share = (x: number | undefined) => (x === undefined ? "–" : `${formatNumber(100 * x, 0)} %`);

  if (!open) {
    const low =
      idle?.perDisplacement !== undefined && idle.perDisplacement < limits.idleAir.value * (1 - limits.idleAirSpread.value);
    return {
      ...base,
      outcome: low ? "fail" : "unsure",
      headline: low ? "Low at idle already" : "Idle alone cannot tell restriction from meter",
      reasons: [
        ...(low ? ["unmetered air, or a MAF that reads low"] : []),
        "add a wide-open pull in one gear to 4000 rpm or more",
      ],
      ...(low ? { observation: "airflow-idle-low" } : {}),
    };
  }
  if (open.point.rpm < SLOWEST_PULL) {
    return {
      ...base,
      outcome: "unsure",
      headline: `The pull ended at ${open.point.rpm} rpm: too slow to show a restriction`,
      reasons: [`pull to 4000 rpm or more; suction of a clogged filter grows with flow squared`],
    };
  }
  const manifoldOk = open.onManifold === undefined || open.onManifold >= MANIFOLD_LOW;
  if (turbo) {
    return manifoldOk
      ? {
          ...base,
          outcome: "pass",
          headline: `Meter and manifold agree at ${share(open.onManifold)} of what the engine sweeps`,
          reasons: ["under boost the ambient ratio has no limit: a restriction shows as boost requested and not delivered"],
          observation: "airflow-normal",
        }
      : lowEverywhere(base, share(open.onManifold));
  }
  // Without a meter, what reaches the manifold at wide open throttle is all there is to read.
  const ratio = open.onAmbient;
  if (ratio === undefined) {
    const reaches = open.pressureShare;
    if (reaches === undefined) {
      return {
        ...base,
        outcome: "unsure",
        headline: "Neither MAF nor manifold pressure at wide open throttle",
        reasons: ["log manifold pressure in the pull"],
      };
    }
    return reaches < FREE_INTAKE
      ? {
          ...base,
          outcome: "fail",
          headline: `Only ${share(reaches)} of ambient reaches the manifold with the throttle wide open`,
          reasons: ["something before the manifold restricts it: filter first, then duct and throttle"],
          observation: "airflow-restricted",
        }
      : {
          ...base,
          outcome: "pass",
          headline: `The intake is not restricted: ${share(reaches)} of ambient reaches the manifold`,
          reasons: ["speed-density has no meter to cross-check"],
          observation: "airflow-normal",
        };
  }
  if (ratio < limits.breathingRestricted.value) {
    if (!manifoldOk) return lowEverywhere(base, share(open.onManifold));
    if (open.onManifold === undefined) {
      return {
        ...base,
        outcome: "unsure",
        headline: `Breathes ${share(ratio)} only, but without manifold pressure nobody can say why`,
        reasons: ["log manifold pressure too: restriction and meter error differ there"],
      };
    }
    return {
      ...base,
      outcome: "fail",
      headline: `Breathes ${share(ratio)} at wide open throttle: something before the manifold restricts it`,
      reasons: [
        `the meter is right: against manifold density it reads ${share(open.onManifold)}`,
        ...(open.pressureShare === undefined ? [] : [`only ${share(open.pressureShare)} of ambient reaches the manifold`]),
        "filter first, it is the cheap thing; then snorkel, duct and throttle",
        context.house.cheapSuspect === "swap"
          ? "house method: swap the filter at once, and read again"
          : "house method: pull with the filter out of its box for one reading, before buying one",
      ],
      observation: "airflow-restricted",
    };
  }
  if (ratio < limits.breathingLow.value || ratio > limits.breathingHigh.value * 1.1) {
    return {
      ...base,
      outcome: "unsure",
      headline: `Breathes ${share(ratio)}: outside the usual, inside what happens`,
      reasons: ["repeat the pull to higher speed; compare with the maker's figure for this engine"],
    };
  }
  if (!manifoldOk) return lowEverywhere(base, share(open.onManifold));
  return {
    ...base,
    outcome: "pass",
    headline: `Breathes ${share(ratio)} at wide open throttle: no restriction`,
    reasons: ["filter, duct and meter are right at high flow; a small leak behind the meter does not show here"],
    observation: "airflow-normal",
  };
}

const lowEverywhere = (base: Pick<Verdict, "measures" | "zones">, ratio: string): Verdict<Seen> => ({
  ...base,
  outcome: "fail",
  headline: `The MAF reads low: ${ratio} of what the manifold says goes in`,
  reasons: [
    "no restriction does this: the manifold is full and the meter does not say so",
    "the meter under-reads, air comes in behind it (a disturbed duct does this), or the exhaust holds it back",
    "smoke or wiggle the duct before the meter is blamed",
  ],
  observation: "airflow-reads-low",
});

function measuresOf(
  idle: AirflowReading | undefined,
  open: AirflowReading | undefined,
  { limits, vehicle }: CheckContext,
): Measure[] {
  const percent = (x: number) => ({ value: 100 * x, unit: "%" as const });
  const list: Measure[] = [];
  if (idle?.perDisplacement !== undefined) {
    const [low, high] = [1 - limits.idleAirSpread.value, 1 + limits.idleAirSpread.value].map((f) => f * limits.idleAir.value);
    list.push({
      name: `Air at idle, ${idle.point.rpm} rpm`,
      value: { value: idle.perDisplacement, unit: "g/s per L" },
      limit: `${formatNumber(low as number, 1)} to ${formatNumber(high as number, 1)} g/s per L`,
      limitSource: limits.idleAir.source,
    });
  }
  if (open?.onAmbient !== undefined) {
    list.push({
      name: `Volumetric efficiency (VE) on ambient density, ${open.point.rpm} rpm`,
      value: percent(open.onAmbient),
      ...(vehicle.induction === "turbo"
        ? {}
        : {
            limit: `${formatNumber(100 * limits.breathingLow.value, 0)} to ${formatNumber(100 * limits.breathingHigh.value, 0)} % unblown; below ${formatNumber(100 * limits.breathingRestricted.value, 0)} % look for a restriction`,
            limitSource: limits.breathingRestricted.source,
          }),
    });
  }
  if (open?.onManifold !== undefined) list.push({ name: "VE on manifold density", value: percent(open.onManifold) });
  if (open?.point.map)
    list.push({
      name: `Manifold at wide open throttle (${formatQuantity(fromSi(toSi(open.point.map), "kPa", "absolute"))})`,
      value: open.point.map,
    });
  return list;
}
