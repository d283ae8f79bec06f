import { formatNumber, formatQuantity, fromSi, toSi, UNITS } from "../../units";
import { atomOf, type Claim, type Says } from "../claim";
import type { CheckContext } from "../context";
import type { CheckKind, Plan } from "../contract";
import { instrumentDoubt } from "../instrument";
import { evapOnly } from "../unfit";
import type { Measure, Verdict } from "../verdict";
import { voidVerdict } from "../verdict";
import { tankSensorCandidates } from "./candidates";
import { type TankSensorRecord, tankSensorFields, tankSensorForm } from "./fields";
import { rows, type Seen } from "./rows";

export * from "./fields";

/** Share by which a sensor's slope may miss its curve. */
const SLOPE = 0.15;
/** Change that a known pressure must make by the curve before it says anything of the slope, V. */
const LEAST_CHANGE = 0.2;

function planTankSensor({ vehicle, limits }: CheckContext): Plan {
  const zero = vehicle.evap?.sensor?.zero;
  return {
    steps: [
      { text: "Key on, engine off, filler cap off: the tank stands at ambient.", caution: "fuel-vapour" },
      {
        text: `Read its signal at the sensor or on the scan tool: ${zero ? `${formatQuantity(zero)} ± ${formatNumber(limits.sensorZero.value, 1)} V by its own curve` : "compare it with this sensor's own curve, a vehicle fact"}.`,
      },
      {
        text: "Where a known pressure can be put on it (a few inH2O, below the EVAP ceiling), read it again: zero alone does not prove its slope.",
        caution: "evap-pressure",
      },
    ],
    displaces: [{ joint: "filler-cap", what: "filler cap off" }],
    cautions: ["fuel-vapour"],
    clocks: [],
  };
}

/** Judges a tank-pressure sensor against its own curve: its zero with the cap off, and its slope where that was tried. */
export function judgeTankSensor(record: TankSensorRecord, context: CheckContext): Verdict<Seen> {
  const { limits, vehicle } = context;
  if (!record.capOff)
    return voidVerdict("The sensor's zero was not read", "the cap was on: the tank may stand above or below ambient");
  if (!record.keyOn) return voidVerdict("The sensor's zero was not read", "the key was off: the sensor had no supply");
  const curve = vehicle.evap?.sensor;
  const limit = limits.sensorZero.value;
  const zero = toSi(record.zero);
  const measures: Measure[] = [
    {
      name: "Signal, cap off",
      value: record.zero,
      ...(curve
        ? { limit: `${formatQuantity(curve.zero)} ± ${formatNumber(limit, 1)} V`, limitSource: limits.sensorZero.source }
        : {}),
    },
  ];
  if (!curve) {
    return {
      outcome: "unsure",
      headline: `The sensor shows ${formatQuantity(record.zero)} with the cap off`,
      measures,
      reasons: ["its own curve is not known: write volts at zero and volts per unit down with the vehicle"],
      zones: [],
    };
  }
  const off = zero - toSi(curve.zero);
  const second = record.second && secondPoint(record.second, zero, curve);
  if (second)
    measures.push({
      name: "Change under the known pressure",
      value: fromSi(second.change, "V"),
      limit: `${formatNumber(second.expected, 2)} V by its curve`,
    });
  if (Math.abs(off) > limit) {
    return {
      outcome: "fail",
      headline: `The tank-pressure sensor stands ${formatNumber(Math.abs(off), 2)} V ${off > 0 ? "above" : "below"} its own zero`,
      measures,
      reasons: ["first its supply, ground and plug; then the sensor. Until it reads right no monitor result counts"],
      observation: "sensor-off",
      zones: [],
    };
  }
  if (second && Math.abs(second.expected) >= LEAST_CHANGE && Math.abs(second.change / second.expected - 1) > SLOPE) {
    return {
      outcome: "fail",
      headline: "The tank-pressure sensor's zero is right and its slope is not",
      measures,
      reasons: ["a pinched or blocked sensing hose, fuel in it, or the sensor"],
      observation: "sensor-off",
      zones: [],
    };
  }
  const doubt = instrumentDoubt(record.instrument, limit, limits);
  if (doubt) return { outcome: "unsure", headline: "Meter not usable: zero or division", measures, reasons: [doubt], zones: [] };
  if (second && Math.abs(second.expected) < LEAST_CHANGE) {
    return {
      outcome: "unsure",
      headline: "The sensor's zero is right; the known pressure is too small to show its slope",
      measures,
      reasons: [`put on a pressure that moves it by ${formatNumber(LEAST_CHANGE, 1)} V or more, and read it again`],
      observation: "sensor-zero-right",
      zones: [],
    };
  }
  if (!second) {
    return {
      outcome: "unsure",
      headline: "The sensor's zero is right; its slope is not shown",
      measures,
      reasons: ["put a known pressure on it and read it again"],
      observation: "sensor-zero-right",
      zones: [],
    };
  }
  return {
    outcome: "pass",
    headline: "The tank-pressure sensor reads right at zero and under pressure",
    measures,
    reasons: [],
    observation: "sensor-good",
    zones: [],
  };
}

function secondPoint(
  second: NonNullable<TankSensorRecord["second"]>,
  zero: number,
  curve: { perUnit: number; unit: keyof typeof UNITS },
) {
  const pressure = toSi(second.pressure) / UNITS[curve.unit].scale;
  return { change: toSi(second.signal) - zero, expected: pressure * curve.perUnit };
}

/** Its zero, and its slope where a known pressure was put on it. */
function tankSensorClaims(record: TankSensorRecord, verdict: Verdict, { vehicle, limits }: CheckContext): Claim[] {
  const curve = vehicle.evap?.sensor;
  if (verdict.outcome === "void" || !curve) return [];
  const zero = toSi(record.zero);
  const off = Math.abs(zero - toSi(curve.zero)) > limits.sensorZero.value;
  const second = record.second && secondPoint(record.second, zero, curve);
  const enough = second !== undefined && Math.abs(second.expected) >= LEAST_CHANGE;
  const bent = enough && Math.abs(second.change / second.expected - 1) > SLOPE;
  const carried = verdict.outcome === "pass" || verdict.outcome === "fail";
  const says = (bad: boolean): Says => (bad ? "bad" : carried ? "good" : "open");
  const rests = ["tank-sensor"];
  return [
    { ...atomOf("zero", "tank-sensor"), says: says(off), words: "tank-pressure sensor at zero", rests },
    {
      ...atomOf("slope", "tank-sensor"),
      says: enough ? says(bent && !off) : "open",
      words: "tank-pressure sensor under a known pressure",
      rests,
    },
  ];
}

export const tankSensor: CheckKind<TankSensorRecord, unknown, Seen> = {
  id: "tank-sensor",
  name: "Tank-pressure sensor",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Cap off, key on: the sensor against its own curve",
  engine: "standing",
  tool: "scan-tool",
  unfit: evapOnly,
  role: "measures",
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: tankSensorCandidates,
  claims: tankSensorClaims,
  setup: () => ["filler-cap"],
  hides: () => ["filler-cap"],
  fields: tankSensorFields,
  form: tankSensorForm,
  plan: planTankSensor,
  judge: judgeTankSensor,
};
