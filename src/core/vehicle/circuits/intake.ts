import {
  always,
  both,
  diesel,
  fitted,
  litre,
  metered,
  natural,
  not,
  off,
  petrol,
  seal,
  speedDensity,
  throttled,
  tie,
  turbo,
  usual,
  zone,
} from "./parts";

/** From the snorkel to the throttle, or to the compressor. */
export const ZONES = [
  zone(always, "filter-box", "Filter box", 8 * litre),
  zone(metered, "metered-duct", "Metered duct", 2 * litre),
  zone(speedDensity, "metered-duct", "Intake duct", 2 * litre),
];

/** Where the duct leaves the filter box; with an air meter, at the meter. */
const AT_FILTER_BOX = { end: usual("duct off where it leaves the filter box", 28) };

export const JOINTS = [
  tie(always, "snorkel", "Snorkel", "filter-box", "outside", "opening", "open", { end: off("snorkel off the filter box", 28) }),
  seal(always, "filter-lid", "Filter box lid", "filter-box"),
  tie(metered, "air-meter", "MAF", "filter-box", "metered-duct", "meter", "open", AT_FILTER_BOX),
  tie(speedDensity, "air-meter", "Duct at the filter box", "filter-box", "metered-duct", "pipe", "open", AT_FILTER_BOX),
  seal(always, "duct-split", "Duct, split or bend", "metered-duct"),
  seal(natural, "duct-clamp", "Duct clamp", "metered-duct", { end: off("duct off the throttle body", 28, { at: "throttle" }) }),
  seal(turbo, "duct-clamp", "Duct clamp", "metered-duct", { end: off("duct off the compressor", 32, { at: "compressor" }) }),
  tie(both(natural, throttled, petrol), "throttle", "Throttle", "metered-duct", "manifold", "throttle", "closed"),
  tie(both(natural, throttled, diesel), "throttle", "Throttle flap", "metered-duct", "manifold", "throttle", "open"),
  tie(both(natural, not(throttled)), "throttle", "Duct at the manifold", "metered-duct", "manifold", "pipe", "open"),
  tie(fitted("idle-air"), "idle-air", "Idle air control valve", "metered-duct", "manifold", "valve", "open", { weeps: true }),
];
