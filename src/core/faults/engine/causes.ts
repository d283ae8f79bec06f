import type { VehicleFacts } from "../../vehicle";
import { at, type Cause, named } from "../cause";

/** How often the trade meets each on a lean or rough-idle petrol car. */
const CAUSES: readonly Cause[] = [
  at("manifold-gasket", "Manifold gasket leaks", "manifold-leak", 12),
  at("manifold-gasket-1", "Manifold gasket leaks, bank 1", "manifold-leak", 6, { bank: 1 }),
  at("manifold-gasket-2", "Manifold gasket leaks, bank 2", "manifold-leak", 6, { bank: 2 }),
  at("throttle-gasket", "Throttle body gasket leaks", "manifold-leak", 6),
  at("plenum-crack", "Plenum cracked", "manifold-leak", 4),
  at("injector-seals", "Injector seals leak", "manifold-leak", 5),
  at("gauge-port", "Vacuum cap missing or split", "manifold-leak", 5, { cheap: true }),
  at("flap-spindle", "Runner-flap spindle worn", "manifold-leak", 4),
  at("vacuum-branch", "Small vacuum branch perished", "branch-leak", 8, { cheap: true }),
  at("booster-hose", "Booster hose split", "booster-leak", 6),
  at("booster-diaphragm", "Booster diaphragm leaks", "booster-leak", 3),
  at("pcv-hose", "PCV hose split", "branch-leak", 11),
  at("pcv-valve", "PCV valve stuck open", "pcv-passes", 5),
  at("pcv-diaphragm", "PCV diaphragm torn", "pcv-passes", 6),
  at("oil-cap", "Oil cap leaks", "crankcase-leak", 3, { cheap: true }),
  at("dipstick", "Dipstick seal leaks", "crankcase-leak", 3, { cheap: true }),
  at("cover-gasket", "Valve-cover or shaft seal leaks", "crankcase-leak", 3),
  at("breather-duct", "Breather off the duct or split", "duct-leak", 4),
  at("breather-port", "Breather off the crankcase or split", "crankcase-leak", 3),
  named("breather-blocked", "breather-port", "Breather blocked", "crankcase-blocked", 2),
  at("purge-hose", "Purge hose off or split", "branch-leak", 4),
  at("purge-valve", "Purge valve leaks by", "purge-leak", 5),
  at("duct-split", "Duct split", "duct-leak", 8),
  at("duct-clamp", "Duct clamp loose or duct disturbed", "duct-leak", 5, { cheap: true }),
  at("hot-pipe-clamp", "Hot pipe clamp leaks", "charge-leak", 5),
  at("cold-pipe-split", "Cold pipe split", "charge-leak", 6),
  at("cooler-inlet", "Cooler inlet joint leaks", "charge-leak", 3),
  at("cooler-outlet", "Cooler outlet joint leaks", "charge-leak", 4),
  at("cooler-tank", "Cooler end tank leaks", "charge-leak", 4),
  at("bypass-valve", "Bypass valve leaks back", "inside-leak", 3),
  at("egr-valve", "EGR valve leaks by", "inside-leak", 3),
  at("exhaust-gasket", "Exhaust sucks air before the sensor", "exhaust-air", 5),
  named("catalyst-blocked", "catalyst", "Catalyst or exhaust blocked", "exhaust-restriction", 2),
  named("throttle-coked", "throttle", "Throttle coked", "restriction", 2, { device: "throttle" }),
  named("ports-coked", "intake-valves", "Intake ports coked", "ports-coked", 2),
  named("idle-air-stuck", "idle-air", "Idle air control valve sticks", "idle-control", 3),
  at("flap-line", "Flap vacuum line or reservoir leaks", "actuator-leak", 3, { device: "flap-solenoid" }),
  at("flap-pipe", "Actuator pipe cracked", "actuator-leak", 3, { device: "flap-solenoid" }),
  at("flap-diaphragm", "Actuator diaphragm leaks", "actuator-leak", 3, { device: "flap-solenoid" }),
  at("flap-solenoid", "Flap solenoid does not pass", "valve-stuck", 2),
  named("flap-circuit", "flap-solenoid", "Flap solenoid's circuit dead", "circuit-dead", 2, { device: "flap-solenoid" }),
  named("flap-shaft", "flap-spindle", "Flap shaft stuck or unhooked", "device-stuck", 2, { device: "flap-solenoid" }),
  named("flap-plate", "flap-spindle", "Flap plate broken", "device-stuck", 1, { device: "flap-solenoid" }),
  { id: "filter-clogged", name: "Air filter clogged", trait: "restriction", prior: 5, cheap: true },
  { id: "meter-low", name: "MAF reads low", trait: "meter-low", prior: 8 },
  { id: "meter-range", name: "MAF loses range at high flow", trait: "meter-range", prior: 4 },
  { id: "sensor-bias", name: "Oxygen sensor reads lean", trait: "sensor-bias", prior: 2 },
  { id: "fuel-pressure", name: "Fuel pressure low or injectors weak", trait: "fuel-pressure", prior: 5 },
  { id: "fuel-supply", name: "Fuel pump or filter at its limit", trait: "fuel-supply", prior: 5 },
  { id: "engine-mechanical", name: "Valve, timing or ring fault", trait: "engine-mechanical", prior: 2 },
  at("hot-pipe-split", "Hot pipe split", "charge-leak", 2, { uncoded: true }),
  at("cold-pipe-clamp", "Cold pipe clamp leaks", "charge-leak", 4, { uncoded: true }),
];

const METER: readonly string[] = ["meter-low", "meter-range"];

/** A meter lies where one is; what is a place is there with its joint. */
export const causes = ({ metering }: Pick<VehicleFacts, "metering">): readonly Cause[] =>
  CAUSES.filter(({ trait }) => metering === "maf" || !METER.includes(trait));
