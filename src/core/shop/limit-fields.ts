import { UNITS, ZERO_CELSIUS } from "../units";
import type { LimitId } from "./settings";

export interface LimitField {
  readonly name: string;
  readonly unit: string;
  readonly scale: number;
  readonly offset: number;
}

const INHG = 1 / UNITS.inHg.scale;
const field = (name: string, unit: string, scale = 1, offset = 0): LimitField => ({ name, unit, scale, offset });
const percent = (name: string) => field(name, "%", 100);
const seconds = (name: string) => field(name, "s");
const rpm = (name: string) => field(name, "1/min");
const inHg = (name: string) => field(name, "inHg vacuum", INHG);

/** How each limit is typed: shown = SI · scale + offset; grouped by what it is held against. */
export const LIMIT_GROUPS: readonly (readonly [string, Partial<Record<LimitId, LimitField>>])[] = [
  [
    "Trims",
    {
      trimGood: percent("Total trim, good within ±"),
      trimAct: percent("Total trim, act beyond ±"),
      warmCoolant: field("Coolant warm enough for trims", "°C", 1, -ZERO_CELSIUS),
      steadyRpm: field("Steady engine speed, ±", "rpm"),
      steadyMaf: percent("Steady air flow, ±"),
      steadyTime: seconds("Shortest steady window"),
    },
  ],
  [
    "Enrichment probe",
    {
      probeTrim: percent("Trim a tap must move"),
      probeRpm: rpm("Speed a tap must move"),
      probeNoise: field("At least so often the noise before", "×"),
      probeEarliest: seconds("Earliest reaction"),
      probeLatest: seconds("Latest reaction"),
      probeGap: seconds("Shortest time between two taps"),
    },
  ],
  [
    "Vacuum and holding",
    {
      vacuumLow: inHg("Idle vacuum at sea level, from"),
      vacuumHigh: inHg("Idle vacuum at sea level, to"),
      idleSpeed: rpm("Target idle speed"),
      idleAbove: rpm("Idle above its target hides a leak from"),
      holdLoss: percent("A part may lose in 60 s"),
      holdStrokes: field("A healthy actuator moves within", "strokes"),
      actuatorSupply: inHg("Supply to an actuator, at least"),
    },
  ],
  [
    "Breathing",
    {
      idleAir: field("Air at warm idle", "g/s per L"),
      idleAirSpread: percent("Air at warm idle, ±"),
      breathingLow: percent("Breathing at wide open throttle, from"),
      breathingHigh: percent("Breathing at wide open throttle, to"),
      breathingRestricted: percent("Look for a restriction below"),
      portOpen: percent("A port is good when open by"),
      portBlocked: percent("A port is blocked below"),
    },
  ],
  ["Charge side", { boostCeiling: field("Highest boost test pressure", "bar gauge", 1e-5) }],
  [
    "Secondary air and cold starts",
    {
      airReaction: seconds("Secondary air shows within"),
      airTrim: percent("Short-term trim moves with it, at least"),
      coldSoak: field("Engine off before a cold start", "h", 1 / 3600),
    },
  ],
  [
    "Exhaust and EGR",
    {
      backIdle: field("Before the catalyst at idle, at most", "kPa gauge", 1e-3),
      backRaised: field("Before the catalyst at 2500 1/min, at most", "kPa gauge", 1e-3),
      egrAnswer: percent("An open EGR valve takes fresh air away, at least"),
    },
  ],
  [
    "Particulate filter",
    {
      filterIdle: field("Filter pressure at idle, at most", "hPa", 1e-2),
      filterGood: field("At 3000 1/min without load, good up to", "hPa", 1e-2),
      filterMost: field("At 3000 1/min without load, at most", "hPa", 1e-2),
    },
  ],
  [
    "Vapour system",
    {
      evapCeiling: field("Highest EVAP test pressure", "inH2O gauge", 1 / 249.0889),
      evapPullDown: field("Pull-down asked of an idling engine", "inH2O vacuum", 1 / 249.0889),
      evapFuelLow: percent("Fuel level for EVAP, from"),
      evapFuelHigh: percent("Fuel level for EVAP, to"),
      evapColdest: field("Air for the EVAP monitor, from", "°C", 1, -ZERO_CELSIUS),
      evapHottest: field("Air for the EVAP monitor, to", "°C", 1, -ZERO_CELSIUS),
      evapSoak: field("Soak before the EVAP monitor", "h", 1 / 3600),
      sensorZero: field("Tank sensor off its zero, at most ±", "V"),
      capLoss: percent("A cap may lose in 10 s"),
      ventOpening: field("Free vent path, as one hole, at least", "mm", 1000),
    },
  ],
  [
    "What must be caught, as one sharp-edged hole",
    {
      caughtManifold: field("Manifold, branches, purge seat", "mm", 1000),
      caughtDuct: field("Metered duct, crankcase, charge side", "mm", 1000),
      caughtExhaust: field("Exhaust before the sensor", "mm", 1000),
      caughtVacuum: field("Vacuum supply, actuator, line", "mm", 1000),
    },
  ],
  [
    "Electrics and tools",
    {
      feedDrop: field("A feed may lose", "V"),
      loadShare: percent("Of the battery across a commanded load"),
      outputTime: seconds("A scan tool lets go after"),
      machineProof: percent("Smoke machine proof, share of rating"),
      smokeAutoOff: seconds("Auto-off when a machine states none"),
      instrumentShare: percent("Coarsest division, share of the limit"),
    },
  ],
];

export const LIMIT_FIELDS = Object.assign({}, ...LIMIT_GROUPS.map(([, fields]) => fields)) as Record<LimitId, LimitField>;

/** A limit as it is typed. */
export const shownLimit = (id: LimitId, si: number): string => {
  const f = LIMIT_FIELDS[id];
  return String(Math.round((si * f.scale + f.offset) * 100) / 100);
};
/** A typed limit in SI. */
export const limitFromShown = (id: LimitId, shown: number): number => (shown - LIMIT_FIELDS[id].offset) / LIMIT_FIELDS[id].scale;
