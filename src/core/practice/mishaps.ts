import type { CheckId } from "../checks";
import type { EvapSmokeRun } from "../checks/evap-smoke";
import type { PressureTest } from "../checks/pressure-test";
import { isAbove, testStage } from "../checks/pressure-test/stage";
import type { ValveRecord } from "../checks/valve";
import { causesOf, FAMILY_IDS } from "../faults";
import { toSi } from "../units";
import type { Car, Fault } from "./car";

/** Result of a wrong move at an instrument. */
export interface Mishap {
  readonly says: string;
  readonly breaks: readonly Fault[];
  /** Marks besides the repair */
  readonly bill?: number;
}

/** A driver in the ECU that 12 V came back into, marks. */
const DRIVER = 380;
/** A gauge a little off is no pressure above the ceiling. */
const TOO_MUCH = 1.1;

/** Faults of this car that something done to it can bring. */
const breaking = (car: Car, size: number, is: (cause: Fault["cause"]) => boolean): Fault[] =>
  causesOf(car.context.layout, car.context.vehicle, FAMILY_IDS)
    .filter(is)
    .map((cause) => ({ cause, size }));

const valve = ({ power, unplugged, joint }: ValveRecord, car: Car): Mishap | undefined =>
  power === "12v" && !unplugged
    ? {
        says: "12 V went back into the ECU with the plug on: its driver is burnt, and the bill is yours",
        breaks: breaking(car, 0.5, (c) => c.trait === "circuit-dead" && (c.joint === joint || c.device === joint)),
        bill: DRIVER,
      }
    : undefined;

function pressureTest(test: PressureTest, car: Car): Mishap | undefined {
  const top = Math.max(0, ...test.steps.map((s) => toSi(s.pressure)));
  if (!isAbove(top, testStage(test, car.context))) return undefined;
  const weak = breaking(car, 0.6, (c) => c.id === "cooler-tank" || c.id === "hot-pipe-clamp");
  const tank = weak.filter((f) => f.cause.id === "cooler-tank");
  return {
    says: "more pressure than the weakest part is rated for: something has given way",
    breaks: (tank.length > 0 ? tank : weak).slice(0, 1),
  };
}

function evapSmoke({ regulated, proof, machine }: EvapSmokeRun, car: Car): Mishap | undefined {
  const on = toSi(regulated ?? proof?.pressure ?? machine.ratedPressure);
  if (on <= TOO_MUCH * car.context.limits.evapCeiling.value) return undefined;
  return {
    says: "more pressure than a vapour system is rated for: the canister's seam has opened",
    breaks: breaking(car, 0.6, (c) => c.id === "canister-joint"),
  };
}

/** Mishaps that can happen at an instrument, by its kind. */
export const MISHAPS = { valve, "pressure-test": pressureTest, "evap-smoke": evapSmoke } as unknown as Readonly<
  Partial<Record<CheckId, (record: object, car: Car) => Mishap | undefined>>
>;
