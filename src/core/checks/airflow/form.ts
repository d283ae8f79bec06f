import { formOf } from "../../form";
import type { RecordSource } from "../fields";
import { AIR_ELSEWHERE, airOf, checkForm, readsField, warmField } from "../known";
import { type AirflowPoint, type AirflowRecord, airflowPointSchema, airflowSchema } from "./record";

/** What the engine breathes: its points are typed one by one, or found in a log. */
export const airflowForm = checkForm<AirflowRecord>()({
  schema: airflowSchema,
  fields: {
    points: { type: "taken", label: "Points", empty: [] },
    source: { type: "taken", label: "Where they come from", empty: { kind: "typed" } satisfies RecordSource },
    warm: warmField,
    reads: readsField("typed"),
  },
  also: (_, given) => airOf(given, "intakeTemperature"),
  keeps: ["ambient", "intakeTemperature"],
  elsewhere: AIR_ELSEWHERE,
});

interface KnownOfPoint {
  /** The engine has an air meter: then it is what is read; otherwise the manifold's pressure is */
  readonly metered: boolean;
}

/** One point of an airflow check, typed. */
export const airflowPointForm = formOf<AirflowPoint, KnownOfPoint>()({
  schema: airflowPointSchema,
  fields: {
    state: {
      type: "choice",
      label: "Point",
      options: [
        ["idle", "Idle"],
        ["wide-open", "Wide open throttle"],
      ],
      holds: () => "idle",
    },
    rpm: { type: "number", label: "Engine speed, 1/min", bare: "1/min" },
    maf: {
      type: "quantity",
      label: "Air meter",
      band: "mafFlow",
      unit: "g/s",
      units: ["g/s", "kg/h", "lb/min"],
      example: ({ holds }) => (holds("state") === "idle" ? "1.9" : "62"),
      when: ({ known }) => known.metered,
      needed: () => "Type what the air meter reads",
    },
    map: {
      type: "quantity",
      label: "Manifold pressure, absolute",
      band: "manifold",
      unit: "kPa",
      units: ["kPa", "hPa", "psi"],
      example: ({ holds }) => (holds("state") === "idle" ? "33" : "97"),
      needed: ({ known }) => (known.metered ? undefined : "Type the manifold pressure, absolute"),
    },
  },
});
