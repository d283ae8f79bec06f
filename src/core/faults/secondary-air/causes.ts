import { at, type Cause, named } from "../cause";

/** A switching valve's causes, a bank each. */
const valve = (id: string, bank = ""): Cause[] => [
  at(id, `Air switching valve${bank} does not open`, "air-valve-stuck", 4),
  named(`${id}-back`, id, `Air switching valve${bank} leaks back`, "air-valve-back", 3),
  named(`${id}-ports`, id, `Secondary-air ports${bank} blocked with carbon`, "air-ports", 4),
];

/** How often the trade meets each on a car with a secondary-air code; own estimates. */
export const CAUSES: readonly Cause[] = [
  at("pump-seam", "Secondary-air pump's body or seam leaks", "air-leak", 4),
  at("air-hose-joint", "Secondary-air hose split or off", "air-leak", 6),
  named("pump-dead", "air-pump", "Secondary-air pump seized or burnt out", "air-pump-dead", 6, { device: "air-pump" }),
  named("pump-circuit", "air-pump", "Pump's fuse, relay or circuit dead", "circuit-dead", 5, { device: "air-pump" }),
  ...valve("air-valve"),
  ...valve("air-valve-1", ", bank 1"),
  ...valve("air-valve-2", ", bank 2"),
  at("air-pipe", "Air-valve actuator pipe cracked", "actuator-leak", 3, { device: "air-solenoid" }),
  at("air-diaphragm", "Air-valve diaphragm leaks", "actuator-leak", 2, { device: "air-solenoid" }),
  at("air-solenoid", "Air-valve solenoid does not pass", "valve-stuck", 2),
];
