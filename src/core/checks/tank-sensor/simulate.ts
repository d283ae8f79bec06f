import { hasTrait } from "../../practice/car";
import { type Bay, gaugeIn, shown } from "../../practice/readers/bay";
import { toSi } from "../../units";
import type { TankSensorRecord } from "./fields";

export const simulate = (bay: Bay): TankSensorRecord => {
  const { car, noise } = bay;
  const curve = car.context.vehicle.evap?.sensor;
  const lies = hasTrait(car, "tank-sensor");
  const zero = (curve ? toSi(curve.zero) : 2.5) + (lies ? 0.5 + 0.6 * lies.size : 0) + noise.normal(0.02);
  const known = { value: -10, unit: "inH2O", kind: "gauge" } as const;
  const perPa = curve ? curve.perUnit / toSi({ value: 1, unit: curve.unit }) : 2e-4;
  return {
    keyOn: true,
    capOff: true,
    zero: shown(zero, "V", 0.01),
    second: { pressure: known, signal: shown(zero + perPa * toSi(known) * (lies ? 0.3 : 1), "V", 0.01) },
    instrument: gaugeIn("V", 0.01),
  };
};
