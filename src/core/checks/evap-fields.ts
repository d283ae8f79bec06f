import { type FormState, number, type RecordOfMembers, tick, variants } from "../form";
import { formatNumber, formatQuantity, fromSi, type Quantity, toSi, ZERO_CELSIUS } from "../units";
import { EVAP_ZONES, type FillSetup, type Layout, noWayIn, type RequiredLeak, reachOf, vapourVolume } from "../vehicle";
import type { CheckFacts } from "./check-form";
import type { CheckContext } from "./context";
import { airTemperature, ambient, joint, joints, moment, percent, zone } from "./fields";
import { type RequiredSize, requiredSize } from "./required-size";
import { jointName, type Measure, type ZoneKnowledge } from "./verdict";

/** How the vent was kept shut under pressure or vacuum; a scan tool lets go of its command by itself after so many seconds. */
export const vent = () =>
  variants(
    "by",
    {
      plug: {},
      command: {
        at: moment("Vent command"),
        seconds: number({
          name: "The tool's time",
          bare: "s",
          min: [1, "A command holds for a second at least"],
          max: [3600, "A command holds for an hour at most"],
        }),
      },
    },
    {
      name: "The vent",
      incomplete: { command: "A commanded vent names when the command began and after how many seconds it times out" },
    },
  );
export type VentShut = ReturnType<typeof vent>["value"];

/** How a form asks for the vent. @param usual how it is kept shut here, where nobody says otherwise. */
export const askVent = (usual: VentShut["by"]) =>
  ({
    "vent.by": {
      label: "Vent kept shut by",
      options: [
        ["command", "Scan-tool command"],
        ["plug", "A plug by hand"],
      ],
      defaultValue: () => usual,
      setUp: true,
    },
    "vent.seconds": {
      label: "Vent command times out after, s",
      hint: "Re-armed in time counts as held",
      when: ({ value }: FormState<CheckFacts, "vent.by">) => value("vent.by") === "command",
      defaultValue: ({ known }: FormState<CheckFacts, never>) => String(known.context.limits.outputTime.value),
    },
  }) as const;

/** The leak that a check is held against, and who says so. */
export const required = () => requiredSize.optional().known(({ known }: FormState<CheckFacts>) => known.required);

/** Percent of the rated tank volume. */
export const fuelLevel = () =>
  percent("The fuel level", 0, 100, { label: "Fuel level, % of the tank", example: "45" }).asked({
    defaultValue: ({ known }: FormState<CheckFacts>) => (known.fuelLevel === undefined ? undefined : String(known.fuelLevel)),
    hint: ({ known: { context, fuelLevel }, value }: FormState<CheckFacts>) => {
      const { evapFuelLow: low, evapFuelHigh: high } = context.limits;
      const counts = `Counts between ${Math.round(100 * low.value)} and ${Math.round(100 * high.value)} % (${low.source})`;
      return fuelLevel !== undefined && value("fuelLevel") === String(fuelLevel) ? `As typed last. ${counts}` : counts;
    },
  });

/** Set-up fields that every check that puts pressure on the EVAP system records of its setup. */
export const evapSetup = {
  entry: joint(),
  /** Which side of it, where it is not the usual one */
  into: zone().optional(),
  blocked: joints(),
  heldOpen: joints(),
  vent: vent(),
  fuelLevel: fuelLevel(),
  required: required(),
  /** Joints tightened or touched before the check */
  touchedBefore: joints(),
  adapterLeaks: tick().optional(),
  ambient: ambient(),
  temperature: airTemperature(),
};
export type EvapSetup = RecordOfMembers<typeof evapSetup>;

/** Joints that the setup itself takes off, plugs or commands: the vent is shut by the one or the other. */
export const evapSetupOf = (setup: FillSetup): string[] => [
  setup.entry,
  ...setup.blocked,
  ...setup.heldOpen,
  "vent-valve",
  "vent-filter",
];

/** Gas space that a setup puts under pressure, m³, with its standard deviation: with the tank by its fuel level. */
export function gasSpace(
  { layout, vehicle }: Pick<CheckContext, "layout" | "vehicle">,
  setup: FillSetup & { readonly fuelLevel: number },
): { volume: number; sd: number } {
  const reach = reachOf(layout, setup);
  if (vehicle.evap && reach.zones.includes("tank")) return vapourVolume(vehicle.evap, setup.fuelLevel / 100);
  return { volume: reach.volume, sd: 0.3 * reach.volume };
}

/** A vent that is shut with the first push may be noted this much later, s. */
const AT_THE_START = 2;

/** The trap of a setup that spoils any pressure check of the EVAP system; undefined when there is none. */
export function setupTrap(setup: EvapSetup, endedAt: number, layout: Layout): string | undefined {
  const shut = noWayIn(layout, setup);
  if (shut) return shut;
  if (setup.touchedBefore.length > 0) {
    return `${setup.touchedBefore.map((id) => jointName(layout, id)).join(", ")} was touched before the check: the evidence is gone`;
  }
  if (setup.adapterLeaks) return "the adapter leaked at its own threads or cone";
  const { vent } = setup;
  if (vent.by === "command" && vent.at > AT_THE_START)
    return `the vent was commanded shut ${formatNumber(vent.at, 0)} s into it: until then it stood open`;
  if (vent.by === "command" && vent.at + vent.seconds < endedAt) {
    return `the vent command timed out ${formatNumber(endedAt - vent.at - vent.seconds, 0)} s before the end: the vent stood open. Re-arm it in time, or plug the vent`;
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

/** Why air and fuel are too cold or too hot for a vapour test to count; undefined where they are not. */
export function temperatureDoubt(
  { temperature }: { readonly temperature: Quantity },
  { limits }: Pick<CheckContext, "limits">,
): string | undefined {
  const [low, high] = [limits.evapColdest, limits.evapHottest];
  const air = toSi(temperature);
  if (air >= low.value && air <= high.value) return undefined;
  const degrees = (kelvin: number) => formatNumber(kelvin - ZERO_CELSIUS, 0);
  return `the air stands at ${degrees(air)} °C; between ${degrees(low.value)} and ${degrees(high.value)} °C a reading counts (${low.source}): ${air < low.value ? "warm the bay" : "let tank and fuel cool"}, and repeat`;
}

/** Faults that spoil a pressure check of the vapour system before it has begun, in sentences. */
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
  required: RequiredSize | undefined,
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
export const requiredOf = (leak: RequiredLeak): RequiredSize => ({
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

/**
 * The vent as a record keeps it; a command began at its own time on the record's clock.
 * @param zero ms since 1970 of the record's second 0, where it was read live; @param before s, where it is corrected.
 */
export function ventOf(
  read: VentShut | undefined,
  zero: number | null,
  commanded: { readonly at: unknown; readonly before: unknown },
): VentShut | undefined {
  if (read?.by !== "command") return read;
  const live = zero !== null && typeof commanded.at === "number";
  const at = live ? Math.round((commanded.at as number) - zero) / 1000 : undefined;
  return {
    ...read,
    at: at === undefined ? (typeof commanded.before === "number" ? commanded.before : 0) : Math.round(at * 10) / 10,
  };
}
