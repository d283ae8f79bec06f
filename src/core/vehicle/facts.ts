import * as yup from "yup";
import { said, strictObject } from "../input";
import { type Limit, type LimitId, vehicleLimitsSchema } from "../shop/limits";
import { formatQuantity, isQuantity, type Quantity, quantitySchema, toSi } from "../units";
import { type EvapFacts, evapSchema } from "./evap";
import { TAPPABLE, type ZoneId } from "./layout";
import { commonest, WORKED_BY, type WorkedBy } from "./usual";

/** The facts of a vehicle that change what a reading means. */
export interface VehicleFacts {
  /** Those nobody gave yet: each stands at the commonest meanwhile */
  readonly unknown?: readonly OpenFact[];
  readonly make?: string | undefined;
  readonly model?: string | undefined;
  readonly year?: number | undefined;
  readonly registration?: string | undefined;
  /** As typed; the check digit is shown, never enforced. */
  readonly vin?: string;
  readonly odometer?: Quantity;
  readonly fuel: "petrol" | "diesel";
  /** Share of ethanol in the petrol, % */
  readonly ethanol?: number | undefined;
  /** Gas it runs on besides */
  readonly gas?: "lpg" | "cng" | undefined;
  readonly induction: "natural" | "turbo";
  readonly metering: "maf" | "map";
  readonly banks: 1 | 2;
  readonly displacement: Quantity;
  readonly fitted: readonly FittedSystem[];
  /** Zones that a port was tapped into for good, to let smoke in by: it stays, plugged */
  readonly tapped?: readonly ZoneId[];
  /** The maker's band of crankcase pressure at idle, gauge: suction is negative */
  readonly crankcaseBand?: { readonly low: Quantity; readonly high: Quantity };
  /** The most that its turbocharger is asked for, gauge, as the maker has it */
  readonly maxBoost?: Quantity;
  /** What moves its vanes or its wastegate; the usual one of its fuel and year where nobody said */
  readonly boostWorked?: WorkedBy | undefined;
  /** What moves the valves of exhaust led back and of secondary air, where those are fitted */
  readonly egrWorked?: Exclude<WorkedBy, "pressure"> | undefined;
  readonly airValveWorked?: Exclude<WorkedBy, "pressure"> | undefined;
  /** Ports that secondary air comes out of, behind each switching valve */
  readonly airPorts?: number | undefined;
  /** A diesel's intake has a flap that its ECU can shut */
  readonly throttleFlap?: boolean | undefined;
  readonly evap?: EvapFacts;
  /** Limits the maker gives for this vehicle, each with who entered it */
  readonly limits?: Readonly<Partial<Record<LimitId, Limit>>>;
}

/** What a job can begin without; fuel and displacement it cannot. */
export const OPEN_FACTS = ["induction", "metering", "banks", "fitted"] as const satisfies readonly (keyof VehicleFacts)[];
export type OpenFact = (typeof OPEN_FACTS)[number];

export const FACT_NAMES: Record<OpenFact, string> = {
  induction: "induction",
  metering: "air metering",
  banks: "banks",
  fitted: "fitted systems",
};

/** A vehicle as somebody described it, in part or whole: what a job keeps. */
export type GivenFacts = Omit<VehicleFacts, OpenFact | "unknown"> & {
  readonly [F in OpenFact]?: VehicleFacts[F] | undefined;
};

/** The same facts for the same description, so that what is worked out from them can be kept beside them. */
const completed = new WeakMap<GivenFacts, VehicleFacts>();

/** A vehicle to judge by: what nobody gave stands at the commonest, and is named as unknown. */
export function vehicleFacts(given: GivenFacts): VehicleFacts {
  const known = completed.get(given);
  if (known) return known;
  const unknown = OPEN_FACTS.filter((fact) => given[fact] === undefined);
  const facts = (unknown.length === 0 ? given : { ...commonest(given), ...dropUndefined(given), unknown }) as VehicleFacts;
  completed.set(given, facts);
  return facts;
}
const dropUndefined = (given: object) => Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined));

const kept = new WeakMap<GivenFacts, Map<string, GivenFacts>>();

/** A description with every port that earlier ones tapped: a hole that was drilled does not go away by leaving it out. */
export function withPorts(given: GivenFacts, earlier: readonly GivenFacts[]): GivenFacts {
  const ports = TAPPABLE.filter((zone) => [given, ...earlier].some((e) => e.tapped?.includes(zone)));
  if (ports.every((zone) => given.tapped?.includes(zone))) return given;
  const byPorts = kept.get(given) ?? new Map<string, GivenFacts>();
  kept.set(given, byPorts);
  const key = ports.join();
  const known = byPorts.get(key) ?? { ...given, tapped: ports };
  byPorts.set(key, known);
  return known;
}

/** Whether somebody said so; what stands at the commonest rules nothing out. */
export const isKnown = (vehicle: Pick<VehicleFacts, "unknown">, fact: OpenFact): boolean => !vehicle.unknown?.includes(fact);

/** What a vehicle is called: make, model and year, or what is known instead. */
export function vehicleName({ make, model, year, fuel, displacement }: VehicleFacts): string {
  const name =
    [make, model].filter(Boolean).join(" ") || `${fuel === "diesel" ? "Diesel" : "Petrol"} ${formatQuantity(displacement)}`;
  return year === undefined ? name : `${name} · ${year}`;
}

export const FITTED_SYSTEMS = [
  "booster",
  "pcv",
  "evap",
  "egr",
  "egr-cooler",
  "low-pressure-egr",
  "particulate-filter",
  "secondary-air",
  "runner-flaps",
  "idle-air",
] as const;
export type FittedSystem = (typeof FITTED_SYSTEMS)[number];

export const FITTED_NAMES: Record<FittedSystem, string> = {
  booster: "Brake booster",
  pcv: "Crankcase ventilation",
  evap: "EVAP",
  egr: "EGR",
  "egr-cooler": "EGR cooler",
  "low-pressure-egr": "Low-pressure EGR",
  "particulate-filter": "Particulate filter",
  "secondary-air": "Secondary air",
  "runner-flaps": "Runner flaps",
  "idle-air": "Idle-air bypass",
};

const MOTOR_OR_VACUUM = ["vacuum", "electric"] as const;

/** A vehicle may be known in part: its fuel and displacement, no less. */
export const vehicleSchema = yup
  .object({
    make: said("Make", 80),
    model: said("Model", 80),
    year: yup
      .number()
      .integer("The year is a whole number")
      .min(1900, "The year lies before the first cars with an ECU")
      .max(2100, "The year lies too far ahead")
      .optional(),
    registration: said("Registration", 20),
    vin: said("VIN", 20),
    odometer: quantitySchema("odometer").optional().default(undefined),
    fuel: yup
      .string()
      .oneOf(["petrol", "diesel"] as const)
      .required("Choose the fuel"),
    ethanol: yup
      .number()
      .typeError("The share of ethanol is a number in percent")
      .min(0, "The share of ethanol cannot be negative")
      .max(100, "The share of ethanol cannot lie above 100 %")
      .optional(),
    gas: yup
      .string()
      .oneOf(["lpg", "cng"] as const)
      .optional(),
    induction: yup
      .string()
      .oneOf(["natural", "turbo"] as const)
      .optional(),
    metering: yup
      .string()
      .oneOf(["maf", "map"] as const)
      .optional(),
    banks: yup
      .number()
      .oneOf([1, 2] as const)
      .optional(),
    displacement: quantitySchema("displacement").required("Type the engine displacement"),
    fitted: yup.array().of(yup.string().oneOf(FITTED_SYSTEMS).required()).optional().default(undefined),
    tapped: yup
      .array()
      .of(yup.mixed<ZoneId>().oneOf(TAPPABLE, "No port is tapped there").required())
      .max(TAPPABLE.length)
      .optional()
      .default(undefined),
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
    maxBoost: quantitySchema("boost").optional().default(undefined),
    boostWorked: yup.string().oneOf(WORKED_BY).optional(),
    egrWorked: yup.string().oneOf(MOTOR_OR_VACUUM).optional(),
    airValveWorked: yup.string().oneOf(MOTOR_OR_VACUUM).optional(),
    airPorts: yup
      .number()
      .typeError("Secondary-air ports are counted: 3, 4, 8")
      .integer("Secondary-air ports are counted: 3, 4, 8")
      .min(1, "A switching valve has at least one port behind it")
      .max(32, "No bank has more than 32 secondary-air ports")
      .optional(),
    throttleFlap: yup.boolean().optional(),
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
