import type { Bodies, CodeRead, EntryKind } from "../journal/entries";
import { fromSi } from "../units";
import { arrivalCodes, type PracticeCase } from "./case";
import { ecuMemory, monitorCodes } from "./ecu-codes";
import { ObdEcu } from "./obd-ecu";
import { scanCodes } from "./obd-scan";
import type { World } from "./world";

/** Air in the sun of a bay and an engine that has run, K. */
const WARM = 358;

/** Data a generic tool reads out of the car's ECU, and what other modules keep of other times. */
function heldBy(given: PracticeCase, { car, lived }: World): CodeRead[] {
  const memory = ecuMemory(arrivalCodes(given), lived);
  const petrol = car.context.vehicle.fuel === "petrol";
  const ecu = new ObdEcu(() => ({ ...memory, values: {}, petrol, vin: "", running: false }));
  return [...scanCodes(ecu), ...memory.codes.filter((c) => c.status === "history")];
}

/** Answers of this car to whoever reads, drives or tries it, by the entry that is made of it: a part of its body. `now` by the bay's clock. */
export const ANSWERS = {
  codes: (world: World, given: PracticeCase): Bodies["codes"] => ({ codes: heldBy(given, world) }),
  conditions: ({ car, engine }: World): Bodies["conditions"] => ({
    ambient: fromSi(Math.round(car.ambient / 100) * 100, "hPa", "absolute"),
    bayTemperature: fromSi(Math.round(car.temperature - 273.15) + 273.15, "°C"),
    engine,
  }),
  "complaint-tried": ({ car }: World): Bodies["complaint-tried"] => ({
    how: "The same road, the same load, the same warm-up",
    result: car.faults.length > 0 ? "remains" : "gone",
  }),
  drive: ({ car, engine }: World): Bodies["drive"] => {
    const cold = engine === "cold";
    return {
      minutes: 35,
      distance: { value: 32, unit: "km" },
      load: "hills",
      keyCycle: true,
      ...(cold
        ? {
            coldStart: true,
            start: {
              coolant: fromSi(Math.round(car.temperature - 273.15) + 274.15, "°C"),
              air: fromSi(Math.round(car.temperature - 273.15) + 273.15, "°C"),
            },
          }
        : { start: { coolant: fromSi(WARM, "°C"), air: fromSi(Math.round(car.temperature - 273.15) + 273.15, "°C") } }),
      pending: monitorCodes(car).length > 0 ? "came" : "none",
    };
  },
  monitor: ({ car, lived }: World): Bodies["monitor"] => {
    const leaks = car.faults.some((f) => /^(vapour-leak|vent-|purge-)/.test(f.cause.trait));
    return {
      result: lived.at(-1) === "cleared" ? "not-complete" : leaks ? "failed" : "passed",
      readBy: "Scan tool, monitor results",
    };
  },
  readiness: ({ car }: World, _given: PracticeCase, now: string): Bodies["readiness"] => ({
    parkedAt: now,
    fuelLevel: car.fuelLevel,
    outside: fromSi(Math.round(car.temperature - 273.15) + 273.15, "°C"),
  }),
} as const satisfies { readonly [K in EntryKind]?: (world: World, given: PracticeCase, now: string) => object };
export type Answered = keyof typeof ANSWERS;
