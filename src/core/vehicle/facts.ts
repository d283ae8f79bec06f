import * as yup from "yup";
import { line, needed, strictObject } from "../input";
import { type Limit, type LimitId, vehicleLimitsSchema } from "../shop/limits";
import { isQuantity, type Quantity, quantitySchema, toSi } from "../units";
import { type EvapFacts, evapSchema } from "./evap";

/** The facts of a vehicle that change what a reading means. */
export interface VehicleFacts {
  readonly make: string;
  readonly model: string;
  readonly year: number;
  readonly registration: string;
  /** As typed; the check digit is shown, never enforced. */
  readonly vin?: string;
  readonly odometer?: Quantity;
  readonly fuel: "petrol" | "diesel";
  readonly induction: "natural" | "turbo";
  readonly metering: "maf" | "map";
  readonly banks: 1 | 2;
  readonly displacement: Quantity;
  readonly fitted: readonly FittedSystem[];
  /** The maker's band of crankcase pressure at idle, gauge: suction is negative */
  readonly crankcaseBand?: { readonly low: Quantity; readonly high: Quantity };
  readonly evap?: EvapFacts;
  /** Limits the maker gives for this vehicle, each with who entered it */
  readonly limits?: Readonly<Partial<Record<LimitId, Limit>>>;
}

export const FITTED_SYSTEMS = ["booster", "pcv", "evap", "egr", "secondary-air", "runner-flaps", "idle-air"] as const;
export type FittedSystem = (typeof FITTED_SYSTEMS)[number];

export const FITTED_NAMES: Record<FittedSystem, string> = {
  booster: "Brake booster",
  pcv: "Crankcase ventilation",
  evap: "EVAP",
  egr: "EGR",
  "secondary-air": "Secondary air",
  "runner-flaps": "Runner flaps",
  "idle-air": "Idle-air bypass",
};

export const vehicleSchema = yup
  .object({
    make: needed("Make", "Type the make", 80),
    model: needed("Model", "Type the model", 80),
    year: yup
      .number()
      .integer("The year is a whole number")
      .min(1900, "The year lies before the first cars with an ECU")
      .max(2100, "The year lies too far ahead")
      .required("Type the model year"),
    registration: needed("Registration", "Type the registration", 20),
    vin: line("VIN", 20).optional(),
    odometer: quantitySchema("odometer").optional().default(undefined),
    fuel: yup
      .string()
      .oneOf(["petrol", "diesel"] as const)
      .required("Choose the fuel"),
    induction: yup
      .string()
      .oneOf(["natural", "turbo"] as const)
      .required("Choose natural or turbo"),
    metering: yup
      .string()
      .oneOf(["maf", "map"] as const)
      .required("Choose how the air is metered"),
    banks: yup
      .number()
      .oneOf([1, 2] as const)
      .required("Choose one bank or two"),
    displacement: quantitySchema("displacement").required("Type the engine displacement"),
    fitted: yup.array().of(yup.string().oneOf(FITTED_SYSTEMS).required()).required(),
    crankcaseBand: strictObject({
      low: quantitySchema("crankcase").required("State the lower end of the band"),
      high: quantitySchema("crankcase").required("State the upper end of the band"),
    })
      .test("order", "The band's lower end lies above its upper end: suction is negative", (band) => {
        const { low, high } = (band ?? {}) as { low?: unknown; high?: unknown };
        return !isQuantity(low) || !isQuantity(high) || toSi(low) < toSi(high);
      })
      .optional()
      .default(undefined),
    evap: evapSchema.optional().default(undefined),
    limits: vehicleLimitsSchema.optional().default(undefined),
  })
  .noUnknown()
  .strict();

const VIN_VALUES: Record<string, number> = Object.fromEntries([
  ..."0123456789".split("").map((c) => [c, Number(c)]),
  ..."ABCDEFGH".split("").map((c, i) => [c, i + 1]),
  ..."JKLMN".split("").map((c, i) => [c, i + 1]),
  ["P", 7],
  ["R", 9],
  ..."STUVWXYZ".split("").map((c, i) => [c, i + 2]),
]);
const VIN_WEIGHTS = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];

/**
 * Check digit of a VIN (49 CFR 565.15): what position 9 should read.
 * @returns undefined when the text is not 17 VIN characters; many markets do not use the digit, so it is only shown.
 */
export function vinCheckDigit(vin: string): { expected: string; matches: boolean } | undefined {
  const characters = vin.trim().toUpperCase();
  if (!/^[A-HJ-NPR-Z0-9]{17}$/.test(characters)) return undefined;
  const sum = VIN_WEIGHTS.reduce((total, weight, i) => total + weight * (VIN_VALUES[characters[i] as string] ?? 0), 0);
  const expected = sum % 11 === 10 ? "X" : String(sum % 11);
  return { expected, matches: characters[8] === expected };
}
