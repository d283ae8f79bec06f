import { AIR_ELSEWHERE, checkForm, gaugeField, given, idleField, optionsOf, warmField } from "../known";
import { NEEDLE_NAMES, NEEDLES, SNAP_NAMES, SNAPS, type VacuumReading, vacuumSchema } from "./record";

/** The gauge on the manifold: where it stands, how its needle moves. */
export const vacuumForm = checkForm<VacuumReading>()({
  schema: vacuumSchema,
  fields: {
    vacuum: {
      type: "quantity",
      label: "Vacuum at idle",
      band: "vacuum",
      unit: "inHg",
      units: ["inHg", "kPa", "mbar"],
      example: "19",
    },
    rpm: { ...idleField, hint: "The band goes by it, and a high idle hides a leak" },
    portSound: { type: "tick", label: "The port's own nipple and hose are sound" },
    warm: warmField,
    needle: { type: "choice", label: "The needle at idle", options: optionsOf(NEEDLES, NEEDLE_NAMES) },
    snap: {
      type: "choice",
      label: "After a snap of the throttle",
      options: optionsOf(SNAPS, SNAP_NAMES),
      holds: () => "not-tried",
    },
    instrument: gaugeField("vacuum"),
  },
  also: (_, { known }) => given("ambient", known.ambient),
  keeps: ["ambient"],
  elsewhere: AIR_ELSEWHERE,
});
