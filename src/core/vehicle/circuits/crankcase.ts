import { both, fitted, hose, litre, not, off, petrol, seal, tie, turbo, usual, zone } from "./parts";

const pcv = fitted("pcv");

/** The crankcase, what sucks it out and what lets fresh air in. */
export const ZONES = [zone(pcv, "crankcase", "Crankcase", 12 * litre), zone(pcv, "breather", "Breather hose", 0.3 * litre)];

export const JOINTS = [
  // A diesel's manifold has no vacuum to suck by; boost shuts the check valve of a turbocharged engine, which passes towards the manifold alone.
  tie(both(pcv, petrol, not(turbo)), "pcv-valve", "PCV valve", "crankcase", "manifold", "valve", "open"),
  tie(both(pcv, petrol, turbo), "pcv-valve", "PCV check valve", "manifold", "crankcase", "valve", "one-way"),
  hose(both(pcv, petrol), "pcv-hose", "PCV hose", off("PCV hose off the manifold", 28), "crankcase"),
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
