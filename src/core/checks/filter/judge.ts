import { breathed, type FilterReading, type JudgedFilter, judgeFilter } from "../../gas/filter";
import { formatNumber, fromSi, type Quantity, toSi, type UnitId } from "../../units";
import type { CheckContext } from "../context";
import { jointName, type Measure, type Verdict, voidVerdict } from "../verdict";
import type { FilterRecord, FilterRunning } from "./fields";
import type { Seen } from "./rows";

/** Soot by the pressure over soot by the model beyond which one of the two is wrong, and the least that this is asked of, g. */
const SOOT_APART = 2;
const SOOT_LEAST = 5;

/** Air that a meter shows, share of what the engine sweeps without load: EGR open takes some, boost adds some. */
const LEAST_AIR = 0.12;
const MOST_AIR = 2.5;

/** A record as the judge of the physics reads it, SI, held against the vehicle's own limits. */
function filterReading(record: FilterRecord, { vehicle, limits }: CheckContext): FilterReading {
  const point = (state: "idle" | "held", read: FilterRunning | undefined) =>
    read
      ? [
          {
            state,
            rpm: read.rpm,
            pressure: toSi(read.pressure),
            ...(read.maf ? { maf: toSi(read.maf) } : {}),
            ...(read.exhaustTemperature ? { exhaustTemperature: toSi(read.exhaustTemperature) } : {}),
          },
        ]
      : [];
  return {
    displacement: toSi(vehicle.displacement),
    points: [
      ...(record.keyOn ? [{ state: "key-on" as const, rpm: 0, pressure: toSi(record.keyOn) }] : []),
      ...point("idle", record.idle),
      ...point("held", record.held),
    ],
    limits: { idle: limits.filterIdle.value, good: limits.filterGood.value, limit: limits.filterMost.value },
    division: Math.abs(toSi(record.division)),
    egr: record.egr,
    ...(record.ambient ? { ambient: toSi(record.ambient) } : {}),
    ...(record.intakeTemperature ? { intakeTemperature: toSi(record.intakeTemperature) } : {}),
  };
}

const HEADLINES: Readonly<Record<JudgedFilter["sign"], string>> = {
  within: "The filter is not restricted",
  loaded: "The filter is loaded: too much pressure before it",
  "zero-off": "Its sensor does not stand at zero with the engine standing",
  backwards: "Less pressure before the filter than behind it",
  none: "Next to no pressure difference: pipe or core",
  unclear: "Filter: not settled yet",
};
const SEEN = {
  within: "filter-within",
  loaded: "filter-loaded",
  "zero-off": "filter-zero-off",
  backwards: "filter-backwards",
  none: "filter-none",
} as const;
/** A sign that something is wrong, though the core's state stays open. */
const FAULTS: readonly JudgedFilter["sign"][] = ["loaded", "zero-off", "backwards", "none"];

const PIPES = { "front-bad": "filter-pipe-front", "rear-bad": "filter-pipe-rear", swapped: "filter-pipe-front" } as const;

/**
 * Judges a particulate filter by its pressure difference against the vehicle's limits; pipes that were seen to be bad are the
 * finding, and no reading through them counts.
 */
export function judgeFilterCheck(record: FilterRecord, context: CheckContext): Verdict<Seen> {
  const { layout } = context;
  if (!layout.joints.some((j) => j.id === "filter-core"))
    return voidVerdict("This reading proves nothing", "no particulate filter is entered for this vehicle");
  if (!record.warm)
    return voidVerdict("This reading proves nothing", "the engine was cold: cold gas flows less and reads low, warm it up");
  const swept = [record.idle, record.held].flatMap((p) =>
    p?.maf ? [toSi(p.maf) / breathed(toSi(context.vehicle.displacement), p.rpm)] : [],
  );
  if (swept.some((share) => share < LEAST_AIR || share > MOST_AIR))
    return voidVerdict(
      "This reading proves nothing",
      "MAF and engine speed do not fit: look at its unit, and read both at one moment",
    );
  const judged = judgeFilter(filterReading(record, context));
  const base = { measures: measuresOf(record, judged, context), zones: [] };
  if (record.pipes !== "sound" && record.pipes !== "not-looked") {
    const pipe = PIPES[record.pipes];
    const swapped = record.pipes === "swapped";
    return {
      ...base,
      outcome: "fail",
      headline: swapped ? "Its pressure pipes are on the wrong way round" : `${jointName(layout, pipe)} is split, off or blocked`,
      reasons: ["what was read through it says nothing of the filter: correct it, then read again"],
      observation: `filter-pipe:${pipe}`,
      tested: ["filter-pipe-front", "filter-pipe-rear"],
    };
  }
  const unlooked =
    judged.outcome === "pass" && record.pipes === "not-looked"
      ? ["blow both pressure pipes free and look at them: a blocked or split one reads a loaded filter good"]
      : [];
  const outcome = FAULTS.includes(judged.sign) ? "fail" : unlooked.length > 0 ? "unsure" : judged.outcome;
  return {
    ...base,
    outcome,
    headline: unlooked.length > 0 ? "Within limits, through pipes that nobody looked at" : HEADLINES[judged.sign],
    reasons: [...unlooked, ...judged.reasons, ...sootSays(record)],
    ...(judged.sign === "unclear" || unlooked.length > 0 ? {} : { observation: SEEN[judged.sign] }),
  };
}

/** Verdict where soot by model and soot by pressure say where they lie apart. */
function sootSays({ sootModel: model, sootMeasured: measured }: FilterRecord): string[] {
  if (model === undefined || measured === undefined || Math.max(model, measured) < SOOT_LEAST) return [];
  const said = `${formatNumber(measured, 0)} g by the pressure, ${formatNumber(model, 0)} g by the model`;
  if (measured > SOOT_APART * model)
    return [`${said}: ash, which no regeneration burns, or a sensor that reads high; the model alone would not call for help`];
  if (model > SOOT_APART * measured) return [`${said}: the model was never set back, or the pressure does not reach the sensor`];
  return [];
}

function measuresOf(record: FilterRecord, { normalised }: JudgedFilter, { limits }: CheckContext): Measure[] {
  const shown = (si: number, unit: UnitId) => `${formatNumber(fromSi(si, unit).value, 1)} ${unit}`;
  const of = (name: string, value: Quantity, limit?: string, limitSource?: string): Measure => ({
    name,
    value: { ...value, kind: "gauge" },
    ...(limit ? { limit } : {}),
    ...(limitSource ? { limitSource } : {}),
  });
  return [
    ...(record.keyOn
      ? [
          of(
            "Key on, engine standing",
            record.keyOn,
            `within ± ${shown(limits.filterIdle.value / 5, record.keyOn.unit)}`,
            limits.filterIdle.source,
          ),
        ]
      : []),
    ...(record.idle
      ? [
          of(
            `At idle, ${record.idle.rpm} rpm`,
            record.idle.pressure,
            `at most ${shown(limits.filterIdle.value, record.idle.pressure.unit)}`,
            limits.filterIdle.source,
          ),
        ]
      : []),
    ...(record.held
      ? [
          of(
            `Held at ${record.held.rpm} rpm`,
            record.held.pressure,
            `at 3000 rpm good up to ${shown(limits.filterGood.value, record.held.pressure.unit)}, at most ${shown(limits.filterMost.value, record.held.pressure.unit)}`,
            limits.filterMost.source,
          ),
        ]
      : []),
    ...(normalised
      ? [
          {
            name: "Resistance, whatever the speed",
            value: { value: normalised.value / 1e9, unit: "10⁹/m³" as const },
            low: normalised.low / 1e9,
            high: normalised.high / 1e9,
          },
        ]
      : []),
  ];
}
