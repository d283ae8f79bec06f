import type { Field, Given, Option } from "../form";
import { unitsOf } from "../units";
import { EVAP_MARKETS, EVAP_MONITORS, type EvapFacts } from "../vehicle";

const text = ({ holds }: Given<never>, name: string) => String(holds(name) ?? "").trim();
const typed = (given: Given<never>, name: string) => text(given, name) !== "";

/** Nothing of the vapour system counts before its tank is known: everything about it hangs on the volume. */
const counts = (given: Given<never>) => typed(given, "evap.tank");
const hasCurve = (given: Given<never>) => typed(given, "evap.sensor.zero") || typed(given, "evap.sensor.perUnit");
const CURVE = "A sensor's curve needs its volts at zero and its volts per unit";
const ofSensor = {
  counts: (given: Given<never>) => counts(given) && hasCurve(given),
  needed: (given: Given<never>) => (counts(given) && hasCurve(given) ? CURVE : undefined),
};

/** What a system has while nobody said otherwise. */
const USUAL = { monitor: "engine-vacuum", market: "strict", neck: "cap" } as const satisfies Partial<EvapFacts>;

/** Whether anything was said of the system besides its tank. */
const saidMore = (given: Given<never>) =>
  Object.entries(USUAL).some(([name, usual]) => given.holds(`evap.${name}`) !== usual) ||
  ["servicePort", "neckFlap", "tankOneWay"].some((name) => given.holds(`evap.${name}`) === true) ||
  ["requiredLeak", "sensor.zero", "sensor.perUnit"].some((name) => typed(given, `evap.${name}`));

/**
 * What decides how the vapour system can be tested, and what a reading of it means; part of the vehicle's form.
 * @param asked whether the car has one.
 */
export function evapFields<Known>(asked: (given: Given<Known>) => boolean) {
  const fields = {
    "evap.tank": {
      type: "quantity",
      label: "Fuel tank, rated volume",
      hint: "Gas space and fill times hang on it",
      band: "tank",
      unit: "L",
      units: ["L"],
      example: "50",
      needed: (given) =>
        saidMore(given) ? "Type the tank's volume: without it nothing said of the vapour system counts" : undefined,
    },
    "evap.monitor": {
      type: "choice",
      list: true,
      label: "Who pulls the leak test",
      options: Object.entries(EVAP_MONITORS) as Option[],
      holds: () => USUAL.monitor,
      counts,
    },
    "evap.market": {
      type: "choice",
      label: "Built for",
      options: Object.entries(EVAP_MARKETS) as Option[],
      holds: () => USUAL.market,
      counts,
    },
    "evap.neck": {
      type: "choice",
      label: "Filler neck",
      options: [
        ["cap", "With a cap"],
        ["capless", "Capless"],
      ],
      holds: () => USUAL.neck,
      counts,
    },
    "evap.servicePort": { type: "tick", label: "Has a service port", counts },
    "evap.neckFlap": { type: "tick", label: "A flap seals the neck off from the tank", counts },
    "evap.tankOneWay": { type: "tick", label: "The fill-limit valve lets gas out of the tank only", counts },
    "evap.requiredLeak": {
      type: "quantity",
      label: "Leak to be caught, maker's figure",
      hint: "Left empty: the code's criteria, or the model year",
      band: "hole",
      unit: "mm",
      units: ["mm", "in", "thou"],
      example: "0.5",
      counts,
    },
    "evap.sensor.zero": {
      type: "quantity",
      label: "Tank-pressure sensor, volts at zero",
      band: "voltage",
      unit: "V",
      units: ["V"],
      example: "1.5",
      ...ofSensor,
    },
    "evap.sensor.perUnit": {
      type: "number",
      label: "Its volts per unit of gauge pressure",
      example: "0.6",
      ...ofSensor,
    },
    "evap.sensor.unit": {
      type: "choice",
      list: true,
      label: "Per",
      options: unitsOf("pressure").map((u): Option => [u, u]),
      holds: () => "kPa",
      counts: ofSensor.counts,
    },
    "evap.referenceOrifice": {
      type: "quantity",
      label: "The pump's reference orifice",
      band: "hole",
      unit: "mm",
      units: ["mm", "in", "thou"],
      example: "0.5",
      when: (given) => given.holds("evap.monitor") === "canister-pump",
      counts,
    },
  } satisfies Record<string, Field<never>>;
  return Object.fromEntries(
    Object.entries<Field<Known>>(fields as unknown as Record<string, Field<Known>>).map(([name, field]) => [
      name,
      { ...field, when: (given: Given<Known>) => asked(given) && (field.when?.(given) ?? true) },
    ]),
  ) as Readonly<Record<keyof typeof fields, Field<Known>>>;
}
