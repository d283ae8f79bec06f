import { airValveWorkedBy, boostWorkedBy, egrWorkedBy } from "../usual";
import { both, diesel, either, fitted, hose, litre, off, petrol, seal, tie, turbo, usual, type When, zone } from "./parts";

const booster = fitted("booster");
const flaps = fitted("runner-flaps");
const boost = both(turbo, (f) => boostWorkedBy(f) === "vacuum");
const egr = both(fitted("egr"), (f) => egrWorkedBy(f) === "vacuum");
const airValve = both(fitted("secondary-air"), (f) => airValveWorkedBy(f) === "vacuum");
/** A petrol engine keeps a supply for what it works; a diesel's pump feeds its booster too. */
const supplied = either(flaps, boost, egr, airValve, both(diesel, booster));

/** Devices worked by vacuum: the manifold's on a petrol engine, a pump's on a diesel. */
export const ZONES = [
  zone(booster, "booster-branch", "Booster branch", 3 * litre),
  zone(supplied, "vacuum-supply", "Vacuum supply", 0.6 * litre),
  zone(flaps, "flap-actuator", "Flap actuator", 0.05 * litre),
  zone(boost, "boost-actuator", "Boost actuator", 0.08 * litre),
  zone(egr, "egr-actuator", "EGR actuator", 0.05 * litre),
  zone(airValve, "air-actuator", "Air-valve actuator", 0.05 * litre),
];

/** A device on the supply: solenoid, the pipe from there, and the diaphragm at its end. */
const branch = <const Zone extends string>(
  when: When,
  name: string,
  ids: { zone: Zone; solenoid: string; pipe: string; diaphragm: string },
) => [
  tie(when, ids.solenoid, `${name} solenoid`, "vacuum-supply", ids.zone, "valve", "closed"),
  seal(when, ids.pipe, `${name} actuator pipe`, ids.zone, {
    end: off("actuator pipe off the solenoid", 26, { at: ids.solenoid }),
  }),
  seal(when, ids.diaphragm, `${name} actuator diaphragm`, ids.zone),
];
const idsOf = (device: "flap" | "boost" | "egr" | "air") =>
  ({
    zone: `${device}-actuator`,
    solenoid: `${device}-solenoid`,
    pipe: `${device}-pipe`,
    diaphragm: `${device}-diaphragm`,
  }) as const;

const LINE_OFF = "vacuum line off its check valve";

export const JOINTS = [
  tie(both(booster, petrol), "booster-check-valve", "Booster check valve", "manifold", "booster-branch", "valve", "one-way"),
  tie(both(booster, diesel), "booster-check-valve", "Booster check valve", "vacuum-supply", "booster-branch", "valve", "one-way"),
  hose(both(booster, petrol), "booster-hose", "Booster hose", usual("booster hose off the manifold", 26), "booster-branch"),
  seal(both(booster, diesel), "booster-hose", "Booster hose", "booster-branch", {
    end: usual("booster hose off the pump's line", 26, { at: "booster-check-valve" }),
  }),
  seal(booster, "booster-diaphragm", "Booster diaphragm", "booster-branch"),
  tie(both(supplied, petrol), "flap-check-valve", "Vacuum check valve", "manifold", "vacuum-supply", "valve", "one-way"),
  tie(both(supplied, diesel), "vacuum-pump", "Vacuum pump", "vacuum-supply", "outside", "valve", "one-way"),
  seal(both(supplied, petrol), "flap-line", "Vacuum line or reservoir", "vacuum-supply", {
    end: off(LINE_OFF, 26, { at: "flap-check-valve" }),
  }),
  seal(both(supplied, diesel), "flap-line", "Vacuum line or reservoir", "vacuum-supply", {
    end: off("vacuum line off the pump", 26, { at: "vacuum-pump" }),
  }),
  ...branch(flaps, "Flap", idsOf("flap")),
  ...branch(boost, "Boost", idsOf("boost")),
  ...branch(egr, "EGR", idsOf("egr")),
  ...branch(airValve, "Air-valve", idsOf("air")),
];
