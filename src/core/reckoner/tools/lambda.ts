import { choice, fields, number, type RecordOf } from "../../form";
import { type GasFuel, lambdaWithin } from "../../gas/exhaust";
import { toolForm } from "../fields";
import type { Tool } from "../tool";

const FUEL_WORDS: Readonly<Record<GasFuel, string>> = {
  petrol: "Petrol",
  diesel: "Diesel",
  e85: "E85",
  lpg: "LPG",
  cng: "Natural gas",
};

const share = (name: string, most: number, unit: "%" | "ppm", example: string, what = "") =>
  number({
    name,
    label: `${name}, ${unit}${what}`,
    ...(unit === "%" ? { bare: unit } : {}),
    example,
    min: [0, `${name} is not negative`],
    max: [most, `${name} above ${most} ${unit} is no exhaust`],
    missing: `Type ${name}, in ${unit}${what}`,
  });
const lambdaFields = fields({
  fuel: choice(FUEL_WORDS, { label: "It burns", missing: "Say what it burns", defaultValue: "petrol" }),
  co: share("CO", 20, "%", "0.1"),
  co2: share("CO₂", 21, "%", "14.9"),
  o2: share("O₂", 21, "%", "0.2"),
  hc: share("HC", 50_000, "ppm", "40", " as hexane"),
  no: share("NO", 10_000, "ppm", "60").optional(),
});
type Gas = RecordOf<typeof lambdaFields>;

/** λ from an analyser's four gases. */
export const lambdaTool: Tool<Gas> = {
  id: "lambda",
  name: "λ from exhaust gas",
  aim: "Excess air of the burnt gas, from what the analyser reads",
  form: toolForm(lambdaFields),
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
