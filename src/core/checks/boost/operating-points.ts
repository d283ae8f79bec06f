import { toSi } from "../../units";
import type { OperatingPoint } from "../side-by-side";
import type { BoostRecord } from "./fields";

/** A pressure sensor's and a meter's standard deviation: kPa, and share. */
const PRESSURE_SD = 0.7;
const METER_SD = 0.02;

/** A boost log by operating point: what was asked for loads the engine, what was delivered and metered is read. */
export const boostOperatingPoints = ({ points }: BoostRecord): OperatingPoint[] =>
  points.map((p) => {
    const got = p.charge ?? p.map;
    const asked = p.asked ?? got;
    return {
      rpm: p.rpm,
      ...(asked ? { load: { of: "pressure" as const, value: toSi(asked) } } : {}),
      temperature: toSi(p.chargeTemperature),
      readings: [
        ...(got ? [{ name: "boost delivered, absolute", unit: "kPa", value: toSi(got) / 1000, sd: PRESSURE_SD }] : []),
        ...(got && p.asked
          ? [{ name: "below requested", unit: "kPa", value: (toSi(p.asked) - toSi(got)) / 1000, sd: PRESSURE_SD }]
          : []),
        ...(p.maf ? [{ name: "MAF", unit: "g/s", value: toSi(p.maf) * 1000, sd: METER_SD * toSi(p.maf) * 1000 }] : []),
      ],
    };
  });
