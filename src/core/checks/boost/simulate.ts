import { engineTruth, hasTrait, stateAt } from "../../practice/car";
import type { Driving } from "../../practice/engine-truth";
import { type Bay, shown } from "../../practice/readers/bay";
import { ambientOf, limpOf, mapOf, meterOf, rpmOf } from "../../practice/readers/running";
import type { BoostRecord } from "./fields";

/** The same as the mean of a steady moment in a log. */
const HELD_METER = 0.006;

/** A pull in one gear: steady moments off boost and under it. */
export const simulate = (bay: Bay): BoostRecord => {
  const { car, noise } = bay;
  const { vehicle } = car.context;
  const offset = hasTrait(car, "boost-sensor");
  const wrong = offset ? 4000 + 5000 * offset.size : 0;
  const full = engineTruth(car).boost ?? 0;
  const points = [1600, 2000, 2400, 2800, 3200].flatMap((rpm) =>
    [0, 0.35, 0.6, 0.8, 1].map((pull): Driving => ({ road: { rpm, map: car.ambient + pull * full } })),
  );
  const asked = (d: Driving) => d.road?.map ?? car.ambient;
  return {
    source: { kind: "typed" },
    points: points.map((driving) => {
      const state = stateAt(car, driving);
      const under = asked(driving) > car.ambient + 1;
      return {
        rpm: rpmOf(bay, state),
        map: mapOf(bay, state),
        charge: shown(state.charge + wrong + noise.normal(300), "kPa", 0.1, "absolute"),
        ...(under ? { asked: shown(asked(driving), "kPa", 0.1, "absolute") } : {}),
        ...(vehicle.metering === "maf" ? { maf: meterOf(bay, state, HELD_METER) } : {}),
        chargeTemperature: shown(car.temperature + 20 + noise.normal(1), "°C", 1),
      };
    }),
    keyOn: {
      map: shown(car.ambient + noise.normal(200), "kPa", 0.1, "absolute"),
      charge: shown(car.ambient + wrong + noise.normal(200), "kPa", 0.1, "absolute"),
    },
    ...limpOf(car),
    egr: "shut",
    ambient: ambientOf(bay),
    warm: true,
  };
};
