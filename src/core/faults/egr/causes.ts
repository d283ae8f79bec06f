import { at, type Cause, named } from "../cause";

/** How often the trade meets each on a car with an EGR code; own estimates. */
export const CAUSES: readonly Cause[] = [
  at("egr-valve", "EGR valve leaks by", "inside-leak", 8),
  named("egr-blocked", "egr-valve", "EGR valve stuck shut or its passage blocked", "egr-blocked", 9, { device: "egr-valve" }),
  named("egr-circuit", "egr-valve", "EGR valve's circuit dead", "circuit-dead", 3, { device: "egr-valve" }),
  at("low-egr-valve", "Low-pressure EGR valve leaks by", "inside-leak", 3),
  at("egr-cooler-joint", "EGR cooler cracked or its joint leaks", "egr-cooler-leak", 4),
  at("egr-pipe", "EGR actuator pipe cracked", "actuator-leak", 3, { device: "egr-solenoid" }),
  at("egr-diaphragm", "EGR diaphragm leaks", "actuator-leak", 3, { device: "egr-solenoid" }),
  at("egr-solenoid", "EGR solenoid does not pass", "valve-stuck", 2),
];
