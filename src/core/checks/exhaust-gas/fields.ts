import { answer, choice, fields, group, number, type RecordOf } from "../../form";
import type { GasFuel } from "../../gas/exhaust";
import { burntFuel } from "../../vehicle";
import { checkForm } from "../check-form";
import { percent, takenSource, warm } from "../fields";

const FUEL_NAMES: Readonly<Record<GasFuel, string>> = {
  petrol: "Petrol",
  diesel: "Diesel",
  e85: "Ethanol blend, E85",
  lpg: "LPG",
  cng: "CNG",
};
const PROBES = { deep: "Deep in the pipe", shallow: "Not as deep as asked" } as const;

type Examples = Readonly<Record<"co" | "co2" | "o2" | "hc" | "no", string>>;

/** One reading of the analyser: shares in percent, hydrocarbons (as hexane) and nitric oxide in ppm. */
const point = (at: string, state: "idle" | "raised", examples: Examples) => {
  const share = (name: string, low: number, high: number, example: string) =>
    percent(name, low, high, { label: `${name} ${at}, %`, example, column: `${name}, ${state}` });
  const ppm = (name: string, example: string) =>
    number({
      name,
      wrong: `${name} is a number in ppm`,
      min: [0, `${name} cannot be negative`],
      max: [30_000, `${name}: no analyser shows so much`],
      label: `${name} ${at}, ppm`,
      example,
      column: `${name}, ${state}`,
      columnUnit: "ppm",
    });
  const lambda = "No sensor shows such a λ";
  return group(
    {
      co: share("CO", 0, 15, examples.co),
      co2: share("CO₂", 0.1, 25, examples.co2),
      o2: share("O₂", 0, 25, examples.o2),
      hc: ppm("HC", examples.hc),
      no: ppm("NO", examples.no).optional(),
      /** λ as the ECU has it before the catalyst, at the same moment */
      ecuLambda: number({
        name: "λ",
        min: [0.5, lambda],
        max: [3, lambda],
        label: `ECU's own λ ${at.replace(" rpm", "")}`,
        example: "1.00",
        column: `ECU λ, ${state}`,
        columnUnit: "λ",
      }).optional(),
    },
    { point: state === "idle" ? 0 : 1 },
  )
    .rule(
      "sum",
      "These shares cannot be of one gas: CO₂ and O₂ together are never above 25 %",
      ({ co2, o2 }) => typeof co2 !== "number" || typeof o2 !== "number" || co2 + o2 <= 25,
    )
    .optional();
};

/** Four or five gases at the tail, at idle and at about 2500 1/min, and what the ECU has beside them. */
export const gasFields = fields({
  /** The analyser's file that its readings were taken from, where they were */
  source: takenSource().optional(),
  fuel: choice(FUEL_NAMES, { name: "The fuel", label: "It burns", list: true }).setUp(),
  idle: point("at idle", "idle", { co: "0.1", co2: "14.9", o2: "0.2", hc: "40", no: "60" }),
  raised: point("at 2500 rpm", "raised", { co: "0.1", co2: "15.0", o2: "0.1", hc: "20", no: "80" }),
  loop: choice({ closed: "Closed", open: "Open", unknown: "Not known" }, { label: "Loop", defaultValue: "unknown" }),
  probe: choice(PROBES, { name: "The probe", label: "Probe" }),
  /** The analyser passed its own zero and leak check */
  zeroed: answer({
    label: "The analyser's zero and its own leak check",
    yes: "Passed",
    no: "Not passed",
    missing: "Say whether the analyser passed its zero and its own leak check",
  }),
  warm: warm(),
}).rule("whole", "Read it at idle, at about 2500 rpm, or both", ({ idle, raised }) => idle !== undefined || raised !== undefined);
export type GasRecord = RecordOf<typeof gasFields>;
export type GasPoint = NonNullable<GasRecord["idle"]>;

export const gasForm = checkForm(gasFields, {
  ask: { fuel: { defaultValue: ({ known }) => burntFuel(known.context.vehicle) } },
});
