import { at, type Cause, named } from "../cause";

const SOLENOID = { device: "boost-solenoid" } as const;

/** How often the trade meets each on a car with a boost code; own estimates. Leaks and blockages stand higher here than on any car. */
export const CAUSES: readonly Cause[] = [
  at("hot-pipe-clamp", "Hot pipe clamp leaks", "charge-leak", 8),
  at("cold-pipe-split", "Cold pipe split", "charge-leak", 10),
  at("cooler-inlet", "Cooler inlet joint leaks", "charge-leak", 6),
  at("cooler-outlet", "Cooler outlet joint leaks", "charge-leak", 7),
  at("cooler-tank", "Cooler end tank leaks", "charge-leak", 6),
  at("bypass-valve", "Bypass valve leaks back", "inside-leak", 4),
  at("duct-split", "Duct split", "duct-leak", 4),
  named("vanes-stuck", "compressor", "Vanes or wastegate stuck, or worn", "boost-lazy", 6),
  at("boost-pipe", "Boost actuator pipe cracked", "actuator-leak", 5, SOLENOID),
  at("boost-diaphragm", "Boost actuator diaphragm leaks", "actuator-leak", 4, SOLENOID),
  at("boost-solenoid", "Boost solenoid does not pass", "valve-stuck", 4),
  named("boost-circuit", "boost-solenoid", "Boost solenoid's circuit dead", "circuit-dead", 2, SOLENOID),
  at("flap-line", "Vacuum line or reservoir leaks", "supply-weak", 4),
  at("vacuum-pump", "Vacuum pump weak", "supply-weak", 2),
  at("wastegate-pipe", "Wastegate pipe off or its diaphragm split", "boost-over", 4),
  named("vanes-shut", "compressor", "Vanes or wastegate stuck shut", "boost-over", 2),
  { id: "boost-sensor", name: "Boost sensor off", trait: "boost-sensor", prior: 3 },
  { id: "filter-clogged", name: "Air filter clogged", trait: "restriction", prior: 5, cheap: true },
  named("catalyst-blocked", "catalyst", "Catalyst or exhaust blocked", "exhaust-restriction", 3),
  at("hot-pipe-split", "Hot pipe split", "charge-leak", 4, { uncoded: true }),
  at("cold-pipe-clamp", "Cold pipe clamp leaks", "charge-leak", 6, { uncoded: true }),
];
