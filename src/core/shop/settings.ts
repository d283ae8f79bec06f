import * as yup from "yup";
import { needed } from "../input";
import { type Quantity, quantitySchema } from "../units";

/** A limit and where it comes from; nothing here replaces the maker's data. */
export interface Limit {
  readonly value: number;
  readonly source: string;
}

const SHOP = "shop default";
const shop = (value: number): Limit => ({ value, source: SHOP });

/**
 * Shop defaults, SI (trims as fractions, times in s). One place; overridable per shop and vehicle.
 */
export const DEFAULT_LIMITS = {
  /** Total trim within which nothing is wrong, fraction */
  trimGood: shop(0.05),
  /** Total trim beyond which something is, fraction */
  trimAct: shop(0.1),
  /** Coolant at which trims are settled, K */
  warmCoolant: shop(273.15 + 75),
  /** Engine speed scatter within a steady window, ± 1/min */
  steadyRpm: shop(60),
  /** Air flow scatter within a steady window, ± fraction */
  steadyMaf: shop(0.06),
  /** Shortest steady window, s */
  steadyTime: shop(5),
  /** Share of the rated pressure a smoke machine must show at proof */
  machineProof: shop(0.85),
  /** Smoke machine auto-off when the machine states none, s */
  smokeAutoOff: shop(300),
} as const satisfies Record<string, Limit>;

export type LimitId = keyof typeof DEFAULT_LIMITS;
export type Limits = Readonly<Record<LimitId, Limit>>;

export interface HouseMethods {
  readonly totalTrim: "product" | "sum";
}

export const DEFAULT_HOUSE: HouseMethods = { totalTrim: "product" };

/** A smoke machine and what its maker says of it. */
export interface Machine {
  readonly id: string;
  readonly name: string;
  /** Gauge */
  readonly ratedPressure: Quantity;
  /** Standard flow with the hose open */
  readonly maxFlow: Quantity;
  /** s until heater or pump stops by itself */
  readonly autoOff: number;
}

/** Everything the shop decides, as judging needs it; travels with an exported job. */
export interface Shop {
  readonly name: string;
  readonly limits: Limits;
  readonly house: HouseMethods;
  readonly machines: readonly Machine[];
}

const limitSchema = yup
  .object({
    value: yup
      .number()
      .required()
      .test("finite", "${path} must be a finite number", (v) => Number.isFinite(v)),
    source: needed("The source", "Say where this limit comes from"),
  })
  .noUnknown()
  .strict();

const machineSchema = yup
  .object({
    id: yup.string().required(),
    name: needed("The machine", "Name the machine", 60),
    ratedPressure: quantitySchema("ratedPressure").required(),
    maxFlow: quantitySchema("smokeFlow").required(),
    autoOff: yup.number().min(10, "Auto-off is at least 10 s").max(7200).required("State the auto-off time in seconds"),
  })
  .noUnknown()
  .strict();

export const shopSchema = yup
  .object({
    name: needed("The shop", "Name the shop", 80),
    limits: yup
      .object(
        Object.fromEntries(Object.keys(DEFAULT_LIMITS).map((id) => [id, limitSchema.required()])) as Record<
          LimitId,
          typeof limitSchema
        >,
      )
      .noUnknown()
      .strict()
      .required(),
    house: yup
      .object({
        totalTrim: yup.string().oneOf(["product", "sum"]).required(),
      })
      .noUnknown()
      .strict()
      .required(),
    machines: yup.array().of(machineSchema.required()).max(50).required(),
  })
  .noUnknown()
  .strict();

export const DEFAULT_SHOP: Shop = {
  name: "My shop",
  limits: DEFAULT_LIMITS,
  house: DEFAULT_HOUSE,
  machines: [],
};
