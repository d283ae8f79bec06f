import { FUELS, type GasFuel } from "../../gas/exhaust";
import { burntFuel } from "../../vehicle";
import { checkForm, optionsOf, warmField } from "../known";
import { FUEL_NAMES, type GasRecord, gasSchema, PROBES, type ProbeDepth } from "./record";

const share = (label: string, example: string) => ({ type: "number", label: `${label}, %`, bare: "%", example }) as const;
const ppm = (label: string, example: string) => ({ type: "number", label: `${label}, ppm`, example }) as const;
const lambda = (at: string) => ({ type: "number", label: `ECU's own λ ${at}`, example: "1.00" }) as const;

/** The analyser at two speeds, and what the ECU has beside it. */
export const gasForm = checkForm<GasRecord>()({
  schema: gasSchema,
  fields: {
    source: { type: "taken", label: "Where they come from" },
    fuel: {
      type: "choice",
      list: true,
      label: "It burns",
      options: optionsOf(Object.keys(FUELS) as GasFuel[], FUEL_NAMES),
      holds: ({ known }) => burntFuel(known.context.vehicle),
    },
    "idle.co": share("CO at idle", "0.1"),
    "idle.co2": share("CO₂ at idle", "14.9"),
    "idle.o2": share("O₂ at idle", "0.2"),
    "idle.hc": ppm("HC at idle", "40"),
    "idle.no": ppm("NO at idle", "60"),
    "idle.ecuLambda": lambda("at idle"),
    "raised.co": share("CO at 2500 1/min", "0.1"),
    "raised.co2": share("CO₂ at 2500 1/min", "15.0"),
    "raised.o2": share("O₂ at 2500 1/min", "0.1"),
    "raised.hc": ppm("HC at 2500 1/min", "20"),
    "raised.no": ppm("NO at 2500 1/min", "80"),
    "raised.ecuLambda": lambda("at 2500"),
    loop: {
      type: "choice",
      label: "Loop",
      options: [
        ["closed", "Closed"],
        ["open", "Open"],
        ["unknown", "Not known"],
      ],
      holds: () => "unknown",
    },
    probe: { type: "choice", label: "Probe", options: optionsOf(Object.keys(PROBES) as ProbeDepth[], PROBES) },
    zeroed: { type: "tick", label: "The analyser passed its zero and its own leak check" },
    warm: warmField,
  },
});
