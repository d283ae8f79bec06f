import * as yup from "yup";
import { type Asking, type Field, fields, formOf, number, type RecordOf } from "../form";
import { needed, strictObject } from "../input";
import { UNITS, ZERO_CELSIUS } from "../units";

/** A limit and where it comes from; nothing here replaces the maker's data. */
export interface Limit {
  readonly value: number;
  readonly source: string;
}

/** How a limit is typed: shown = SI · scale + offset. */
export interface LimitField {
  readonly name: string;
  readonly unit: string;
  readonly scale: number;
  readonly offset: number;
}

const INHG = UNITS.inHg.scale;
/** As every shop has saved it since the first version: another last digit would make a default look like a decision. */
const PSI = 6894.757;
const INH2O = 249.0889;

const field = (value: number, name: string, unit: string, scale = 1, offset = 0) => ({ value, name, unit, scale, offset });
const percent = (value: number, name: string) => field(value, name, "%", 100);
const seconds = (value: number, name: string) => field(value, name, "s");
const rpm = (value: number, name: string) => field(value, name, "rpm");
const inHg = (value: number, name: string) => field(value, name, "inHg vacuum", 1 / INHG);

/** Every limit by what it is held against: the shop's default (SI; trims and shares as fractions, times in s), and how it is typed. */
const LIMITS = {
  Trims: {
    /** Total trim within which nothing is wrong, fraction */
    trimGood: percent(0.05, "Total trim, good within ±"),
    /** Total trim beyond which something is, fraction */
    trimAct: percent(0.1, "Total trim, act beyond ±"),
    /** Coolant at which trims are settled, K */
    warmCoolant: field(ZERO_CELSIUS + 75, "Coolant warm enough for trims", "°C", 1, -ZERO_CELSIUS),
    /** Engine speed scatter within a steady window, ± 1/min */
    steadyRpm: field(60, "Steady engine speed, ±", "rpm"),
    /** Air flow scatter within a steady window, ± fraction */
    steadyMaf: percent(0.06, "Steady air flow, ±"),
    /** Shortest steady window, s */
    steadyTime: seconds(5, "Shortest steady window"),
  },
  "Enrichment probe": {
    /** Trim an enrichment tap must move, fraction */
    probeTrim: percent(0.04, "Trim a tap must move"),
    /** Engine speed an enrichment tap must move, 1/min */
    probeRpm: rpm(40, "Speed a tap must move"),
    /** The same as a multiple of the noise before the tap */
    probeNoise: field(4, "Signal over the noise before, at least", "×"),
    /** Earliest and latest arrival of a reaction after its tap, s */
    probeEarliest: seconds(1, "Earliest reaction"),
    probeLatest: seconds(8, "Latest reaction"),
    /** Shortest time between two taps that can be told apart, s */
    probeGap: seconds(12, "Shortest time between two taps"),
  },
  "Vacuum and holding": {
    /** Idle vacuum of a healthy petrol engine at sea level, Pa below ambient */
    vacuumLow: inHg(17 * INHG, "Idle vacuum at sea level, from"),
    vacuumHigh: inHg(22 * INHG, "Idle vacuum at sea level, to"),
    /** Idle speed of an engine whose maker's figure is not known, 1/min */
    idleSpeed: rpm(750, "Target idle speed"),
    /** Idle above its target by more than this hides a leak, 1/min */
    idleAbove: rpm(150, "Idle above its target hides a leak from"),
    /** Share of its vacuum a part may lose in 60 s */
    holdLoss: percent(0.05, "Vacuum loss allowed in 60 s"),
    /** Strokes within which a healthy actuator starts to move */
    holdStrokes: field(3, "A healthy actuator moves within", "strokes"),
    /** Vacuum an idling engine must supply to an actuator, Pa below ambient */
    actuatorSupply: inHg(15 * INHG, "Supply to an actuator, at least"),
  },
  Breathing: {
    /** Air at warm idle per displacement, kg/(s·m³), and its spread as a fraction */
    idleAir: field(1.1, "Air at warm idle", "g/s per L"),
    idleAirSpread: percent(0.4, "Air at warm idle, ±"),
    /** Volumetric efficiency at wide open throttle on ambient density, fraction */
    breathingLow: percent(0.75, "VE at wide open throttle, from"),
    breathingHigh: percent(0.95, "VE at wide open throttle, to"),
    /** Below this something restricts the engine's breathing */
    breathingRestricted: percent(0.7, "VE below which to look for a restriction"),
    /** Share of a port that must be open, and below which it is blocked */
    portOpen: percent(0.9, "A port is good when open by"),
    portBlocked: percent(0.7, "A port is blocked below"),
  },
  "Charge side": {
    /** Highest pressure a charge side is tested at, Pa gauge, whatever engine and tools could bear */
    boostCeiling: field(1.2e5, "Highest boost test pressure", "bar gauge", 1e-5),
  },
  "Secondary air and cold starts": {
    /** Longest time that a reaction to secondary air takes, s, and the least that live short-term trim moves with it, fraction */
    airReaction: seconds(5, "Secondary air shows within"),
    airTrim: percent(0.1, "Short-term trim moves with it, at least"),
    /** Engine-off time that a cold start needs, s */
    coldSoak: field(6 * 3600, "Engine off before a cold start", "h", 1 / 3600),
  },
  "Exhaust and EGR": {
    /** Pressure before the catalyst, Pa gauge, at idle and held at 2500 1/min; own judgement, the maker's goes before it */
    backIdle: field(9e3, "Before the catalyst at idle, at most", "kPa gauge", 1e-3),
    backRaised: field(20e3, "Before the catalyst at 2500 rpm, at most", "kPa gauge", 1e-3),
    /** Share of the fresh air that an EGR valve takes away once it is commanded open, at least; own judgement */
    egrAnswer: percent(0.1, "An open EGR valve takes fresh air away, at least"),
  },
  "Particulate filter": {
    /** Pressure difference of a particulate filter, Pa: at idle, and at 3000 1/min without load good, and at most */
    filterIdle: field(1000, "Filter pressure at idle, at most", "hPa", 1e-2),
    filterGood: field(5000, "At 3000 rpm without load, good up to", "hPa", 1e-2),
    filterMost: field(8000, "At 3000 rpm without load, at most", "hPa", 1e-2),
  },
  "Vapour system": {
    /** Highest pressure an EVAP system may be put under, Pa gauge */
    evapCeiling: field(0.5 * PSI, "Highest EVAP test pressure", "inH2O gauge", 1 / 249.0889),
    /** Depth that an idling engine must pull a shut EVAP system down to, Pa below ambient */
    evapPullDown: field(4 * INH2O, "Pull-down asked of an idling engine", "inH2O vacuum", 1 / 249.0889),
    /** Fuel level between which an EVAP system may be tested and its monitor runs, share of the tank */
    evapFuelLow: percent(0.15, "Fuel level for EVAP, from"),
    evapFuelHigh: percent(0.85, "Fuel level for EVAP, to"),
    /** Air temperature between which the EVAP monitor runs, K */
    evapColdest: field(ZERO_CELSIUS + 4, "Air for the EVAP monitor, from", "°C", 1, -ZERO_CELSIUS),
    evapHottest: field(273.15 + 35, "Air for the EVAP monitor, to", "°C", 1, -ZERO_CELSIUS),
    /** Engine-off time before a cold start that the EVAP monitor counts, s; the maker's figure goes before it */
    evapSoak: field(8 * 3600, "Soak before the EVAP monitor", "h", 1 / 3600),
    /** How far from its own zero a tank-pressure sensor may stand with the cap off, V */
    sensorZero: field(0.2, "Tank sensor off its zero, at most ±", "V"),
    /** Share of its pressure a filler cap may lose in 10 s on its tester */
    capLoss: percent(0.1, "Pressure loss allowed on a cap in 10 s"),
    /** Smallest opening, as a sharp-edged hole, of a vent path that breathes freely, m */
    ventOpening: field(6e-3, "Free vent path, as one hole, at least", "mm", 1000),
  },
  "What must be caught, as one sharp-edged hole": {
    /** Hole that must be caught, as an equivalent sharp-edged hole, m: a code's own criteria or the survey's implied hole go first */
    caughtManifold: field(1e-3, "Manifold, branches, purge seat", "mm", 1000),
    caughtDuct: field(2e-3, "Metered duct, crankcase, charge side", "mm", 1000),
    caughtExhaust: field(2e-3, "Exhaust before the sensor", "mm", 1000),
    caughtVacuum: field(0.3e-3, "Vacuum supply, actuator, line", "mm", 1000),
  },
  "Electrics and tools": {
    /** Voltage a feed may lose between battery and load, V */
    feedDrop: field(0.5, "Voltage drop allowed on a feed", "V"),
    /** Share of the battery's voltage that must stand across a commanded load */
    loadShare: percent(0.9, "Voltage across a commanded load, of the battery's"),
    /** Time after which a scan tool lets go of a commanded output, s */
    outputTime: seconds(30, "A scan-tool command times out after"),
    /** Share of the rated pressure a smoke machine must show at proof */
    machineProof: percent(0.85, "Smoke machine proof, share of rating"),
    /** Smoke machine auto-off when the machine states none, s */
    smokeAutoOff: seconds(300, "Auto-off when a machine states none"),
    /** Coarsest division of an instrument, as a share of the limit it is held against */
    instrumentShare: percent(0.2, "Coarsest division, share of the limit"),
  },
} as const;

type ByGroup = typeof LIMITS;
export type LimitId = { [G in keyof ByGroup]: keyof ByGroup[G] & string }[keyof ByGroup];
export type Limits = Readonly<Record<LimitId, Limit>>;

/** How each limit is typed, in the groups that it stands in. */
export const LIMIT_GROUPS = Object.entries(LIMITS) as readonly (readonly [string, Partial<Record<LimitId, LimitField>>])[];
export const LIMIT_FIELDS = Object.assign({}, ...Object.values(LIMITS)) as Readonly<
  Record<LimitId, LimitField & { readonly value: number }>
>;
export const LIMIT_IDS = Object.keys(LIMIT_FIELDS) as LimitId[];

/** Shop defaults, overridable per shop and vehicle. */
export const DEFAULT_LIMITS = Object.fromEntries(
  LIMIT_IDS.map((id) => [id, { value: LIMIT_FIELDS[id].value, source: "shop default" }]),
) as unknown as Limits;

/** A limit as it is typed. */
export const shownLimit = (id: LimitId, si: number): string => {
  const f = LIMIT_FIELDS[id];
  return String(Math.round((si * f.scale + f.offset) * 100) / 100);
};
/** A typed limit in SI. */
export const limitFromShown = (id: LimitId, shown: number): number => (shown - LIMIT_FIELDS[id].offset) / LIMIT_FIELDS[id].scale;

/** Every limit as the shop types it, in its unit. */
const limitFields = fields(
  Object.fromEntries(
    LIMIT_IDS.map((id) => {
      const { name, unit } = LIMIT_FIELDS[id];
      return [id, number({ name, label: `${name} (${unit})` })];
    }),
  ) as Record<LimitId, Field<number>>,
);
type TypedLimits = RecordOf<typeof limitFields>;

const asking = (id: LimitId): Asking<{ readonly limits: Limits }, LimitId> => ({
  hint: ({ known }) => known.limits[id].source,
  defaultValue: ({ known }) => shownLimit(id, known.limits[id].value),
});
export const limitsForm = formOf<{ readonly limits: Limits }>()(limitFields, {
  ask: Object.fromEntries(LIMIT_IDS.map((id) => [id, asking(id)])),
});

/** Limits with what was typed over them. What was not touched keeps its own value, not the rounding of it. */
export function limitsTyped(typed: TypedLimits, limits: Limits): Limits {
  const typedAs = (id: LimitId, { value }: Limit) => typed[id] === Number(shownLimit(id, value));
  const changed = LIMIT_IDS.filter((id) => !typedAs(id, limits[id])).map((id) => [
    id,
    typedAs(id, DEFAULT_LIMITS[id]) ? DEFAULT_LIMITS[id] : { value: limitFromShown(id, typed[id]), source: "set by this shop" },
  ]);
  return { ...limits, ...Object.fromEntries(changed) };
}

const limitSchema = strictObject({
  value: yup
    .number()
    .required()
    .test("finite", "${path} must be a finite number", (v) => Number.isFinite(v)),
  source: needed("The source", "Say where this limit comes from"),
});

/** Every limit, each with its source. */
export const limitsSchema = strictObject(
  Object.fromEntries(LIMIT_IDS.map((id) => [id, limitSchema.required()])) as Record<LimitId, typeof limitSchema>,
);

const optionalLimit = limitSchema.optional().default(undefined);

/** Some limits: what one vehicle's maker says otherwise. */
export const vehicleLimitsSchema = strictObject(
  Object.fromEntries(LIMIT_IDS.map((id) => [id, optionalLimit])) as unknown as Record<LimitId, typeof optionalLimit>,
);
