import * as yup from "yup";
import { FUELS, type GasFuel } from "../../gas/exhaust";
import { strictObject } from "../../input";
import { oneOfField, percentField, type RecordSource, sourceField } from "../fields";

export const FUEL_NAMES: Readonly<Record<GasFuel, string>> = {
  petrol: "Petrol",
  diesel: "Diesel",
  e85: "Ethanol blend, E85",
  lpg: "LPG",
  cng: "CNG",
};
export const PROBES = { deep: "Deep in the pipe", shallow: "Not as deep as asked" } as const;
export type ProbeDepth = keyof typeof PROBES;

/** One reading of the analyser: shares in percent, hydrocarbons (as hexane) and nitric oxide in ppm. */
export interface GasPoint {
  readonly co: number;
  readonly co2: number;
  readonly o2: number;
  readonly hc: number;
  readonly no?: number;
  /** λ as the ECU has it before the catalyst, at the same moment */
  readonly ecuLambda?: number;
}

/** Four or five gases at the tail, at idle and at about 2500 1/min. */
export interface GasRecord {
  /** The analyser's file that its readings were taken from, where they were */
  readonly source?: RecordSource;
  readonly fuel: GasFuel;
  readonly idle?: GasPoint;
  readonly raised?: GasPoint;
  readonly loop: "closed" | "open" | "unknown";
  readonly probe: ProbeDepth;
  /** The analyser passed its own zero and leak check */
  readonly zeroed: boolean;
  readonly warm: boolean;
}

const ppm = (name: string) =>
  yup
    .number()
    .typeError(`${name} is a number in ppm`)
    .min(0, `${name} cannot be negative`)
    .max(30_000, `${name}: no analyser shows so much`);

const point = strictObject({
  co: percentField("CO", 0, 15),
  co2: percentField("CO₂", 0.1, 25),
  o2: percentField("O₂", 0, 25),
  hc: ppm("HC").required("HC is missing"),
  no: ppm("NO").optional(),
  ecuLambda: yup
    .number()
    .typeError("λ is a number")
    .min(0.5, "No sensor shows such a λ")
    .max(3, "No sensor shows such a λ")
    .optional(),
})
  .test("sum", "These shares cannot be of one gas: CO₂ and O₂ together never lie above 25 %", (p) => {
    const { co2, o2 } = (p ?? {}) as { co2?: unknown; o2?: unknown };
    return typeof co2 !== "number" || typeof o2 !== "number" || co2 + o2 <= 25;
  })
  .optional()
  .default(undefined);

export const gasSchema = strictObject({
  source: sourceField.optional().default(undefined),
  fuel: oneOfField("The fuel", Object.keys(FUELS) as GasFuel[]),
  idle: point,
  raised: point,
  loop: oneOfField("The loop", ["closed", "open", "unknown"] as const),
  probe: oneOfField("The probe", Object.keys(PROBES) as ProbeDepth[]),
  zeroed: yup.boolean().required(),
  warm: yup.boolean().required("Say whether the engine is warm"),
}).test("read", "Read it at idle, at about 2500 1/min, or both", (r) => {
  const { idle, raised } = (r ?? {}) as { idle?: unknown; raised?: unknown };
  return idle !== undefined || raised !== undefined;
});
