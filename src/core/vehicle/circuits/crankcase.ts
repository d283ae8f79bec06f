import { fitted, hose, litre, off, seal, tie, usual, zone } from "./parts";

const pcv = fitted("pcv");

/** The crankcase, what sucks it out and what lets fresh air in. */
export const ZONES = [zone(pcv, "crankcase", "Crankcase", 12 * litre), zone(pcv, "breather", "Breather hose", 0.3 * litre)];

export const JOINTS = [
  tie(pcv, "pcv-valve", "PCV valve", "crankcase", "manifold", "valve", "open"),
  hose(pcv, "pcv-hose", "PCV hose", off("PCV hose off the manifold", 28), "crankcase"),
  tie(pcv, "breather-port", "Breather at the crankcase", "crankcase", "breather", "pipe", "open", {
    end: off("breather off the crankcase", 28),
  }),
  tie(pcv, "breather-duct", "Breather at the duct", "breather", "metered-duct", "pipe", "open", {
    end: off("breather off the duct", 28),
  }),
  seal(pcv, "pcv-diaphragm", "PCV diaphragm", "crankcase"),
  seal(pcv, "oil-cap", "Oil cap", "crankcase", { end: off("oil cap off, cone in its neck", 26) }),
  seal(pcv, "dipstick", "Dipstick seal", "crankcase", { end: usual("dipstick out of its tube", 26) }),
  seal(pcv, "cover-gasket", "Valve-cover or shaft seal", "crankcase"),
];
