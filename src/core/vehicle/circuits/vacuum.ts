import { fitted, hose, type JointRow, litre, off, seal, tie, usual, zone } from "./parts";

/** Branches that the manifold's vacuum works. */
export const ZONES = [
  zone(fitted("booster"), "booster-branch", "Booster branch", 3 * litre),
  zone(fitted("runner-flaps"), "vacuum-supply", "Vacuum supply", 0.6 * litre),
  zone(fitted("runner-flaps"), "flap-actuator", "Flap actuator", 0.05 * litre),
];

const booster = fitted("booster");
const flaps = fitted("runner-flaps");

export const JOINTS: readonly JointRow[] = [
  tie(booster, "booster-check-valve", "Booster check valve", "manifold", "booster-branch", "valve", "one-way"),
  hose(booster, "booster-hose", "Booster hose", usual("booster hose off the manifold", 26), "booster-branch"),
  seal(booster, "booster-diaphragm", "Booster diaphragm", "booster-branch"),
  tie(flaps, "flap-check-valve", "Vacuum check valve", "manifold", "vacuum-supply", "valve", "one-way"),
  seal(flaps, "flap-line", "Vacuum line or reservoir", "vacuum-supply", {
    end: off("vacuum line off its check valve", 26, { at: "flap-check-valve" }),
  }),
  tie(flaps, "flap-solenoid", "Flap solenoid", "vacuum-supply", "flap-actuator", "valve", "closed"),
  seal(flaps, "flap-pipe", "Actuator pipe", "flap-actuator", {
    end: off("actuator pipe off the solenoid", 26, { at: "flap-solenoid" }),
  }),
  seal(flaps, "flap-diaphragm", "Actuator diaphragm", "flap-actuator"),
];
