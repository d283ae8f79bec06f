import { type Bay, gaugeIn, placeOf, type Setup } from "../../practice/readers/bay";
import { heldAt, inHg, PULLED } from "../../practice/readers/standing";
import type { HoldRecord } from "./fields";

export const simulate = (bay: Bay, setup: Setup): HoldRecord => {
  const { car } = bay;
  const place = placeOf(setup);
  const series = (seconds: number): [number, number][] =>
    [0, seconds / 2, seconds].map((t) => [t, Math.max(0, inHg(heldAt(bay, place, t)))]);
  const stuck =
    place.endsWith("-diaphragm") &&
    car.faults.some((f) => f.cause.trait === "boost-lazy" || (f.cause.trait === "device-stuck" && place === "flap-diaphragm"));
  const leaks = heldAt(bay, place, 20) > 0.5 * PULLED;
  return {
    joint: place,
    part: place.endsWith("-diaphragm") ? "actuator" : place === "flap-line" ? "reservoir" : "line",
    ...(place.endsWith("-diaphragm") ? { moved: !leaks, ...(leaks ? {} : { reach: stuck ? "short" : "full" }) } : {}),
    unit: "inHg",
    still: series(60),
    wiggled: series(40),
    instrument: gaugeIn("inHg", 0.1),
  };
};
