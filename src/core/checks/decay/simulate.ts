import type { Trait } from "../../faults";
import { decayTrace } from "../../gas/network/tank";
import { type Car, holeOf } from "../../practice/car";
import { type Bay, gaugeIn, percent, type Setup } from "../../practice/readers/bay";
import { common, setupOf, tankOf, ventShut } from "../../practice/readers/vapour";
import { fromSi } from "../../units";
import { type FillSetup, reachOf } from "../../vehicle";
import type { DecayRecord } from "./fields";

/** Holes of the vapour system that a setup puts to the test, as one of their area, m. */
function leakOf(car: Car, setup: FillSetup | undefined, byCommand: boolean): number {
  const tested = setup && reachOf(car.context.layout, setup).tested.map((j) => j.id);
  const VAPOUR: readonly Trait[] = ["vapour-leak", "purge-leak"];
  const own = car.faults
    .filter(
      (f) =>
        VAPOUR.includes(f.cause.trait) && (f.cause.trait === "purge-leak" || (tested?.includes(f.cause.joint ?? "") ?? true)),
    )
    .map((f) => holeOf(f, car.context.vehicle));
  return Math.hypot(...own, byCommand ? ventShut(car) : 0);
}

const PUSHED = 2490;

const HELD = 120;

const WATCHED = 150;

/** A shut system filled, held, and left alone: its pressure every five seconds. The bay warms or cools a little meanwhile. */
const decayed = ({ car, noise }: Bay, leak: number): [number, number][] =>
  decayTrace(tankOf(car, leak), {
    pressure: PUSHED,
    held: HELD,
    duration: WATCHED,
    every: 5,
    drift: noise.uniform(-0.08, 0.08),
  }).map(([t, gauge]) => [t, percent(fromSi(Math.max(0, gauge), "inH2O").value + noise.normal(0.006), 0.01)]);

export const simulate = (bay: Bay, setup: Setup): DecayRecord => {
  const fill = setupOf(bay, setup);
  const leak = leakOf(bay.car, fill, fill.vent.by === "command");
  return {
    ...fill,
    ...common(bay.car),
    source: { kind: "typed" },
    unit: "inH2O",
    held: HELD,
    samples: decayed(bay, leak),
    instrument: gaugeIn("inH2O", 0.01, "Low-pressure gauge", 20),
  };
};
