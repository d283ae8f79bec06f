import { always, fitted, type JointRow, litre, off, seal, tie, usual, zone } from "./parts";

/** From the cylinders to the tailpipe. */
export const ZONES = [
  zone(always, "cylinders", "Cylinders", 0.5 * litre),
  zone(always, "exhaust-manifold", "Exhaust manifold", 2 * litre),
  zone(always, "front-pipe", "Front pipe", 3 * litre),
  zone(always, "tail", "Tail", 20 * litre),
];

export const JOINTS: readonly JointRow[] = [
  tie(fitted("egr"), "egr-valve", "EGR valve", "exhaust-manifold", "manifold", "valve", "closed"),
  tie(always, "exhaust-valves", "Exhaust valves", "cylinders", "exhaust-manifold", "engine"),
  seal(always, "exhaust-gasket", "Exhaust gasket before the sensor", "exhaust-manifold"),
  tie(always, "front-joint", "Front pipe joint", "exhaust-manifold", "front-pipe", "pipe", "open", {
    end: off("front pipe off the manifold", 60),
  }),
  tie(always, "catalyst", "Catalyst", "front-pipe", "tail", "pipe"),
  tie(always, "tailpipe", "Tailpipe", "tail", "outside", "opening", "open", { end: usual("cone into the tailpipe", 22) }),
];
