import { formOf, type Given, recalling } from "../form";
import { ambientAtAltitude, stationPressure } from "../gas/atmosphere";
import { absolute, parseTrusted, type Quantity, toSi } from "../units";
import { type Bodies, bodySchema } from "./entries";

type Conditions = Bodies["conditions"];

/** Where the ambient pressure comes from. */
type Basis = "station" | "report" | "altitude";

interface Known {
  /** The job's own conditions, or the bay's air as it was set last for another car */
  readonly conditions: Conditions | undefined;
}

const basisOf = ({ holds }: Given<Known>) => holds("basis") as Basis;
/** Where a recorded pressure came from. */
const basisIn = ({ seaLevel, altitude }: Conditions): Basis => (seaLevel ? "report" : altitude ? "altitude" : "station");
const typed = ({ holds }: Given<Known>, name: string) => String(holds(name) ?? "");

/** Station pressure from a weather report or from the altitude alone, as far as they are typed; undefined where it is read. */
export function workedOut(given: Given<Known>): Quantity | undefined {
  const basis = basisOf(given);
  const altitude = parseTrusted(typed(given, "altitude"), "altitude", "m");
  const seaLevel = parseTrusted(typed(given, "seaLevel"), "ambient", "hPa");
  if (basis === "station" || !altitude || (basis === "report" && !seaLevel)) return undefined;
  const pascal =
    basis === "report" && seaLevel
      ? stationPressure(absolute(toSi(seaLevel)), toSi(altitude))
      : ambientAtAltitude(toSi(altitude));
  return { value: Math.round(pascal / 10) / 10, unit: "hPa", kind: "absolute" };
}

/** Ambient pressure and bay temperature, under which every reading is judged; and how warm the engine is. */
export const conditionsForm = formOf<Conditions, Known>()({
  schema: bodySchema("conditions"),
  fields: recalling(({ conditions }) => conditions && { ...conditions, basis: basisIn(conditions) }, {
    basis: {
      type: "choice",
      label: "Ambient pressure from",
      options: [
        ["station", "Read here"],
        ["report", "Weather report"],
        ["altitude", "Altitude only"],
      ],
      holds: () => "station" satisfies Basis,
      aside: true,
    },
    ambient: {
      type: "quantity",
      label: "Ambient pressure, absolute",
      band: "ambient",
      unit: "hPa",
      units: ["hPa", "kPa", "inHg", "psi"],
      example: "1006",
      when: (given) => basisOf(given) === "station",
    },
    seaLevel: {
      type: "quantity",
      label: "Pressure of the report, reduced to sea level",
      band: "ambient",
      unit: "hPa",
      units: ["hPa", "inHg"],
      example: "1018",
      when: (given) => basisOf(given) === "report",
      needed: () => "Type the pressure of the weather report",
    },
    altitude: {
      type: "quantity",
      label: "Altitude of the bay",
      band: "altitude",
      unit: "m",
      units: ["m", "ft"],
      example: "120",
      when: (given) => basisOf(given) !== "station",
      needed: () => "Type the altitude of the bay",
    },
    bayTemperature: {
      type: "quantity",
      label: "Bay temperature",
      band: "airTemperature",
      unit: "°C",
      units: ["°C", "°F"],
      example: "17",
    },
    engine: {
      type: "choice",
      label: "The engine now",
      options: [
        ["cold", "Cold"],
        ["warm", "Warm, it runs"],
        ["hot-exhaust", "Exhaust too hot to touch"],
        ["does-not-run", "Does not run"],
      ],
    },
  }),
  also: (_read, given) => {
    const ambient = workedOut(given);
    return ambient ? { ambient } : {};
  },
});
