import { requiredOf } from "../../checks/evap-fields";
import type { Tank } from "../../gas/network/tank";
import { entriesOf, type FillSetup, requiredLeakOf, usualSetup } from "../../vehicle";
import { type Car, hasTrait, holeOf } from "../car";
import { gasSpaceOf, VENT, WALLS } from "../monitors";
import { type Bay, chosen, type Setup, shown } from "./bay";

/** Hole of the vent commanded shut, m. */
export const ventShut = (car: Car): number => {
  const open = hasTrait(car, "vent-open") ?? car.faults.find((f) => f.cause.id === "vent-circuit");
  return open ? (open.cause.id === "vent-circuit" ? VENT : holeOf(open, car.context.vehicle)) : 0;
};

export interface VapourSetup extends FillSetup {
  readonly vent: { readonly by: "plug" } | { readonly by: "command"; readonly at: number; readonly seconds: number };
}

export function setupOf({ car }: Bay, setup: Setup): VapourSetup {
  const { layout } = car.context;
  const entry = chosen<string | undefined>(setup, "entry", undefined) ?? entriesOf(layout, "evap")[0]?.id ?? "purge-line-joint";
  const vent = chosen<VapourSetup["vent"]>(setup, "vent", { by: "plug" });
  return {
    ...usualSetup(layout, entry),
    blocked: [...chosen<readonly string[]>(setup, "blocked", vent.by === "plug" ? ["vent-filter"] : [])],
    vent,
  };
}

export const tankOf = (car: Car, leak: number): Tank => ({
  volume: gasSpaceOf(car),
  leak,
  wallTime: WALLS,
  ambient: car.ambient,
  temperature: car.temperature,
});

/** Fields that every check of the vapour system records beside its readings. */
export const common = (car: Car) => {
  const leak = requiredLeakOf(car.context.vehicle, []);
  return {
    fuelLevel: Math.round(car.fuelLevel),
    ...(leak ? { required: requiredOf(leak) } : {}),
    touchedBefore: [],
    adapterLeaks: false,
    ambient: shown(car.ambient, "hPa", 1, "absolute"),
    temperature: shown(car.temperature, "°C", 1),
  };
};
