import type { Family } from "../checks";
import type { Layout, VehicleFacts, ZoneId } from "../vehicle";

/** How a cause shows: causes of one trait give the same observations and differ by their place. */
export type Trait =
  // Leaks by where the air gets in
  | "manifold-leak"
  | "branch-leak"
  | "booster-leak"
  | "actuator-leak"
  | "crankcase-leak"
  | "pcv-passes"
  | "duct-leak"
  | "charge-leak"
  | "purge-leak"
  | "inside-leak"
  | "exhaust-air"
  // Blockages
  | "restriction"
  | "exhaust-restriction"
  | "ports-coked"
  | "crankcase-blocked"
  // Stuck valves and dead circuits
  | "valve-stuck"
  | "circuit-dead"
  | "device-stuck"
  | "idle-control"
  // Lying meters
  | "meter-low"
  | "meter-range"
  | "sensor-bias"
  // Fuel and engine
  | "fuel-pressure"
  | "fuel-supply"
  | "engine-mechanical"
  // The vapour system
  | "vapour-leak"
  | "vent-open"
  | "vent-blocked"
  | "purge-blocked"
  | "tank-sensor"
  | "healthy";

/** Traits of the vapour system alone: the engine's own readings do not show them. */
export const VAPOUR_TRAITS: readonly Trait[] = ["vapour-leak", "vent-open", "vent-blocked", "purge-blocked", "tank-sensor"];

export interface Cause {
  readonly id: string;
  readonly name: string;
  readonly trait: Trait;
  /** Joint on the air map, where it is one place */
  readonly joint?: string;
  /** Joint that a check of the device works on, where the cause itself is no joint: a solenoid's circuit */
  readonly device?: string;
  /** Relative weight before any reading: how often the trade meets it on a lean or rough-idle petrol car */
  readonly prior: number;
  /** Sees one bank only */
  readonly bank?: 1 | 2;
  /** The part costs less than testing it */
  readonly cheap?: true;
}

/**
 * What going straight to a suspect takes, minutes: uncover it, cap it off, put a gauge or a known good part on. A gasket
 * or a mechanical fault is not confirmed in passing.
 */
export const CONFIRM_MINUTES: Record<Trait, number> = {
  "manifold-leak": 35,
  "branch-leak": 6,
  "booster-leak": 8,
  "actuator-leak": 8,
  "crankcase-leak": 10,
  "pcv-passes": 10,
  "duct-leak": 6,
  "charge-leak": 12,
  "purge-leak": 8,
  "inside-leak": 25,
  "exhaust-air": 25,
  restriction: 6,
  "exhaust-restriction": 30,
  "ports-coked": 25,
  "crankcase-blocked": 10,
  "valve-stuck": 10,
  "circuit-dead": 10,
  "device-stuck": 15,
  "idle-control": 15,
  "meter-low": 12,
  "meter-range": 12,
  "sensor-bias": 15,
  "fuel-pressure": 15,
  "fuel-supply": 15,
  "engine-mechanical": 45,
  "vapour-leak": 12,
  "vent-open": 10,
  "vent-blocked": 12,
  "purge-blocked": 12,
  "tank-sensor": 8,
  healthy: 0,
};

type More = Partial<Pick<Cause, "device" | "bank" | "cheap">>;
const at = (joint: string, name: string, trait: Trait, prior: number, more: More = {}): Cause => ({
  id: joint,
  name,
  trait,
  joint,
  prior,
  ...more,
});
const named = (id: string, joint: string, name: string, trait: Trait, prior: number, more: More = {}): Cause => ({
  ...at(joint, name, trait, prior, more),
  id,
});

/** Causes at a joint: the joint must exist on the vehicle. */
const JOINT_CAUSES: readonly Cause[] = [
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
  at("cold-pipe-split", "Cold pipe split or loose", "charge-leak", 6),
  at("cooler-inlet", "Cooler inlet joint leaks", "charge-leak", 3),
  at("cooler-outlet", "Cooler outlet joint leaks", "charge-leak", 4),
  at("cooler-tank", "Cooler end tank leaks", "charge-leak", 4),
  at("bypass-valve", "Bypass valve leaks back", "inside-leak", 3),
  at("egr-valve", "EGR valve leaks by", "inside-leak", 3),
  at("exhaust-gasket", "Exhaust sucks air before the sensor", "exhaust-air", 5),
  named("catalyst-blocked", "catalyst", "Catalyst or exhaust blocked", "exhaust-restriction", 2),
  named("throttle-coked", "throttle", "Throttle coked", "restriction", 2, { device: "throttle" }),
  named("ports-coked", "intake-valves", "Intake ports coked", "ports-coked", 2),
  named("idle-air-stuck", "idle-air", "Idle-air valve sticks", "idle-control", 3),
  at("flap-line", "Flap vacuum line or reservoir leaks", "actuator-leak", 3, { device: "flap-solenoid" }),
  at("flap-pipe", "Actuator pipe cracked", "actuator-leak", 3, { device: "flap-solenoid" }),
  at("flap-diaphragm", "Actuator diaphragm leaks", "actuator-leak", 3, { device: "flap-solenoid" }),
  at("flap-solenoid", "Flap solenoid does not pass", "valve-stuck", 2),
  named("flap-circuit", "flap-solenoid", "Flap solenoid's circuit dead", "circuit-dead", 2, { device: "flap-solenoid" }),
  named("flap-shaft", "flap-spindle", "Flap shaft stuck or unhooked", "device-stuck", 2, { device: "flap-solenoid" }),
  named("flap-plate", "flap-spindle", "Flap plate broken", "device-stuck", 1, { device: "flap-solenoid" }),
];

/** Causes that are no joint. */
const OTHER_CAUSES: readonly Cause[] = [
  { id: "filter-clogged", name: "Air filter clogged", trait: "restriction", prior: 5, cheap: true },
  { id: "meter-low", name: "Air meter under-reads", trait: "meter-low", prior: 8 },
  { id: "meter-range", name: "Air meter loses range at high flow", trait: "meter-range", prior: 4 },
  { id: "sensor-bias", name: "Oxygen sensor reads lean", trait: "sensor-bias", prior: 2 },
  { id: "fuel-pressure", name: "Fuel pressure low or injectors weak", trait: "fuel-pressure", prior: 5 },
  { id: "fuel-supply", name: "Fuel pump or filter at its limit", trait: "fuel-supply", prior: 5 },
  { id: "engine-mechanical", name: "Valve, timing or ring fault", trait: "engine-mechanical", prior: 2 },
];
const HEALTHY: Cause = { id: "healthy", name: "Nothing wrong now", trait: "healthy", prior: 8 };

/** Causes of the vapour system: how often the trade meets each on a car with an EVAP code. */
const EVAP_CAUSES: readonly Cause[] = [
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
  { id: "tank-sensor", name: "Tank-pressure sensor lies", trait: "tank-sensor", prior: 4 },
];

/** What a leak at a joint is called by the zone it lets into; zones whose leaks nothing here is weighed for are left out. */
const LEAKS_INTO: Partial<Record<ZoneId, Trait>> = {
  "metered-duct": "duct-leak",
  breather: "duct-leak",
  "hot-pipe": "charge-leak",
  cooler: "charge-leak",
  "cold-pipe": "charge-leak",
  manifold: "manifold-leak",
  "booster-branch": "booster-leak",
  crankcase: "crankcase-leak",
  "vacuum-supply": "actuator-leak",
  "flap-actuator": "actuator-leak",
  "exhaust-manifold": "exhaust-air",
  "purge-line": "vapour-leak",
  canister: "vapour-leak",
  tank: "vapour-leak",
  neck: "vapour-leak",
};
/** How often the trade meets a leak at a joint that no cause names by itself. */
const UNNAMED = 0.7;

/** A joint that can leak is a suspect, even where nobody thought of naming it. */
const unnamedLeaks = (layout: Layout, named: ReadonlySet<string>, families: readonly Family[]): Cause[] =>
  layout.joints.flatMap((j): Cause[] => {
    const trait = LEAKS_INTO[j.from];
    const family: Family = trait && VAPOUR_TRAITS.includes(trait) ? "evap" : "engine";
    if (!trait || named.has(j.id) || (j.kind !== "seal" && j.kind !== "pipe") || !families.includes(family)) return [];
    return [{ id: j.id, name: `${j.name} leaks`, trait, joint: j.id, prior: UNNAMED }];
  });

/** Places a finding can be at: the joints of the map, and causes that are no joint by themselves. */
export function findingPlaces(layout: Layout, vehicle: VehicleFacts): { readonly id: string; readonly name: string }[] {
  const joints = new Set(layout.joints.map((j) => j.id));
  const others = causesOf(layout, vehicle, ["engine", "evap"]).filter((c) => !joints.has(c.id) && c.trait !== "healthy");
  return [...layout.joints, ...others].map(({ id, name }) => ({ id, name }));
}

/** The causes this vehicle can have, of the families a job is weighed over. */
export function causesOf(layout: Layout, vehicle: VehicleFacts, families: readonly Family[] = ["engine"]): Cause[] {
  const joints = new Set(layout.joints.map((j) => j.id));
  const withMeter = vehicle.metering === "maf";
  const flaps = vehicle.fitted.includes("runner-flaps");
  const engine = [
    ...JOINT_CAUSES.filter((c) => flaps || !c.id.startsWith("flap-")),
    ...OTHER_CAUSES.filter((c) => withMeter || !c.trait.startsWith("meter")),
  ];
  const evap = vehicle.fitted.includes("evap") ? EVAP_CAUSES : [];
  const causes = new Map<string, Cause>();
  for (const cause of [...(families.includes("engine") ? engine : []), ...(families.includes("evap") ? evap : []), HEALTHY]) {
    const known = causes.get(cause.id);
    // A cause of both families is one cause, as likely as where it is met most.
    if (!cause.joint || joints.has(cause.joint)) causes.set(cause.id, known && known.prior > cause.prior ? known : cause);
  }
  for (const cause of unnamedLeaks(layout, new Set(causes.keys()), families)) causes.set(cause.id, cause);
  return [...causes.values()];
}
