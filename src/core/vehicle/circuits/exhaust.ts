import { always, fitted, litre, not, off, seal, tie, usual, zone } from "./parts";

const filtered = fitted("particulate-filter");

/** From the cylinders to the tailpipe. */
export const ZONES = [
  zone(always, "cylinders", "Cylinders", 0.5 * litre),
  zone(always, "exhaust-manifold", "Exhaust manifold", 2 * litre),
  zone(always, "front-pipe", "Front pipe", 3 * litre),
  zone(filtered, "filter-can", "Particulate filter", 4 * litre),
  zone(always, "tail", "Tail", 20 * litre),
];

export const JOINTS = [
  tie(always, "exhaust-valves", "Exhaust valves", "cylinders", "exhaust-manifold", "engine"),
  seal(always, "exhaust-gasket", "Exhaust gasket before the sensor", "exhaust-manifold"),
  tie(always, "front-joint", "Front pipe joint", "exhaust-manifold", "front-pipe", "pipe", "open", {
    end: off("front pipe off the manifold", 60),
  }),
  tie(not(filtered), "catalyst", "Catalyst", "front-pipe", "tail", "pipe"),
  tie(filtered, "catalyst", "Catalyst", "front-pipe", "filter-can", "pipe"),
  tie(filtered, "filter-core", "Filter core", "filter-can", "tail", "pipe"),
  seal(filtered, "filter-pipe-front", "Filter's front pressure pipe", "filter-can"),
  seal(filtered, "filter-pipe-rear", "Filter's rear pressure pipe", "tail"),
  tie(always, "tailpipe", "Tailpipe", "tail", "outside", "opening", "open", { end: usual("cone into the tailpipe", 22) }),
];
