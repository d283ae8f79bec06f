import { checkForm, optionsOf, placeField, warmField } from "../known";
import { COOLERS, type Cooler, type EgrRecord, egrSchema, SEATS, type Seat, WATCHED, type Watched } from "./record";

const speed = (label: string) => ({ type: "number", label: `${label}, 1/min`, bare: "1/min", example: "1500" }) as const;
const maf = (label: string, example: string) =>
  ({ type: "quantity", label, band: "mafFlow", unit: "g/s", units: ["g/s", "kg/h"], example }) as const;
const map = (label: string, example: string) =>
  ({ type: "quantity", label, band: "manifold", unit: "kPa", units: ["kPa", "hPa", "psi"], example }) as const;

/** The valve shut and open at one speed, its seat, its cooler. */
export const egrForm = checkForm<EgrRecord>()({
  schema: egrSchema,
  fields: {
    joint: placeField("Valve"),
    "shut.rpm": speed("Commanded shut: speed"),
    "shut.maf": maf("Air meter, shut", "22"),
    "shut.map": map("Manifold pressure, shut, absolute", "101"),
    "open.rpm": speed("Commanded open: speed"),
    "open.maf": maf("Air meter, open", "14"),
    "open.map": map("Manifold pressure, open, absolute", "102"),
    seat: { type: "choice", label: "Seat, by smoke from the manifold", options: optionsOf(Object.keys(SEATS) as Seat[], SEATS) },
    watched: {
      type: "choice",
      label: "Watched",
      options: optionsOf(Object.keys(WATCHED) as Watched[], WATCHED),
      holds: () => "tail",
      hint: ({ holds }) =>
        holds("seat") === "passes" && holds("watched") === "tail"
          ? "Valves of the engine that overlap pass smoke too: turn the crank by hand and look again, or open its pipe"
          : undefined,
      when: ({ holds }) => holds("seat") === "passes" || holds("seat") === "holds",
    },
    cooler: {
      type: "choice",
      label: "Its cooler",
      options: optionsOf(Object.keys(COOLERS) as Cooler[], COOLERS),
      holds: ({ known }) => (known.context.vehicle.fitted.includes("egr-cooler") ? "not-tried" : "none"),
    },
    warm: warmField,
  },
});
