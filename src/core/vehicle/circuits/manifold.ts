import { always, fitted, hose, litre, off, oneBank, seal, tie, twoBanks, usual, zone } from "./parts";

/** From the throttle to the intake valves. */
export const ZONES = [zone(always, "manifold", "Manifold", 5 * litre)];

export const JOINTS = [
  seal(always, "throttle-gasket", "Throttle body gasket", "manifold"),
  seal(always, "plenum-crack", "Plenum, crack or seam", "manifold"),
  seal(oneBank, "manifold-gasket", "Manifold gasket", "manifold"),
  seal(twoBanks, "manifold-gasket-1", "Manifold gasket, bank 1", "manifold"),
  seal(twoBanks, "manifold-gasket-2", "Manifold gasket, bank 2", "manifold"),
  seal(always, "injector-seals", "Injector seals", "manifold"),
  hose(always, "vacuum-branch", "Small vacuum branch", off("small vacuum hose off the manifold", 26)),
  seal(always, "gauge-port", "Vacuum port or cap", "manifold", { end: usual("cap off a manifold vacuum port", 24) }),
  seal(fitted("runner-flaps"), "flap-spindle", "Runner-flap spindle", "manifold"),
  tie(always, "intake-valves", "Intake valves", "manifold", "cylinders", "engine"),
];
