import { fields, group, list, number, oneOf, only, pattern, quantity, type RecordOf, text, tick } from "../../form";
import { calibrationFields } from "../../shop/machine";
import type { UnitId } from "../../units";
import { airTemperature, ambient, joint, joints, moment, series, source, zone } from "../fields";

const machine = group({
  name: text({ name: "The machine", missing: "Name the smoke machine", max: 60 }),
  /** Gauge */
  ratedPressure: quantity("ratedPressure", { missing: "State the machine's rated pressure" }),
  maxFlow: quantity("smokeFlow", { missing: "State the machine's flow with the hose open" }),
  /** s after switching on until heater or pump stops by itself */
  autoOff: number({
    name: "The auto-off time",
    min: [10, "No machine stops by itself within 10 s"],
    max: [7200, "The auto-off time is longer than two hours"],
    missing: "State the machine's auto-off time",
  }),
  /** One division of the ball's scale */
  division: quantity("smokeFlow").optional(),
  /** It has neither ball nor gauge: it can find, it cannot clear */
  plain: only(),
  /** The machine's own curve; without it its scale is taken at its word */
  calibration: calibrationFields.group.optional(),
});

const proof = group({
  /** A plain machine has no gauge to read it on */
  pressure: quantity("smokePressure").optional(),
  ballAtBottom: tick(),
  smokeSeen: tick(),
  /** ISO time, where it was taken for another run of the session, or after this one */
  takenAt: pattern(/^\d{4}-\d\d-\d\dT[\d:.]{8,12}Z$/, "When it was taken must be an ISO time in UTC").optional(),
});

/** One low-pressure smoke run of any circuit, as it went. Times in s from the moment the hose went on. */
export const smokeRun = {
  machine,
  /** Hose clamped, before the run, earlier in the session or after the run; absent when it was not done */
  proof: proof.optional(),
  /** Joint smoke was let in at */
  entry: joint(),
  /** Which side of it, where it is not the usual one */
  into: zone().optional(),
  blocked: joints(),
  heldOpen: joints(),
  /** Where the crank stood: another position is another opening of the valves */
  crank: text({ name: "The crank's position", max: 60 }).optional(),
  /** When the heater was switched on, s (negative: before the hose went on) */
  heaterOnAt: moment("Heater on"),
  units: group({
    flow: oneOf<UnitId>(["L/min", "cc/min", "SCFH"], "The unit of flow"),
    pressure: oneOf<UnitId>(["Pa", "hPa", "kPa", "mbar", "bar", "psi", "inHg", "mmHg", "inH2O", "mmH2O"], "The unit of pressure"),
  }),
  /** [s, flow, gauge pressure] in `units` */
  samples: series<readonly [number, number, number]>(
    [
      { name: "Flow", low: 0, high: 1e5 },
      { name: "Pressure", low: -1e5, high: 1e5 },
    ],
    20_000,
    { rising: "not falling" },
  ),
  /** Far ends opened until smoke came out, then shut again */
  arrivals: list(group({ zone: zone(), at: moment("Arrival") }), { max: 60 }),
  seen: list(group({ joint: joint(), at: moment("Smoke seen") }), { max: 60 }),
  /** Everything was looked at under good light and nothing showed */
  noSmokeOutside: tick(),
  /** Blocks that came off or commands that dropped out during the run */
  cameUndone: joints(),
  /** Joints tightened or touched before the run */
  touchedBefore: joints(),
  adapterLeaks: tick().optional(),
  draughtOrGlare: tick().optional(),
  /** Gauge and ball at zero before the run */
  zeroed: tick(),
  ambient: ambient(),
  temperature: airTemperature(),
  endedAt: moment("End of the run"),
  /** The device that ball and gauge were read from, where no hand did */
  source: source().optional(),
};

export const smokeFields = fields(smokeRun);
export type SmokeRun = RecordOf<typeof smokeFields>;
