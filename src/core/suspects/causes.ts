import type { Layout, VehicleFacts } from "../vehicle";

/** How a cause shows: causes of one trait give the same observations and differ by their joint. */
export type Trait =
  | "manifold-leak"
  | "branch-leak"
  | "booster-leak"
  | "crankcase-leak"
  | "duct-leak"
  | "charge-leak"
  | "purge-leak"
  | "inside-leak"
  | "meter-low"
  | "meter-range"
  | "fuel-pressure"
  | "fuel-supply"
  | "exhaust-air"
  | "healthy";

export interface Cause {
  readonly id: string;
  readonly name: string;
  readonly trait: Trait;
  /** Joint on the air map, where it is one place */
  readonly joint?: string;
  /** Relative weight before any reading: how often the trade meets it on a lean or rough-idle petrol car */
  readonly prior: number;
  /** Sees one bank only */
  readonly bank?: 1 | 2;
}

/** Leaks by joint: the joint must exist on the vehicle. */
const JOINT_CAUSES: readonly Cause[] = [
  { id: "manifold-gasket", name: "Manifold gasket leaks", trait: "manifold-leak", joint: "manifold-gasket", prior: 12 },
  {
    id: "manifold-gasket-1",
    name: "Manifold gasket leaks, bank 1",
    trait: "manifold-leak",
    joint: "manifold-gasket-1",
    prior: 6,
    bank: 1,
  },
  {
    id: "manifold-gasket-2",
    name: "Manifold gasket leaks, bank 2",
    trait: "manifold-leak",
    joint: "manifold-gasket-2",
    prior: 6,
    bank: 2,
  },
  { id: "throttle-gasket", name: "Throttle body gasket leaks", trait: "manifold-leak", joint: "throttle-gasket", prior: 6 },
  { id: "plenum-crack", name: "Plenum cracked", trait: "manifold-leak", joint: "plenum-crack", prior: 4 },
  { id: "injector-seals", name: "Injector seals leak", trait: "manifold-leak", joint: "injector-seals", prior: 5 },
  { id: "gauge-port", name: "Vacuum cap missing or split", trait: "manifold-leak", joint: "gauge-port", prior: 5 },
  { id: "flap-spindle", name: "Runner-flap spindle worn", trait: "manifold-leak", joint: "flap-spindle", prior: 4 },
  { id: "booster-hose", name: "Booster hose split", trait: "booster-leak", joint: "booster-hose", prior: 6 },
  { id: "booster-diaphragm", name: "Booster diaphragm leaks", trait: "booster-leak", joint: "booster-diaphragm", prior: 3 },
  { id: "pcv-hose", name: "PCV hose split", trait: "branch-leak", joint: "pcv-hose", prior: 11 },
  { id: "pcv-valve", name: "PCV valve stuck open", trait: "crankcase-leak", joint: "pcv-valve", prior: 6 },
  { id: "oil-cap", name: "Oil cap leaks", trait: "crankcase-leak", joint: "oil-cap", prior: 3 },
  { id: "dipstick", name: "Dipstick seal leaks", trait: "crankcase-leak", joint: "dipstick", prior: 3 },
  { id: "cover-gasket", name: "Valve-cover or shaft seal leaks", trait: "crankcase-leak", joint: "cover-gasket", prior: 3 },
  { id: "breather-duct", name: "Breather off the duct or split", trait: "duct-leak", joint: "breather-duct", prior: 4 },
  { id: "breather-port", name: "Breather off the crankcase or split", trait: "crankcase-leak", joint: "breather-port", prior: 3 },
  { id: "purge-hose", name: "Purge hose off or split", trait: "branch-leak", joint: "purge-hose", prior: 4 },
  { id: "purge-valve", name: "Purge valve leaks by", trait: "purge-leak", joint: "purge-valve", prior: 5 },
  { id: "duct-split", name: "Duct split", trait: "duct-leak", joint: "duct-split", prior: 8 },
  { id: "duct-clamp", name: "Duct clamp loose", trait: "duct-leak", joint: "duct-clamp", prior: 5 },
  { id: "hot-pipe-clamp", name: "Hot pipe clamp leaks", trait: "charge-leak", joint: "hot-pipe-clamp", prior: 5 },
  { id: "cold-pipe-split", name: "Cold pipe split or loose", trait: "charge-leak", joint: "cold-pipe-split", prior: 6 },
  { id: "cooler-inlet", name: "Cooler inlet joint leaks", trait: "charge-leak", joint: "cooler-inlet", prior: 3 },
  { id: "cooler-outlet", name: "Cooler outlet joint leaks", trait: "charge-leak", joint: "cooler-outlet", prior: 4 },
  { id: "cooler-tank", name: "Cooler end tank leaks", trait: "charge-leak", joint: "cooler-tank", prior: 4 },
  { id: "bypass-valve", name: "Bypass valve leaks back", trait: "inside-leak", joint: "bypass-valve", prior: 3 },
  { id: "egr-valve", name: "EGR valve leaks by", trait: "inside-leak", joint: "egr-valve", prior: 3 },
  { id: "exhaust-gasket", name: "Exhaust sucks air before the sensor", trait: "exhaust-air", joint: "exhaust-gasket", prior: 5 },
];

/** Causes that are no joint. */
const OTHER_CAUSES: readonly Cause[] = [
  { id: "meter-low", name: "Air meter under-reads", trait: "meter-low", prior: 8 },
  { id: "meter-range", name: "Air meter loses range at high flow", trait: "meter-range", prior: 4 },
  { id: "fuel-pressure", name: "Fuel pressure low or injectors weak", trait: "fuel-pressure", prior: 5 },
  { id: "fuel-supply", name: "Fuel pump or filter at its limit", trait: "fuel-supply", prior: 5 },
  { id: "healthy", name: "Nothing wrong with the mixture now", trait: "healthy", prior: 8 },
];

/** The causes this vehicle can have. */
export function causesOf(layout: Layout, vehicle: VehicleFacts): Cause[] {
  const joints = new Set(layout.joints.map((j) => j.id));
  const withMeter = vehicle.metering === "maf";
  return [
    ...JOINT_CAUSES.filter((c) => c.joint && joints.has(c.joint)),
    ...OTHER_CAUSES.filter((c) => withMeter || !c.trait.startsWith("meter")),
  ];
}
