import * as yup from "yup";
import { needed, strictObject } from "../input";
import { formatNumber, formatQuantity, fromSi, type Quantity, quantitySchema, toSi } from "../units";
import { EVAP_ZONES, type FillSetup, type Layout, noWayIn, type RequiredLeak, reachOf, vapourVolume } from "../vehicle";
import { type CheckContext, jointName, type Measure, type ZoneKnowledge } from "./check";
import { intoField, jointField, jointsField, oneOfField, percentField, secondsField } from "./fields";

/** How the vent was kept shut; a scan tool lets go of its command by itself after so many seconds. */
export type VentShut = { readonly by: "plug" } | { readonly by: "command"; readonly at: number; readonly seconds: number };

/** What every check that puts pressure on the EVAP system records of its setup. */
export interface EvapSetup extends FillSetup {
  readonly vent: VentShut;
  /** Percent of the rated tank volume */
  readonly fuelLevel: number;
  /** The leak this check is held against, and who says so */
  readonly required?: { readonly size: Quantity; readonly source: string };
  /** Joints tightened or touched before the check */
  readonly touchedBefore: readonly string[];
  readonly adapterLeaks: boolean;
  readonly ambient: Quantity;
  readonly temperature: Quantity;
}

export const ventField = strictObject<VentShut>({
  by: oneOfField("The vent", ["plug", "command"] as const),
  at: secondsField("Vent command").optional(),
  seconds: yup.number().min(1).max(3600).optional(),
}).test(
  "command",
  "A commanded vent names when the command began and after how many seconds the tool lets go",
  (v) => v?.by !== "command" || (v.at !== undefined && v.seconds !== undefined),
);

export const requiredField = strictObject({
  size: quantitySchema("hole").required("State the leak to be caught"),
  source: needed("The source", "Say who names this size"),
});

/** Joints that the setup itself takes off, plugs or commands: the vent is shut by the one or the other. */
export const evapSetupOf = (setup: FillSetup): string[] => [
  setup.entry,
  ...setup.blocked,
  ...setup.heldOpen,
  "vent-valve",
  "vent-filter",
];

/** Schema fields of `EvapSetup`. */
export const evapSetupFields = {
  entry: jointField,
  into: intoField,
  blocked: jointsField,
  heldOpen: jointsField,
  vent: ventField.required(),
  fuelLevel: percentField("The fuel level", 0, 100),
  required: requiredField.optional().default(undefined),
  touchedBefore: jointsField,
  adapterLeaks: yup.boolean().required(),
  ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
  temperature: quantitySchema("airTemperature").required("Bay temperature is missing"),
};

/** Gas space that a setup puts under pressure, m³, with its standard deviation: with the tank by its fuel level. */
export function gasSpace(
  { layout, vehicle }: Pick<CheckContext, "layout" | "vehicle">,
  setup: FillSetup & { readonly fuelLevel: number },
): { volume: number; sd: number } {
  const reach = reachOf(layout, setup);
  if (vehicle.evap && reach.zones.includes("tank")) return vapourVolume(vehicle.evap, setup.fuelLevel / 100);
  return { volume: reach.volume, sd: 0.3 * reach.volume };
}

/** The trap of a setup that spoils any pressure check of the EVAP system; undefined when there is none. */
export function setupTrap(setup: EvapSetup, endedAt: number, layout: Layout): string | undefined {
  const shut = noWayIn(layout, setup);
  if (shut) return shut;
  if (setup.touchedBefore.length > 0) {
    return `${setup.touchedBefore.map((id) => jointName(layout, id)).join(", ")} was touched before the check: the evidence is gone`;
  }
  if (setup.adapterLeaks) return "the adapter leaked at its own threads or cone";
  const { vent } = setup;
  if (vent.by === "command" && vent.at + vent.seconds < endedAt) {
    return `the vent command let go ${formatNumber(endedAt - vent.at - vent.seconds, 0)} s before the end: the vent stood open. Re-arm it in time, or plug the vent`;
  }
  return undefined;
}

/** Why a fuel level makes a check not sure yet; undefined when it is in range. */
export function fuelLevelDoubt(
  { fuelLevel }: { fuelLevel: number },
  { limits }: Pick<CheckContext, "limits">,
): string | undefined {
  const [low, high] = [limits.evapFuelLow, limits.evapFuelHigh];
  if (fuelLevel >= 100 * low.value && fuelLevel <= 100 * high.value) return undefined;
  return `fuel stands at ${formatNumber(fuelLevel, 0)} %; between ${formatNumber(100 * low.value, 0)} and ${formatNumber(100 * high.value, 0)} % a reading counts (${low.source})`;
}

/** What spoils a pressure check of the vapour system before it has begun, in sentences. */
export function evapWarnings(context: Pick<CheckContext, "limits">, aim: { fuelLevel?: number; hotTank?: boolean }): string[] {
  const doubt = aim.fuelLevel === undefined ? undefined : fuelLevelDoubt({ fuelLevel: aim.fuelLevel }, context);
  return [
    ...(doubt ? [`Would only count as not sure yet: ${doubt}.`] : []),
    ...(aim.hotTank
      ? [
          "Warm fuel goes on making vapour: pressure that rises by itself hides a leak. Let the car stand until tank and bay are alike.",
        ]
      : []),
  ];
}

/** A leak size beside the size to be caught, both in mm. */
export const holeMeasure = (
  hole: { diameter: number; low: number; high: number },
  required: EvapSetup["required"],
  name = "All leaks as one sharp-edged hole (Cd 0.61)",
): Measure => ({
  name,
  value: fromSi(hole.diameter, "mm"),
  low: 1000 * hole.low,
  high: 1000 * hole.high,
  ...(required
    ? { limit: `${formatQuantity(fromSi(toSi(required.size), "mm"), 3)} must be caught`, limitSource: required.source }
    : {}),
});

/** The required size as a check's record keeps it. */
export const requiredOf = (leak: RequiredLeak): NonNullable<EvapSetup["required"]> => ({
  size: fromSi(leak.diameter, "mm"),
  source: leak.source,
});

/** EVAP zones that pressure alone put to the test, and those it could not. */
export function heldZones({ layout }: Pick<CheckContext, "layout">, setup: FillSetup, why: string): ZoneKnowledge[] {
  const reach = reachOf(layout, setup);
  return layout.zones
    .filter((z) => EVAP_ZONES.includes(z.id) && !(z.id === "vent-hose" && setup.blocked.includes("vent-valve")))
    .map((z): ZoneKnowledge => {
      if (reach.zones.includes(z.id)) return { zone: z.id, state: "tight", why };
      const by = reach.stopped.find((s) => s.zone === z.id)?.by.name;
      return { zone: z.id, state: "not-reached", why: by ? `stopped at ${by}` : "this setup does not reach it" };
    });
}
