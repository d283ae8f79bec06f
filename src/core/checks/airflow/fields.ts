import { choice, fields, formOf, list, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { airTemperature, ambient, reads, rpm, takenSource, warm } from "../fields";

/** A steady moment at idle or at wide open throttle. */
export const airflowPointFields = fields({
  state: choice({ idle: "Idle", "wide-open": "Wide open throttle" }, { name: "The point", label: "Point", defaultValue: "idle" }),
  rpm: rpm({ label: "Engine speed, rpm", column: "engine speed, {state}" }),
  /** Air meter; absent on a speed-density engine */
  maf: quantity("mafFlow", {
    label: "MAF",
    units: ["g/s", "kg/h", "lb/min"],
    column: "MAF flow, {state}",
  }).optional(),
  /** Manifold, absolute */
  map: quantity("manifold", {
    label: "Manifold pressure, absolute",
    units: ["kPa", "hPa", "psi"],
    column: "manifold pressure, {state}",
  }).optional(),
});
export type AirflowPoint = RecordOf<typeof airflowPointFields>;

/** Air meter and manifold pressure at idle and at wide open throttle: typed one by one, or found in a log. */
export const airflowFields = fields({
  points: list(airflowPointFields.group, {
    label: "Points",
    min: [1, "Give the reading at idle, at wide open throttle, or both"],
    max: 20,
    empty: [],
  }),
  source: takenSource({ kind: "typed" }),
  warm: warm(),
  ambient: ambient(),
  intakeTemperature: airTemperature("Intake temperature is missing"),
});
export type AirflowRecord = RecordOf<typeof airflowFields>;

export const airflowForm = checkForm(airflowFields, { aside: { reads: reads("log") } });

interface PointFacts {
  /** The engine has an air meter: then it is what is read; otherwise the manifold's pressure is */
  readonly metered: boolean;
}

/** One point of an airflow check, typed. */
export const airflowPointForm = formOf<PointFacts>()(airflowPointFields, {
  ask: {
    maf: {
      example: ({ value }) => (value("state") === "idle" ? "1.9" : "62"),
      when: ({ known }) => known.metered,
      needed: () => "Type what the MAF reads",
    },
    map: {
      example: ({ value }) => (value("state") === "idle" ? "33" : "97"),
      needed: ({ known }) => (known.metered ? undefined : "Type the manifold pressure, absolute"),
    },
  },
});
