import { toSi } from "../../units";
import type { OperatingPoint } from "../side-by-side";
import type { TrimSurvey } from "./fields";

/** A total trim is known so well where its window gave no scatter, percent; a meter's flow, share. */
const TRIM_SD = 1;
const METER_SD = 0.02;

/** A survey by operating point: total trim of each bank (product of short and long) and what the meter says. */
export const trimOperatingPoints = ({ points, intakeTemperature }: TrimSurvey): OperatingPoint[] =>
  points.map((p) => {
    const flow = toSi(p.maf);
    return {
      rpm: p.rpm,
      load: p.map ? { of: "pressure", value: toSi(p.map) } : { of: "flow", value: flow },
      temperature: toSi(intakeTemperature),
      readings: [
        ...p.banks.flatMap((b, i) => {
          const total =
            b.total ??
            (b.short === undefined || b.long === undefined ? undefined : 100 * ((1 + b.short / 100) * (1 + b.long / 100) - 1));
          if (total === undefined) return [];
          const name = p.banks.length > 1 ? `total trim, bank ${i + 1}` : "total trim";
          return [{ name, unit: "%", value: total, sd: Math.hypot(TRIM_SD, b.scatter ?? 0) }];
        }),
        { name: "MAF", unit: "g/s", value: flow * 1000, sd: METER_SD * flow * 1000 },
      ],
    };
  });
