import { choice, group, number, oneOf, quantity, tick } from "../form";
import { type Quantity, toSi, type UnitId, unitsOf } from "../units";

const EVAP_MONITORS = {
  "engine-vacuum": "Engine vacuum, read by a tank-pressure sensor",
  "canister-pump": "Pump in the canister with a reference orifice",
  "pressure-only": "Older: purge and pressure watched, no leak size",
} as const;

/** Rules of the market a car was built for: what its leak monitor must catch. */
const EVAP_MARKETS = { strict: "Strict (small-leak) standard", other: "Elsewhere" } as const;

/** The facts of an EVAP system that change what a check of it means. */
export const evapFacts = group({
  /** Rated volume of the fuel tank */
  tank: quantity("tank", {
    label: "Fuel tank, rated volume",
    hint: "Gas space and fill times depend on it",
    units: ["L"],
    example: "50",
    missing: "Type the tank's volume",
  }),
  monitor: choice(EVAP_MONITORS, {
    name: "The EVAP monitor",
    label: "Who pulls the leak test",
    list: true,
    missing: "Choose who pulls the EVAP test",
    defaultValue: "engine-vacuum",
  }),
  market: choice(EVAP_MARKETS, {
    label: "Leak standard of its market",
    missing: "Choose the leak standard of its market",
    defaultValue: "strict",
  }),
  neck: choice(
    { cap: "With a cap", capless: "Capless" },
    { label: "Filler neck", missing: "Choose cap or capless", defaultValue: "cap" },
  ),
  servicePort: tick({ label: "Has a service port" }),
  /** A flap that seals the neck off from the tank while nobody fills */
  neckFlap: tick({ label: "A flap seals the neck off from the tank" }),
  /** The fill-limit and rollover valve lets gas out of the tank only */
  tankOneWay: tick({ label: "The fill-limit valve lets gas out of the tank only" }),
  /** The leak this vehicle's monitor must catch, where the maker says so */
  requiredLeak: quantity("hole", {
    label: "Leak to be caught, maker's figure",
    hint: "Left empty: the code's criteria, or the model year",
    units: ["mm", "in", "thou"],
    example: "0.5",
  }).optional(),
  /** The tank-pressure sensor's own curve: volts with nothing on it, and volts per unit of gauge pressure */
  sensor: group({
    zero: quantity("voltage", {
      label: "Tank-pressure sensor, volts at zero",
      units: ["V"],
      example: "1.5",
      missing: "Type the sensor's volts with nothing on it",
    }),
    perUnit: number({
      name: "Volts per unit",
      label: "Its volts per unit of gauge pressure",
      example: "0.6",
      missing: "Type the sensor's volts per unit of pressure",
    }),
    unit: oneOf<UnitId>(unitsOf("pressure"), "The sensor's unit", { label: "Per", list: true, defaultValue: "kPa" }),
  })
    .rule("perUnit", "A sensor's volts change with pressure: the slope is not zero", ({ perUnit }) => perUnit !== 0)
    .optional(),
  /** The pump's reference orifice */
  referenceOrifice: quantity("hole", {
    label: "The pump's reference orifice",
    units: ["mm", "in", "thou"],
    example: "0.5",
  }).optional(),
});
export type EvapFacts = (typeof evapFacts)["value"];

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
 * The leak that this vehicle's monitor must catch: the least of what the codes' own criteria, the maker's figure for the
 * vehicle and the model year under strict rules name (California Code of Regulations, title 13, section 1968.1/1968.2:
 * 0.040 in, then 0.020 in). Undefined where nobody says: ask.
 * @param criteria sizes that the codes' own criteria name.
 */
export function requiredLeakOf(
  vehicle: { readonly year?: number | undefined; readonly evap?: EvapFacts },
  criteria: readonly { readonly code: string; readonly size: Quantity }[],
): RequiredLeak | undefined {
  const { evap, year } = vehicle;
  const known: RequiredLeak[] = [
    ...criteria.map(({ code, size }) => ({ diameter: toSi(size), source: `criteria of ${code}` })),
    ...(evap?.requiredLeak ? [{ diameter: toSi(evap.requiredLeak), source: "maker's figure for this vehicle" }] : []),
  ];
  if (evap?.market === "strict" && year !== undefined) {
    const source = `strict rules, model year ${year}`;
    if (year <= LAST_LARGE_RULE) known.push({ diameter: 0.04 * INCH, source });
    if (year >= FIRST_SMALL_RULE) known.push({ diameter: 0.02 * INCH, source });
  }
  return known.toSorted((x, y) => x.diameter - y.diameter)[0];
}
