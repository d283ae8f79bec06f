import { both, fitted, litre, not, off, seal, tie, zone } from "./parts";

const egr = fitted("egr");
const cooled = both(egr, fitted("egr-cooler"));
const lowPressure = fitted("low-pressure-egr");

/** EGR circuits: before the turbine into the manifold, or from behind the filter into the duct. */
export const ZONES = [zone(cooled, "egr-cooler", "EGR cooler", 0.8 * litre)];

export const JOINTS = [
  tie(both(egr, not(cooled)), "egr-valve", "EGR valve", "exhaust-manifold", "manifold", "valve", "closed"),
  tie(cooled, "egr-valve", "EGR valve", "egr-cooler", "manifold", "valve", "closed"),
  tie(cooled, "egr-pipe-joint", "EGR pipe at the exhaust manifold", "exhaust-manifold", "egr-cooler", "pipe", "open", {
    end: off("EGR pipe off the exhaust manifold", 45),
  }),
  seal(cooled, "egr-cooler-joint", "EGR cooler, joint or crack", "egr-cooler"),
  tie(lowPressure, "low-egr-valve", "Low-pressure EGR valve", "tail", "metered-duct", "valve", "closed"),
];
