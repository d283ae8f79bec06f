import { v4 as uuid } from "uuid";
import * as yup from "yup";
import {
  choice,
  fields,
  formOf,
  group,
  list,
  number,
  pattern,
  plain,
  quantity,
  type RecordOf,
  text,
  typedQuantity,
} from "../form";
import { type BallCurve, calibrateBall } from "../gas/flow-ball";
import { BadInput } from "../input";
import { isQuantity, parseNumber, parseQuantity, type Quantity, toSi } from "../units";

export const MACHINE_KINDS = {
  "low-pressure": "Low-pressure smoke",
  "evap-safe": "Smoke, regulated below the EVAP ceiling",
  "boost-capable": "Smoke and air up to boost pressure",
  plain: "Plain smoke maker: no ball, no gauge",
} as const;

export const SERVICE_KINDS = { fluid: "Smoke fluid", filter: "Filter", repair: "Repair", check: "Checked" } as const;

/** A day like 2026-01-31, as it is where nobody says another. */
const today = (missing: string) =>
  pattern(/^\d{4}-\d\d-\d\d$/, "A day looks like 2026-01-31", { missing }).known(() => new Date().toISOString().slice(0, 10));

/** Reference hole and ball height in a line, "0.020 in 3.1". Throws BadInput for a line that is not. */
function calibrationPoint(line: string): CalibrationPoint {
  const m = /^(.+?)[\s:=]+([\d.,]+)$/.exec(line);
  const hole = m && parseQuantity(m[1] as string, { dimension: "length", unit: "in" });
  const height = m && parseNumber(m[2] as string);
  if (!hole?.ok || !height?.ok)
    throw new BadInput(`"${line}": write the hole, then the ball's height, like 0.020 in 3.1`, "calibration.points");
  return { diameter: hole.value, height: height.value };
}

const point = group({
  height: number({
    name: "The ball's height",
    wrong: "The ball's height is a number on its scale",
    above: [0, "The ball must have risen: a height is above 0"],
    missing: "Type the ball's height",
  }),
  diameter: quantity("hole", { missing: "State the reference hole" }),
});
type CalibrationPoint = (typeof point)["value"];

/** Whether a bigger hole lifts the ball higher at every point. */
const rises = (points: readonly Partial<CalibrationPoint>[]): boolean => {
  const sorted = [...points].sort((a, b) => (a.height ?? 0) - (b.height ?? 0));
  return sorted.every((p, i) => {
    const before = sorted[i - 1];
    if (!before) return true;
    const both = isQuantity(p.diameter) && isQuantity(before.diameter);
    return (p.height ?? 0) > (before.height ?? 0) && both && toSi(p.diameter as Quantity) > toSi(before.diameter as Quantity);
  });
};

/** Ball heights with known holes on the hose, at a set pressure. */
export const calibrationFields = fields({
  on: today("Say on which day it was calibrated"),
  pressure: quantity("ratedPressure", {
    label: "Pressure while the holes were open, gauge",
    units: ["inH2O", "psi", "mbar", "hPa", "kPa"],
    example: "13",
    missing: "State the gauge pressure while the holes were open",
  }),
  points: list(point, {
    label: "Reference hole and ball height, one a line",
    example: "0.010 in 0.9\n0.020 in 3.1\n0.040 in 9.6",
    min: [1, "Calibration needs at least one reference hole"],
    max: 12,
    lines: {
      read: calibrationPoint,
      write: ({ diameter, height }) => `${diameter.value} ${diameter.unit} ${height}`,
    },
  }).rule("", "A bigger reference hole must lift the ball higher: check the calibration points", (points) =>
    rises(points as readonly Partial<CalibrationPoint>[]),
  ),
});
export type Calibration = RecordOf<typeof calibrationFields>;

/** Its own pressure and holes are proposed where it was calibrated before. */
export const calibrationForm = formOf<{ readonly machine: Machine }>()(calibrationFields, {
  ask: {
    pressure: {
      unit: ({ known }) => known.machine.ratedPressure.unit,
      defaultValue: ({ known: { machine } }) => typedQuantity(machine.calibration?.pressure ?? machine.ratedPressure),
    },
    points: {
      defaultValue: ({ known: { machine } }) =>
        (machine.calibration?.points ?? []).map((p) => `${p.diameter.value} ${p.diameter.unit} ${p.height}`).join("\n"),
    },
  },
});

/** Events: what was done to a machine, and when. */
const serviceFields = fields({
  on: today("Say on which day"),
  what: choice(SERVICE_KINDS, { label: "What was done", defaultValue: "fluid" }),
  note: text({ name: "The note", label: "Note" }).optional(),
});
type Service = RecordOf<typeof serviceFields>;
export const serviceForm = formOf<undefined>()(serviceFields, {});

const UNITS_OF_FLOW = ["L/min", "SCFH", "cc/min"] as const;

/** A smoke machine and what its maker says of it. */
export const machineFields = fields({
  id: plain<string>(yup.string()).known(() => uuid()),
  name: text({ name: "The machine", label: "Machine", missing: "Name the machine", max: 60 }),
  kind: choice(MACHINE_KINDS, { label: "Kind", list: true, defaultValue: "low-pressure" }),
  ratedPressure: quantity("ratedPressure", {
    label: "Rated pressure, gauge",
    units: ["inH2O", "psi", "mbar", "hPa", "kPa"],
    example: "13",
  }),
  /** Standard flow with the hose open: the top of its scale */
  maxFlow: quantity("smokeFlow", { label: "Flow, hose open", units: UNITS_OF_FLOW, example: "12" }),
  /** s until heater or pump stops by itself */
  autoOff: number({
    name: "Auto-off",
    label: "Auto-off, s",
    defaultValue: "300",
    min: [10, "Auto-off is at least 10 s"],
    max: [7200, "No machine runs for two hours by itself"],
    missing: "State the auto-off time in seconds",
  }),
  /** One division of the ball's scale; a fortieth of its top where nobody said */
  division: quantity("smokeFlow", { label: "Ball division", units: UNITS_OF_FLOW, example: "0.3" }).optional(),
  calibration: calibrationFields.group.optional(),
  service: list(serviceFields.group, { max: 500 }),
});
export type Machine = RecordOf<typeof machineFields>;

export const machineForm = formOf<undefined>()(machineFields, {
  only: ["name", "kind", "ratedPressure", "maxFlow", "division", "autoOff"],
  ask: { division: { when: ({ value }) => value("kind") !== "plain" } },
  computed: { service: (): readonly Service[] => [] },
});

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
