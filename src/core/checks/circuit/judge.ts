import { formatNumber, toSi } from "../../units";
import type { CheckContext } from "../context";
import { instrumentDoubt } from "../instrument";
import { jointName, type Measure, type Verdict, voidVerdict } from "../verdict";
import type { CircuitRecord, PinReading } from "./fields";
import { type Pin, pinsOf } from "./pins";
import type { Seen } from "./rows";

/** A battery below this cannot carry a verdict, V. */
const FLAT = 11.5;

/** Whether a pin reads as it must. */
export function pinGood(pin: Pin, reading: PinReading, battery: number, limits: CheckContext["limits"]): boolean {
  if (pin.expects === "lamp") return reading.lamp === "bright";
  const volts = reading.voltage === undefined ? Number.NaN : toSi(reading.voltage);
  if (pin.expects === "battery") return volts >= battery - limits.feedDrop.value;
  if (pin.expects === "across") return volts >= limits.loadShare.value * battery;
  return Math.abs(volts) <= limits.feedDrop.value;
}

/** Judges a circuit in the order of its pins and stops at the first that is wrong: what lies beyond cannot be told. */
export function judgeCircuit(record: CircuitRecord, context: CheckContext): Verdict<Seen> {
  const { limits, layout } = context;
  const name = jointName(layout, record.joint);
  if (record.needsEngine && !record.engineRunning) {
    return voidVerdict(
      `${name}: the circuit was dead on purpose`,
      "this circuit is live only with the engine running: start it and measure again",
    );
  }
  const battery = toSi(record.battery);
  const pins = pinsOf(record.wiring, record.switched);
  const reading = (pin: Pin) => record.readings.find((r) => r.pin === pin.id);
  const measures: Measure[] = pins.flatMap((pin) => {
    const voltage = reading(pin)?.voltage;
    if (!voltage) return [];
    const limit =
      pin.expects === "battery"
        ? `within ${formatNumber(limits.feedDrop.value, 1)} V of the battery`
        : pin.expects === "across"
          ? `${formatNumber(100 * limits.loadShare.value, 0)} % of the battery across the load`
          : `below ${formatNumber(limits.feedDrop.value, 1)} V on the ground side`;
    const source = pin.expects === "across" ? limits.loadShare.source : limits.feedDrop.source;
    return [{ name: pin.name, value: voltage, limit, limitSource: source }];
  });
  const base = { measures, zones: [] };
  if (battery < FLAT) {
    return {
      ...base,
      outcome: "unsure",
      headline: `The battery stands at ${formatNumber(battery, 1)} V`,
      reasons: ["charge it first: every voltage in the circuit is held against it"],
    };
  }
  const beyond = record.readings.find((r) => r.voltage && toSi(r.voltage) > battery + 1);
  if (beyond)
    return voidVerdict(
      `${name}: the readings cannot be`,
      "a pin showed more than the battery: look at the meter's range, or measure the battery again as it stands now",
    );
  const doubt = instrumentDoubt(record.instrument, limits.feedDrop.value, limits);
  if (doubt) return { ...base, outcome: "unsure", headline: "Meter not usable: zero or division", reasons: [doubt] };
  const seal = record.pierced ? ["a wire was pierced: it stays on the off-the-car list until it is sealed"] : [];
  for (const pin of pins) {
    const taken = reading(pin);
    if (!taken) {
      return {
        ...base,
        outcome: "unsure",
        headline: `Good as far as measured; next: ${pin.name.toLowerCase()}`,
        reasons: [pin.how, ...seal],
      };
    }
    if (!pinGood(pin, taken, battery, limits)) {
      const shown = taken.voltage ? `${formatNumber(toSi(taken.voltage), 2)} V` : `lamp ${taken.lamp}`;
      return {
        ...base,
        outcome: "fail",
        headline: `${name}: dead at “${pin.name.toLowerCase()}”, ${shown}`,
        reasons: [pin.broken, ...seal],
        observation: `circuit-dead:${record.joint}`,
        tested: [record.joint],
      };
    }
  }
  return {
    ...base,
    outcome: "pass",
    headline: `${name}: fed, switched and carrying current`,
    reasons: ["the circuit is right: what does not work now is the part itself", ...seal],
    observation: `circuit-good:${record.joint}`,
    tested: [record.joint],
  };
}
