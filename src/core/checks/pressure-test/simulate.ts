import { orificeFlow } from "../../gas/orifice";
import { holeOf } from "../../practice/car";
import { type Bay, chosen, gaugeIn, placeOf, type Setup, shown } from "../../practice/readers/bay";
import { toSi } from "../../units";
import { reachOf, usualSetup } from "../../vehicle";
import type { PressureTest } from "./fields";

/** A stop at which everything is listened to and soaped, Pa gauge. */
const STOPS = [30e3, 60e3, 100e3];

/** Soap blows at so much, kg/s; what is heard is so much more. */
const BUBBLES = 2e-6;

export const simulate = (bay: Bay, setup: Setup): PressureTest => {
  const { car } = bay;
  const usual = usualSetup(car.context.layout, chosen(setup, "entry", placeOf(setup)) ?? "");
  const fill = {
    entry: usual.entry,
    blocked: [...chosen<readonly string[]>(setup, "blocked", usual.blocked)],
    heldOpen: [...chosen<readonly string[]>(setup, "heldOpen", usual.heldOpen)],
  };
  const reach = reachOf(car.context.layout, fill);
  const bar = (pa: number) => shown(pa, "bar", 0.01, "gauge");
  const max = car.context.vehicle.maxBoost ? toSi(car.context.vehicle.maxBoost) : 100e3;
  const stops = STOPS.map((stop) => Math.min(stop, max)).filter((stop, i, all) => all.indexOf(stop) === i);
  const escapes = car.faults.flatMap((fault): NonNullable<PressureTest["escapes"]>[number][] => {
    const { joint } = fault.cause;
    const hole = holeOf(fault, car.context.vehicle);
    if (!joint || hole <= 0 || !reach.tested.some((j) => j.id === joint)) return [];
    const at = stops.find(
      (stop) =>
        orificeFlow({
          upstream: car.ambient + stop,
          downstream: car.ambient,
          temperature: car.temperature,
          diameter: hole,
        }).massFlow > BUBBLES,
    );
    return at === undefined ? [] : [{ joint, sign: "soap", from: bar(at) }];
  });
  return {
    ...fill,
    maxBoost: bar(max),
    ratings: { tool: bar(2e5) },
    steps: stops.map((stop) => ({ pressure: bar(stop) })),
    escapes,
    everywhere: true,
    instrument: gaugeIn("bar", 0.02),
  };
};
