import { at, type Cause, named } from "../cause";

/** How often the trade meets each on a car with an EVAP code. */
export const CAUSES: readonly Cause[] = [
  at("filler-cap", "Filler cap or its seal leaks", "vapour-leak", 10, { cheap: true }),
  at("cap-seat", "Cap's seat in the neck rusted or dented", "vapour-leak", 2),
  at("neck-hose", "Filler neck rusted through or hose split", "vapour-leak", 6),
  at("neck-tank", "Neck joint at the tank leaks", "vapour-leak", 2),
  at("tank-flange", "Pump or sender flange leaks", "vapour-leak", 4),
  at("rollover-grommet", "Rollover-valve grommet leaks", "vapour-leak", 3),
  at("tank-line", "Vapour line at the tank leaks", "vapour-leak", 4),
  at("canister-joint", "Canister cracked or its joint leaks", "vapour-leak", 6),
  at("purge-line-joint", "Purge line split or connector leaks", "vapour-leak", 5),
  at("service-port", "Service port core leaks", "vapour-leak", 2, { cheap: true }),
  at("purge-valve", "Purge valve leaks by", "purge-leak", 9),
  named("vent-open", "vent-valve", "Vent valve does not shut", "vent-open", 8, { device: "vent-valve" }),
  named("vent-stuck-shut", "vent-valve", "Vent valve stuck shut", "vent-blocked", 2, { device: "vent-valve" }),
  at("vent-filter", "Vent filter or hose blocked", "vent-blocked", 4),
  named("canister-blocked", "canister-joint", "Canister blocked", "vent-blocked", 2),
  at("fill-limit-valve", "Fill-limit valve stuck or its line blocked", "vent-blocked", 2),
  named("purge-stuck", "purge-valve", "Purge valve does not open", "purge-blocked", 4, { device: "purge-valve" }),
  named("purge-line-blocked", "purge-canister", "Purge line blocked", "purge-blocked", 2),
  named("purge-circuit", "purge-valve", "Purge valve's circuit dead", "circuit-dead", 2, { device: "purge-valve" }),
  named("vent-circuit", "vent-valve", "Vent valve's circuit dead", "circuit-dead", 3, { device: "vent-valve" }),
  { id: "tank-sensor", name: "Tank-pressure sensor reads wrong", trait: "tank-sensor", prior: 4 },
];
