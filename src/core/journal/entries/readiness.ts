import { percent } from "../../checks/fields";
import { fields, formOf, pattern, quantity, type RecordOf } from "../../form";
import { entryKind } from "./entry-kind";

/** The car as it is parked, before its EVAP monitor is to run. */
const readinessFields = fields({
  /** Percent of the rated tank volume */
  fuelLevel: percent("The fuel level", 0, 100, {
    label: "Fuel level, %",
    missing: "Type the fuel level in percent of the tank",
  }),
  /** Air temperature expected at the start */
  outside: quantity("airTemperature", {
    label: "Air expected at the start",
    units: ["°C", "°F"],
    example: "12",
    missing: "Type the air temperature expected at the start",
  }),
  /** When the engine was last switched off, ISO 8601 */
  parkedAt: pattern(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, "Say when the engine was switched off", {
    label: "Engine switched off at",
    hint: "Left empty: now",
    time: "moment",
    free: true,
  }),
});
export type ReadinessFacts = RecordOf<typeof readinessFields>;

export interface ReadinessFormFacts {
  /** Fuel level as it was typed last, percent */
  readonly fuelLevel?: number;
  /** The time, ISO 8601 */
  readonly now: () => string;
}

export const readinessForm = formOf<ReadinessFormFacts>()(readinessFields, {
  ask: {
    fuelLevel: { defaultValue: ({ known }) => (known.fuelLevel === undefined ? undefined : String(known.fuelLevel)) },
  },
  computed: { parkedAt: ({ parkedAt }, { known }) => parkedAt ?? known.now() },
});

export const readiness = entryKind(readinessFields, {
  words: (b) => `Parked for the EVAP monitor: fuel ${b.fuelLevel} %, ${b.outside.value} ${b.outside.unit} expected`,
});
