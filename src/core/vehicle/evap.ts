import * as yup from "yup";
import { strictObject } from "../input";
import { type Quantity, quantitySchema, toSi, type UnitId, unitsOf } from "../units";

export const EVAP_MONITORS = {
  "engine-vacuum": "Engine vacuum, read by a tank-pressure sensor",
  "canister-pump": "Pump in the canister with a reference orifice",
  "pressure-only": "Older: purge and pressure watched, no leak size",
} as const;
export type EvapMonitor = keyof typeof EVAP_MONITORS;

/** Rules of the market a car was built for: what its leak monitor must catch. */
export const EVAP_MARKETS = { strict: "Strict leak rules", other: "Elsewhere" } as const;
export type EvapMarket = keyof typeof EVAP_MARKETS;

/** The facts of an EVAP system that change what a check of it means. */
export interface EvapFacts {
  readonly monitor: EvapMonitor;
  readonly market: EvapMarket;
  /** Rated volume of the fuel tank */
  readonly tank: Quantity;
  readonly servicePort: boolean;
  readonly neck: "cap" | "capless";
  /** A flap that seals the neck off from the tank while nobody fills */
  readonly neckFlap: boolean;
  /** The fill-limit and rollover valve lets gas out of the tank only */
  readonly tankOneWay: boolean;
  /** The tank-pressure sensor's own curve: volts with nothing on it, and volts per unit of gauge pressure */
  readonly sensor?: { readonly zero: Quantity; readonly perUnit: number; readonly unit: UnitId };
  /** The pump's reference orifice */
  readonly referenceOrifice?: Quantity;
  /** The leak this vehicle's monitor must catch, where the maker says so */
  readonly requiredLeak?: Quantity;
}

export const evapSchema = strictObject({
  monitor: yup
    .mixed<EvapMonitor>()
    .oneOf(Object.keys(EVAP_MONITORS) as EvapMonitor[])
    .required("Choose who pulls the EVAP test"),
  market: yup
    .mixed<EvapMarket>()
    .oneOf(Object.keys(EVAP_MARKETS) as EvapMarket[])
    .required("Choose the rules the car was built for"),
  tank: quantitySchema("tank").required("Type the tank's volume"),
  servicePort: yup.boolean().required(),
  neck: yup.mixed<EvapFacts["neck"]>().oneOf(["cap", "capless"]).required("Choose cap or capless"),
  neckFlap: yup.boolean().required(),
  tankOneWay: yup.boolean().required(),
  sensor: strictObject({
    zero: quantitySchema("voltage").required("Type the sensor's volts with nothing on it"),
    perUnit: yup
      .number()
      .typeError("Volts per unit is a number")
      .required("Type the sensor's volts per unit of pressure")
      .test("slope", "A sensor's volts change with pressure: the slope is not zero", (v) => v !== 0),
    unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  })
    .optional()
    .default(undefined),
  referenceOrifice: quantitySchema("hole").optional().default(undefined),
  requiredLeak: quantitySchema("hole").optional().default(undefined),
});

/** Shells are larger than rated by an expansion space that no fuel reaches, share of the rating. */
const EXPANSION = 0.1;
/** Canister and lines, m³, and how well they are known. */
const CANISTER_AND_LINES = 3.5e-3;
const CANISTER_SD = 1e-3;
/** How well a fuel gauge and a rating tell what is in the tank, share of the rating. */
const LEVEL_SD = 0.05;

/**
 * Gas space of an EVAP system and its standard deviation, m³: tank above the fuel, expansion space, canister and lines.
 * V = V_rated·(1 + 0.1 − level) + 3.5 L. Shares are this app's own estimate for tanks of 30 to 100 L.
 * @param level fuel, 0…1 of the rated volume. Throws RangeError outside that.
 */
export function vapourVolume(evap: Pick<EvapFacts, "tank">, level: number): { volume: number; sd: number } {
  if (!(level >= 0 && level <= 1)) throw new RangeError("The fuel level is a share from 0 to 1 of the tank");
  const rated = toSi(evap.tank);
  return {
    volume: rated * (1 + EXPANSION - level) + CANISTER_AND_LINES,
    sd: Math.hypot(LEVEL_SD * rated, CANISTER_SD),
  };
}

/** A leak to be caught, m, and who says so. */
export interface RequiredLeak {
  readonly diameter: number;
  readonly source: string;
}

const INCH = 0.0254;
const FIRST_SMALL_RULE = 2003;
const LAST_LARGE_RULE = 1999;

/**
 * The leak that this vehicle's monitor must catch: the code's own criteria first, then the maker's figure for the
 * vehicle, then the model year under strict rules (California Code of Regulations, title 13, section 1968.1/1968.2:
 * 0.040 in, then 0.020 in). Undefined where nobody says: ask.
 * @param criteria sizes that the codes' own criteria name.
 */
export function requiredLeakOf(
  vehicle: { readonly year?: number | undefined; readonly evap?: EvapFacts },
  criteria: readonly { readonly code: string; readonly size: Quantity }[],
): RequiredLeak | undefined {
  const [smallest] = criteria.toSorted((a, b) => toSi(a.size) - toSi(b.size));
  if (smallest) return { diameter: toSi(smallest.size), source: `criteria of ${smallest.code}` };
  const { evap, year } = vehicle;
  if (evap?.requiredLeak) return { diameter: toSi(evap.requiredLeak), source: "maker's figure for this vehicle" };
  if (evap?.market !== "strict") return undefined;
  if (year === undefined) return undefined;
  if (year <= LAST_LARGE_RULE) return { diameter: 0.04 * INCH, source: `strict rules, model year ${year}` };
  if (year >= FIRST_SMALL_RULE) return { diameter: 0.02 * INCH, source: `strict rules, model year ${year}` };
  return undefined;
}
