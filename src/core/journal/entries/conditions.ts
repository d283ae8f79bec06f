import { choice, type FormState, fields, formOf, quantity, type RecordOf, recalling } from "../../form";
import { STANDARD_PRESSURE } from "../../gas/air";
import { stationPressure } from "../../gas/atmosphere";
import type { EngineNow } from "../../suspects";
import { absolute, parseTrusted, type Quantity, toSi } from "../../units";
import { entryKind } from "./entry-kind";

const ENGINE_NAMES = {
  cold: "Cold",
  warm: "Warm, it runs",
  "hot-exhaust": "Exhaust too hot to touch",
  "does-not-run": "Does not run",
} as const satisfies Readonly<Record<EngineNow, string>>;

/** Ambient pressure and bay temperature, under which every reading is judged; and how warm the engine is. */
const conditionsFields = fields({
  /** Station pressure, absolute: read here, or worked out from what follows */
  ambient: quantity("ambient", {
    label: "Ambient pressure, absolute",
    units: ["hPa", "kPa", "inHg", "psi"],
    example: "1006",
    missing: "Type the ambient pressure, absolute, as read here",
  }),
  /** A weather report's pressure, reduced to sea level */
  seaLevel: quantity("ambient", {
    label: "Pressure of the report, reduced to sea level",
    units: ["hPa", "inHg"],
    example: "1018",
  }).optional(),
  altitude: quantity("altitude", { label: "Altitude of the bay", units: ["m", "ft"], example: "120" }).optional(),
  /** Of the air outside, where the pressure is worked out: the column of air above the bay is as warm as that */
  outside: quantity("airTemperature", {
    label: "Air temperature outside, if known",
    units: ["°C", "°F"],
    example: "12",
  }).optional(),
  bayTemperature: quantity("airTemperature", {
    label: "Bay temperature",
    units: ["°C", "°F"],
    example: "17",
    missing: "Type the temperature of the bay",
  }),
  engine: choice(ENGINE_NAMES, { label: "The engine now" }).optional(),
});
export type Conditions = RecordOf<typeof conditionsFields>;

/** Where the ambient pressure comes from. */
const BASES = { station: "Read here", report: "Weather report", altitude: "Altitude only" } as const;
type Basis = keyof typeof BASES;

type State = FormState<unknown, "basis" | "altitude" | "seaLevel" | "outside">;
const basisOf = ({ value }: FormState<unknown, "basis">) => value("basis") as Basis;

/** Station pressure from a weather report or from the altitude alone, as far as they are typed; undefined where it is read. */
export function workedOut(state: State): Quantity | undefined {
  const basis = basisOf(state);
  const altitude = parseTrusted(String(state.value("altitude") ?? ""), "altitude", "m");
  const seaLevel = parseTrusted(String(state.value("seaLevel") ?? ""), "ambient", "hPa");
  if (basis === "station" || !altitude || (basis === "report" && !seaLevel)) return undefined;
  const outside = parseTrusted(String(state.value("outside") ?? ""), "airTemperature", "°C");
  const pascal = stationPressure(
    absolute(basis === "report" && seaLevel ? toSi(seaLevel) : STANDARD_PRESSURE),
    toSi(altitude),
    outside && toSi(outside),
  );
  return { value: Math.round(pascal / 10) / 10, unit: "hPa", kind: "absolute" };
}

interface ConditionsFacts {
  /** The job's own conditions, or the bay's air as it was set last for another car */
  readonly conditions: Conditions | undefined;
}

export const conditionsForm = recalling(
  formOf<ConditionsFacts>()(conditionsFields, {
    aside: { basis: choice(BASES, { label: "Ambient pressure from", defaultValue: "station" }) },
    ask: {
      ambient: { when: (state) => basisOf(state) === "station" },
      seaLevel: {
        when: (state) => basisOf(state) === "report",
        needed: () => "Type the pressure of the weather report",
      },
      altitude: { when: (state) => basisOf(state) !== "station", needed: () => "Type the altitude of the bay" },
      outside: { when: (state) => basisOf(state) !== "station" },
    },
    computed: { ambient: ({ ambient }, state) => workedOut(state) ?? ambient },
    // Where a recorded pressure came from.
    laidOut: { basis: ({ seaLevel, altitude }): Basis => (seaLevel ? "report" : altitude ? "altitude" : "station") },
  }),
  ({ conditions }) => conditions,
);

export const conditions = entryKind(conditionsFields, {
  words: (b) =>
    `Conditions: ${b.ambient.value} ${b.ambient.unit} absolute, ${b.bayTemperature.value} ${b.bayTemperature.unit} in the bay`,
});
