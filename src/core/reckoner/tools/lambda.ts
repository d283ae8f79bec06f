import * as yup from "yup";
import { formOf } from "../../form";
import { FUELS, type GasFuel, lambdaWithin } from "../../gas/exhaust";
import { strictObject } from "../../input";
import type { Tool } from "../tool";

interface Gas {
  readonly fuel: GasFuel;
  readonly co: number;
  readonly co2: number;
  readonly o2: number;
  readonly hc: number;
  readonly no?: number;
}
const FUEL_WORDS: Readonly<Record<GasFuel, string>> = {
  petrol: "Petrol",
  diesel: "Diesel",
  e85: "E85",
  lpg: "LPG",
  cng: "Natural gas",
};
const share = (name: string, most: number, unit: string) =>
  yup.number().min(0, `${name} is not negative`).max(most, `${name} above ${most} ${unit} is no exhaust`);

/** λ from an analyser's four gases. */
export const lambdaTool: Tool<Gas> = {
  id: "lambda",
  name: "λ from exhaust gas",
  aim: "Excess air of the burnt gas, from what the analyser reads",
  form: formOf<Gas, undefined>()({
    schema: strictObject({
      fuel: yup
        .mixed<GasFuel>()
        .oneOf(Object.keys(FUELS) as GasFuel[], "Say what it burns")
        .required("Say what it burns"),
      co: share("CO", 20, "%").required("Type CO, in %"),
      co2: share("CO₂", 21, "%").required("Type CO₂, in %"),
      o2: share("O₂", 21, "%").required("Type O₂, in %"),
      hc: share("HC", 50_000, "ppm").required("Type HC, in ppm as hexane"),
      no: share("NO", 10_000, "ppm").optional(),
    }),
    fields: {
      fuel: {
        type: "choice",
        label: "It burns",
        options: (Object.keys(FUELS) as GasFuel[]).map((id) => [id, FUEL_WORDS[id]] as const),
        holds: () => "petrol",
      },
      co: { type: "number", label: "CO, %", bare: "%", example: "0.1" },
      co2: { type: "number", label: "CO₂, %", bare: "%", example: "14.9" },
      o2: { type: "number", label: "O₂, %", bare: "%", example: "0.2" },
      hc: { type: "number", label: "HC, ppm as hexane", example: "40" },
      no: { type: "number", label: "NO, ppm", example: "60" },
    },
  }),
  formula: "λ = {CO₂ + CO/2 + O₂ + NO/2 + (H/4·3.5/(3.5 + CO/CO₂) − O/2)·(CO₂ + CO)} / {(1 + H/4 − O/2)·(CO₂ + CO + 6·HC)}",
  symbols: [
    ["CO, CO₂, O₂, NO, HC", "dry volume shares, HC as hexane", "%"],
    ["H, O", "hydrogen and oxygen for each carbon of the fuel", "1"],
  ],
  source: "Brettschneider 1979",
  valid: "Warm, probe deep. A lean mixture and good exhaust thinned with air read alike",
  reckon({ fuel, ...gas }) {
    const { value, low, high } = lambdaWithin(gas, fuel);
    return { rows: [{ name: "λ", value: { value }, low, high }] };
  },
  into: {
    check: "exhaust-gas",
    draft: ({ fuel, no, ...gas }) => ({
      fuel,
      idle: Object.fromEntries(Object.entries({ ...gas, ...(no === undefined ? {} : { no }) }).map(([k, v]) => [k, String(v)])),
    }),
  },
};
