import { formatNumber } from "../units";
import { airDensity, R_AIR } from "./air";

/** A particulate filter's pressure difference at one state of the engine. */
export interface FilterPoint {
  readonly state: "key-on" | "idle" | "held";
  /** 1/min; 0 with the engine standing */
  readonly rpm: number;
  /** Pa, before the filter over behind it */
  readonly pressure: number;
  /** kg/s, from the air meter */
  readonly maf?: number;
  /** K, at the filter */
  readonly exhaustTemperature?: number;
}

export interface FilterReading {
  /** m³ */
  readonly displacement: number;
  /** Pa absolute */
  readonly ambient?: number;
  /** K */
  readonly intakeTemperature?: number;
  readonly points: readonly FilterPoint[];
  /** Pa: the maker's; a light-duty filter's where left out */
  readonly limits?: { readonly idle?: number; readonly good?: number; readonly limit?: number };
  /** Pa: one division of what it was read on */
  readonly division?: number;
  /** Whether exhaust is led back meanwhile: then the swept volume says too much of the flow */
  readonly egr?: "shut" | "open" | "unknown";
}

/** Fault that its readings show by their sign and their size. */
export type FilterSign = "within" | "loaded" | "zero-off" | "backwards" | "none" | "unclear";

export interface JudgedFilter {
  readonly outcome: "pass" | "fail" | "unsure";
  readonly sign: FilterSign;
  /** Δp/(μ·Q), 1/m³, by which readings at different speeds compare; null where the flow is not known */
  readonly normalised: { readonly value: number; readonly low: number; readonly high: number; readonly unit: "1/m³" } | null;
  readonly reasons: readonly string[];
  /** Whether the ECU may be told that its filter is as new */
  readonly resetAllowed: boolean;
}

/** A light-duty filter without the maker's figures, Pa: at idle, and good and at most at 3000 1/min without load. */
const USUAL = { idle: 1000, good: 5000, limit: 8000 } as const;
/** Speed that the raised limits are for, 1/min, and how far from it a held speed can be brought there. */
const RAISED = 3000;
const HELD = [1500, 4500] as const;
/** Less than this share of what is good at the raised speed no filter has that gas goes through. */
const NOTHING = 0.05;
/** Flow, its heat and its inertial part make a held reading so many times the idle one, whatever the filter holds. */
const HELD_OVER_IDLE = [1.3, 25] as const;
/** A zero, and a division, may be this share of the idle limit. */
const FIT = 1 / 5;
/** Of a no-load engine flow grows as speed, and Δp with a power of it between its viscous and its inertial part. */
const POWER = [1, 1.35] as const;
/** Error of a sensor besides its division, share. */
const SENSOR = 0.02;
/** Filling of a diesel without load, and how well that is known; with exhaust led back much less well. */
const FILLING = 0.85;
const FILLING_SD = { shut: 0.05, other: 0.18 } as const;
/** Fuel on top of the air, share, and its spread; the meter's gain. */
const FUEL = 0.035;
const FUEL_SD = 0.0075;
const METER_SD = 0.015;
/** Gas at the filter where nobody read it, K, and its standard deviation (half of the stated 95 % band). */
const WARM = { idle: [393.15, 20], held: [473.15, 30] } as const;

/**
 * Dynamic viscosity of air, Pa·s, by Sutherland's law (μ₀ = 1.716e−5 at 273.15 K, S = 110.4 K). Exhaust differs by a few percent.
 * @param temperature K, 200…1500. Throws RangeError outside.
 */
export function viscosity(temperature: number): number {
  if (!(temperature >= 200 && temperature <= 1500)) throw new RangeError("Viscosity is known from 200 to 1500 K");
  return 1.716e-5 * (temperature / 273.15) ** 1.5 * ((273.15 + 110.4) / (temperature + 110.4));
}

const hPa = (pa: number) => `${formatNumber(pa / 100, Math.abs(pa) < 1000 ? 1 : 0)} hPa`;

/**
 * Air that a diesel takes without load, kg/s: filling × density × swept volume.
 * @param displacement m³; @param rpm 1/min; @param ambient Pa absolute; @param temperature K of the intake.
 */
export const breathed = (displacement: number, rpm: number, ambient = 101325, temperature = 298.15): number =>
  (FILLING * airDensity(ambient, temperature) * displacement * rpm) / 120;

/** Δp/(μ·Q) of one point with its 95 % interval; undefined where neither meter nor a known way back tells the flow. */
function normalise(point: FilterPoint, reading: FilterReading): JudgedFilter["normalised"] {
  const { displacement, ambient = 101325, intakeTemperature = 298.15, egr = "unknown" } = reading;
  const [usual, sd] = WARM[point.state === "idle" ? "idle" : "held"];
  const temperature = point.exhaustTemperature ?? usual;
  const swept = breathed(displacement, point.rpm, ambient, intakeTemperature);
  const air = point.maf ?? swept;
  if (!(air > 0)) return null;
  const flow = (air * (1 + FUEL) * R_AIR * temperature) / (ambient + point.pressure);
  const value = point.pressure / (viscosity(temperature) * flow);
  // μ grows with T^0.7 and Q with T: together T^1.7.
  const warm = point.exhaustTemperature === undefined ? (1.7 * sd) / temperature : (1.7 * 5) / temperature;
  const gas = point.maf === undefined ? (egr === "shut" ? FILLING_SD.shut : FILLING_SD.other) / FILLING : METER_SD;
  const read = Math.hypot(SENSOR, (reading.division ?? 0) / Math.sqrt(12) / Math.max(point.pressure, 1));
  const wrong = 1.96 * Math.hypot(warm, gas, FUEL_SD, read) * Math.abs(value);
  return { value, low: value - wrong, high: value + wrong, unit: "1/m³" };
}

/**
 * Judges a filter by its pressure difference: zero with the key on, idle where the display can tell its limit, and the raised
 * speed brought to 3000 1/min. Δp ≈ a·μ·Q + b·ρ·Q², the first term leading. The reset of the ECU's model is allowed on a pass
 * alone: told that a loaded filter is new, it lets it overheat. Throws RangeError without a point, or for a speed that is none.
 */
export function judgeFilter(reading: FilterReading): JudgedFilter {
  const { points, division = 0 } = reading;
  if (points.length === 0) throw new RangeError("Read the filter's pressure difference at least once");
  if (!points.every((p) => p.state === "key-on" || p.rpm > 0)) throw new RangeError("A running engine has a speed");
  const limits = { ...USUAL, ...reading.limits };
  const of = (state: FilterPoint["state"]) => points.filter((p) => p.state === state);
  const running = points.filter((p) => p.state !== "key-on");
  const best = of("held").at(-1) ?? of("idle").at(-1);
  const base = { normalised: best ? normalise(best, reading) : null, resetAllowed: false };
  const zero = of("key-on").at(-1);
  const offset = zero?.pressure ?? 0;
  const trusted = Math.max(FIT * limits.idle, division);
  if (Math.abs(offset) > trusted)
    return {
      ...base,
      outcome: "unsure",
      sign: "zero-off",
      reasons: [
        `with the key on and the engine standing it shows ${hPa(offset)}: sensor or its supply first, no other reading counts`,
      ],
    };
  const backwards = running.find((p) => p.pressure < -trusted);
  if (backwards)
    return {
      ...base,
      outcome: "unsure",
      sign: "backwards",
      reasons: [
        `${hPa(backwards.pressure)} at ${backwards.rpm} rpm is less before the filter than behind it: its two pipes are swapped, or one is off`,
      ],
    };
  const coarse = division > FIT * limits.idle;
  const idle = of("idle").at(-1);
  const held = of("held").at(-1);
  const raised = held && atRaised(held, division);
  // However coarse the display: what is over with half a division taken off is over.
  const idleHigh = idle !== undefined && idle.pressure - division / 2 > limits.idle;
  const notes = [
    ...(coarse
      ? [`one division of ${hPa(division)} is too coarse for ${hPa(limits.idle)} at idle: the raised speed decides`]
      : []),
    ...(base.normalised && best?.maf === undefined && reading.egr !== "shut"
      ? ["without an MAF, and with EGR open or not known, the flow is known badly: compare with care"]
      : []),
  ];
  const misfit = idle && held && misfitOf(idle, held, division);
  if (misfit) return { ...base, outcome: "unsure", sign: "unclear", reasons: [...notes, misfit] };
  if (raised && raised.high < NOTHING * limits.good)
    return {
      ...base,
      outcome: "unsure",
      sign: "none",
      reasons: [
        ...notes,
        `${hPa(held.pressure)} at ${held.rpm} rpm is next to nothing: its front pipe is off, split or blocked, or the core is melted or cracked through. Blow both pipes free, look at the core`,
      ],
    };
  if (raised && raised.low > limits.limit)
    return {
      ...base,
      outcome: "fail",
      sign: "loaded",
      reasons: [...notes, `${hPa(raised.low)} or more at 3000 rpm, ${hPa(limits.limit)} at most`, CULPRIT],
    };
  if (idleHigh)
    return {
      ...base,
      outcome: "fail",
      sign: "loaded",
      reasons: [...notes, `${hPa(idle.pressure)} at idle, ${hPa(limits.idle)} at most`, CULPRIT],
    };
  const doubts = [
    zero ? undefined : "its zero with the key on was not read",
    raised ? undefined : `hold ${RAISED} rpm without load and read it there: idle alone clears nothing`,
    raised && raised.high > limits.good
      ? `up to ${hPa(raised.high)} at 3000 rpm: good is ${hPa(limits.good)} or less, ${hPa(limits.limit)} the most`
      : undefined,
  ].filter((d) => d !== undefined);
  if (doubts.length > 0) return { ...base, outcome: "unsure", sign: "unclear", reasons: [...notes, ...doubts] };
  return {
    ...base,
    outcome: "pass",
    sign: "within",
    resetAllowed: true,
    reasons: [...notes, `${hPa(raised?.high ?? 0)} or less at 3000 rpm, good up to ${hPa(limits.good)}`],
  };
}

const CULPRIT = "it is often the victim: boost leak, EGR, injection or short trips come before cleaning it";

/** Why idle and a held speed cannot be of one filter in one unit; undefined where they can. */
function misfitOf(idle: FilterPoint, held: FilterPoint, division: number): string | undefined {
  const least = (p: FilterPoint) => p.pressure - division / 2 - SENSOR * Math.abs(p.pressure);
  const most = (p: FilterPoint) => p.pressure + division / 2 + SENSOR * Math.abs(p.pressure);
  const faster = held.rpm / idle.rpm;
  const [low, high] = HELD_OVER_IDLE;
  if (!(faster >= 2) || least(idle) <= 0) return undefined;
  const grew = held.pressure / idle.pressure;
  return most(held) / least(idle) < low || least(held) / most(idle) > high * Math.max(1, faster / 4)
    ? `${hPa(idle.pressure)} at idle and ${hPa(held.pressure)} at ${held.rpm} rpm do not fit each other (${formatNumber(grew, 1)} times): look at the unit of both, 1 kPa is 10 hPa`
    : undefined;
}

/** A held reading as it would be at 3000 1/min, Pa; undefined where it was held too far from that. */
function atRaised({ rpm, pressure }: FilterPoint, division: number): { low: number; high: number } | undefined {
  if (rpm < HELD[0] || rpm > HELD[1]) return undefined;
  const ends = POWER.map((power) => (RAISED / rpm) ** power);
  const wrong = Math.hypot(division / 2, 2 * SENSOR * pressure);
  return { low: (pressure - wrong) * Math.min(...ends), high: (pressure + wrong) * Math.max(...ends) };
}
