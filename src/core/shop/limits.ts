import * as yup from "yup";
import { needed, strictObject } from "../input";
import { UNITS, ZERO_CELSIUS } from "../units";

/** A limit and where it comes from; nothing here replaces the maker's data. */
export interface Limit {
  readonly value: number;
  readonly source: string;
}

const shop = (value: number): Limit => ({ value, source: "shop default" });
const INHG = UNITS.inHg.scale;
/** As every shop has saved it since the first version: another last digit would make a default look like a decision. */
const PSI = 6894.757;
const INH2O = 249.0889;

/**
 * Shop defaults, SI (trims and shares as fractions, times in s). One place; overridable per shop and vehicle.
 */
export const DEFAULT_LIMITS = {
  /** Total trim within which nothing is wrong, fraction */
  trimGood: shop(0.05),
  /** Total trim beyond which something is, fraction */
  trimAct: shop(0.1),
  /** Coolant at which trims are settled, K */
  warmCoolant: shop(ZERO_CELSIUS + 75),
  /** Engine speed scatter within a steady window, ± 1/min */
  steadyRpm: shop(60),
  /** Air flow scatter within a steady window, ± fraction */
  steadyMaf: shop(0.06),
  /** Shortest steady window, s */
  steadyTime: shop(5),
  /** Share of the rated pressure a smoke machine must show at proof */
  machineProof: shop(0.85),
  /** Smoke machine auto-off when the machine states none, s */
  smokeAutoOff: shop(300),
  /** Trim an enrichment tap must move, fraction */
  probeTrim: shop(0.04),
  /** Engine speed an enrichment tap must move, 1/min */
  probeRpm: shop(40),
  /** The same as a multiple of the noise before the tap */
  probeNoise: shop(4),
  /** Earliest and latest arrival of a reaction after its tap, s */
  probeEarliest: shop(1),
  probeLatest: shop(8),
  /** Shortest time between two taps that can be told apart, s */
  probeGap: shop(12),
  /** Idle vacuum of a healthy petrol engine at sea level, Pa below ambient */
  vacuumLow: shop(17 * INHG),
  vacuumHigh: shop(22 * INHG),
  /** Idle speed of an engine whose maker's figure is not known, 1/min */
  idleSpeed: shop(750),
  /** Idle above its target by more than this hides a leak, 1/min */
  idleAbove: shop(150),
  /** Share of its vacuum a part may lose in 60 s */
  holdLoss: shop(0.05),
  /** Strokes within which a healthy actuator starts to move */
  holdStrokes: shop(3),
  /** Vacuum an idling engine must supply to an actuator, Pa below ambient */
  actuatorSupply: shop(15 * INHG),
  /** Air at warm idle per displacement, kg/(s·m³), and its spread as a fraction */
  idleAir: shop(1.1),
  idleAirSpread: shop(0.4),
  /** Volumetric efficiency at wide open throttle on ambient density, fraction */
  breathingLow: shop(0.75),
  breathingHigh: shop(0.95),
  /** Below this something restricts the engine's breathing */
  breathingRestricted: shop(0.7),
  /** Time after which a scan tool lets go of a commanded output, s */
  outputTime: shop(30),
  /** Voltage a feed may lose between battery and load, V */
  feedDrop: shop(0.5),
  /** Share of the battery's voltage that must stand across a commanded load */
  loadShare: shop(0.9),
  /** Share of a port that must be open, and below which it is blocked */
  portOpen: shop(0.9),
  portBlocked: shop(0.7),
  /** Highest pressure a charge side is tested at, Pa gauge, whatever engine and tools could bear */
  boostCeiling: shop(1.2e5),
  /** Pressure before the catalyst, Pa gauge, at idle and held at 2500 1/min; own judgement, the maker's goes before it */
  backIdle: shop(9e3),
  backRaised: shop(20e3),
  /** Share of the fresh air that an EGR valve takes away once it is commanded open, at least; own judgement */
  egrAnswer: shop(0.1),
  /** Longest time that a reaction to secondary air takes, s, and the least that live short-term trim moves with it, fraction */
  airReaction: shop(5),
  airTrim: shop(0.1),
  /** Engine-off time that a cold start needs, s */
  coldSoak: shop(6 * 3600),
  /** Pressure difference of a particulate filter, Pa: at idle, and at 3000 1/min without load good, and at most */
  filterIdle: shop(1000),
  filterGood: shop(5000),
  filterMost: shop(8000),
  /** Highest pressure an EVAP system may be put under, Pa gauge */
  evapCeiling: shop(0.5 * PSI),
  /** Fuel level between which an EVAP system may be tested and its monitor runs, share of the tank */
  evapFuelLow: shop(0.15),
  evapFuelHigh: shop(0.85),
  /** Air temperature between which the EVAP monitor runs, K */
  evapColdest: shop(ZERO_CELSIUS + 4),
  evapHottest: shop(273.15 + 35),
  /** Engine-off time before a cold start that the EVAP monitor counts, s; the maker's figure goes before it */
  evapSoak: shop(8 * 3600),
  /** Depth that an idling engine must pull a shut EVAP system down to, Pa below ambient */
  evapPullDown: shop(4 * INH2O),
  /** How far from its own zero a tank-pressure sensor may stand with the cap off, V */
  sensorZero: shop(0.2),
  /** Share of its pressure a filler cap may lose in 10 s on its tester */
  capLoss: shop(0.1),
  /** Smallest opening, as a sharp-edged hole, of a vent path that breathes freely, m */
  ventOpening: shop(6e-3),
  /** What must be caught, as an equivalent sharp-edged hole, m: a code's own criteria or the survey's implied hole go first */
  caughtManifold: shop(1e-3),
  caughtDuct: shop(2e-3),
  caughtExhaust: shop(2e-3),
  caughtVacuum: shop(0.3e-3),
  /** Coarsest division of an instrument, as a share of the limit it is held against */
  instrumentShare: shop(0.2),
} as const satisfies Record<string, Limit>;

export type LimitId = keyof typeof DEFAULT_LIMITS;
export type Limits = Readonly<Record<LimitId, Limit>>;
export const LIMIT_IDS = Object.keys(DEFAULT_LIMITS) as LimitId[];

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
