import * as yup from "yup";
import { type BallCurve, calibrateBall } from "../gas/flow-ball";
import { BadInput, line, needed, strictObject } from "../input";
import { isQuantity, parseNumber, parseQuantity, type Quantity, quantitySchema, toSi, UNITS } from "../units";

export const MACHINE_KINDS = {
  "low-pressure": "Low-pressure smoke",
  "evap-safe": "Smoke, regulated below the EVAP ceiling",
  "boost-capable": "Smoke and air up to boost pressure",
  plain: "Plain smoke maker: no ball, no gauge",
} as const;
export type MachineKind = keyof typeof MACHINE_KINDS;

export const SERVICE_KINDS = { fluid: "Smoke fluid", filter: "Filter", repair: "Repair", check: "Checked" } as const;
export type ServiceKind = keyof typeof SERVICE_KINDS;

/** Ball heights with known holes on the hose, at a set pressure. */
export interface Calibration {
  /** Day, like 2026-01-31 */
  readonly on: string;
  /** Gauge, while the holes were open */
  readonly pressure: Quantity;
  readonly points: readonly { readonly height: number; readonly diameter: Quantity }[];
}

/** Reference holes and ball heights as typed, one a line: "0.020 in 3.1". Throws BadInput for a line that is not. */
export const calibrationPoints = (text: string): Calibration["points"] =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => {
      const m = /^(.+?)[\s:=]+([\d.,]+)$/.exec(line);
      const hole = m && parseQuantity(m[1] as string, { dimension: "length", unit: "in" });
      const height = m && parseNumber(m[2] as string);
      if (!hole?.ok || !height?.ok)
        throw new BadInput(`"${line}": write the hole, then the ball's height, like 0.020 in 3.1`, "calibration.points");
      return { diameter: hole.value, height: height.value };
    });

/** A smoke machine and what its maker says of it. */
export interface Machine {
  readonly id: string;
  readonly name: string;
  readonly kind: MachineKind;
  /** Gauge */
  readonly ratedPressure: Quantity;
  /** Standard flow with the hose open: the top of its scale */
  readonly maxFlow: Quantity;
  /** s until heater or pump stops by itself */
  readonly autoOff: number;
  /** One division of the ball's scale; a fortieth of its top where nobody said */
  readonly division?: Quantity;
  readonly calibration?: Calibration;
  readonly service: readonly { readonly on: string; readonly what: ServiceKind; readonly note: string }[];
}

/** Which way from the air outside a gauge reads. */
export const READS = { vacuum: "Vacuum", pressure: "Pressure" } as const;
export type ReadsTo = keyof typeof READS;

/** A gauge or meter: what it measures and how finely. */
export interface Instrument {
  readonly id: string;
  readonly name: string;
  /** One division of its scale; the unit says what it measures */
  readonly division: Quantity;
  /** The most that it shows, either way from nothing; not said where left out */
  readonly end?: Quantity;
  /** The one way that its scale reads; both where left out */
  readonly reads?: ReadsTo;
}

/** Why an end of scale is none. */
export const SCALE_ENDS = "A scale ends further up than one division: type the most that it shows";
export const endsAboveDivision = ({ division, end }: { readonly division?: Quantity; readonly end?: Quantity | undefined }) =>
  !isQuantity(end) ||
  !isQuantity(division) ||
  (UNITS[end.unit].dimension === UNITS[division.unit].dimension && Math.abs(toSi(end)) > Math.abs(toSi(division)));

const day = yup.string().matches(/^\d{4}-\d\d-\d\d$/, "A day looks like 2026-01-31");

export const calibrationSchema = strictObject({
  on: day.required("Say on which day it was calibrated"),
  pressure: quantitySchema("ratedPressure").required("State the gauge pressure while the holes were open"),
  points: yup
    .array()
    .of(
      strictObject<Calibration["points"][number]>({
        height: yup
          .number()
          .typeError("The ball's height is a number on its scale")
          .moreThan(0, "The ball must have risen: a height lies above 0")
          .required("Type the ball's height"),
        diameter: quantitySchema("hole").required("State the reference hole"),
      }).required(),
    )
    .min(1, "Calibration needs at least one reference hole")
    .max(12)
    .required()
    .test("rising", "A bigger reference hole must lift the ball higher: check the calibration points", (points) => {
      const sorted = [...(points ?? [])].sort((a, b) => (a?.height ?? 0) - (b?.height ?? 0));
      return sorted.every((p, i) => {
        const before = sorted[i - 1];
        return !before || (p.height > before.height && toSi(p.diameter as Quantity) > toSi(before.diameter as Quantity));
      });
    }),
});

export const machineSchema = strictObject({
  id: yup.string().required(),
  name: needed("The machine", "Name the machine", 60),
  kind: yup
    .mixed<MachineKind>()
    .oneOf(Object.keys(MACHINE_KINDS) as MachineKind[])
    .required(),
  ratedPressure: quantitySchema("ratedPressure").required(),
  maxFlow: quantitySchema("smokeFlow").required(),
  autoOff: yup.number().min(10, "Auto-off is at least 10 s").max(7200).required("State the auto-off time in seconds"),
  division: quantitySchema("smokeFlow").optional().default(undefined),
  calibration: calibrationSchema.optional().default(undefined),
  service: yup
    .array()
    .of(
      strictObject({
        on: day.required("Say on which day"),
        what: yup
          .mixed<ServiceKind>()
          .oneOf(Object.keys(SERVICE_KINDS) as ServiceKind[])
          .required(),
        note: line("The note").defined(),
      }).required(),
    )
    .max(500)
    .required(),
});

/** A quantity of what a gauge or a meter measures. */
const measured = (value: Quantity | undefined) =>
  quantitySchema({ dimension: value?.unit === "V" || value?.unit === "mV" ? "voltage" : "pressure" });

export const instrumentSchema = strictObject({
  id: yup.string().required(),
  name: needed("The instrument", "Name the instrument", 60),
  division: yup.lazy((value: Quantity | undefined) =>
    measured(value).required("State one division of its scale"),
  ) as unknown as yup.Schema<Quantity>,
  end: yup.lazy((value: Quantity | undefined) => measured(value).optional().default(undefined)) as unknown as yup.Schema<
    Quantity | undefined
  >,
  reads: yup
    .mixed<ReadsTo>()
    .oneOf([...(Object.keys(READS) as ReadsTo[]), undefined], "It reads vacuum, pressure, or both")
    .optional(),
}).test("end", SCALE_ENDS, endsAboveDivision);

/**
 * The ball's curve of a machine's own calibration.
 * @param at ambient Pa absolute and temperature K of the day it was made; a few percent of either shift flow by half as much.
 */
export function ballCurve(calibration: Calibration, at: { ambient: number; temperature: number }): BallCurve {
  return calibrateBall(
    calibration.points.map((p) => ({ height: p.height, diameter: toSi(p.diameter) })),
    { pressure: toSi(calibration.pressure), ...at },
  );
}

/** One machine proof of the past: when, and what share of the rated pressure it reached. */
export interface Proof {
  readonly at: string;
  readonly share: number;
}

/** Fewest proofs a drift can be told from. */
export const FEWEST_PROOFS = 5;

/**
 * Whether a machine's proof pressure drifts downwards: the slope of an ordinary least-squares line over the order of the
 * proofs, against its own standard error (t above 2), and a fall of more than 3 % over the whole of them.
 * @param proofs oldest first; fewer than five say nothing.
 * @returns the fall over the proofs as a share of rated pressure, or undefined when it holds.
 */
export function proofDrift(proofs: readonly Proof[]): { readonly fall: number; readonly last: number } | undefined {
  const n = proofs.length;
  if (n < FEWEST_PROOFS) return undefined;
  const mean = (n - 1) / 2;
  const average = proofs.reduce((sum, p) => sum + p.share, 0) / n;
  const spread = (n * (n * n - 1)) / 12;
  const slope = proofs.reduce((sum, p, i) => sum + (i - mean) * (p.share - average), 0) / spread;
  const rest = proofs.reduce((sum, p, i) => sum + (p.share - average - slope * (i - mean)) ** 2, 0);
  const error = Math.sqrt(rest / (n - 2) / spread);
  const fall = -slope * (n - 1);
  return fall > 0.03 && -slope > 2 * error ? { fall, last: (proofs.at(-1) as Proof).share } : undefined;
}
