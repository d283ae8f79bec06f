import { R_AIR } from "../air";
import { holeArea, SHARP_EDGED } from "../orifice";
import type { JointLaw } from "./joints";
import { Network, OUTSIDE } from "./network";

/** A vapour system as one space with its walls. SI; holes as sharp-edged ones, none at 0. */
export interface Tank {
  /** m³ */
  readonly volume: number;
  readonly leak: number;
  /** Time constant of its walls, s */
  readonly wallTime: number;
  /** Pa absolute and K */
  readonly ambient: number;
  readonly temperature: number;
}

const hole = (diameter: number): JointLaw => ({ type: "orifice", effectiveArea: SHARP_EDGED * holeArea(diameter) });
const spaceOf = ({ volume, ambient, temperature, wallTime }: Tank) => ({
  id: "tank",
  volume,
  pressure: ambient,
  temperature,
  wallTime,
});

/** Let in until the pressure is up, s, and as much as a smoke machine gives, kg/s. */
const FILLS = 15;
const PUSHES = 2.4e-4;

/**
 * A shut system filled to a pressure, held for its walls to take up the heat, and left alone, as a network of one zone.
 * @param held s; @param drift how much the bay warms while it is watched, K, evenly. @param reference a known hole beside it, m.
 * @returns gauge pressures, Pa, `every` s from shut-off for `duration` s. Valid for small over-pressures (drift adds p·dT/T).
 */
export function decayTrace(
  tank: Tank,
  {
    pressure,
    held,
    duration,
    every,
    drift = 0,
    reference = 0,
  }: {
    readonly pressure: number;
    readonly held: number;
    readonly duration: number;
    readonly every: number;
    readonly drift?: number;
    readonly reference?: number;
  },
): [seconds: number, gauge: number][] {
  const { ambient, temperature } = tank;
  const network = new Network({
    ambient,
    temperature,
    zones: [spaceOf(tank)],
    joints: [
      { id: "leak", from: "tank", to: OUTSIDE, law: hole(tank.leak) },
      { id: "reference", from: "tank", to: OUTSIDE, law: hole(reference) },
      { id: "push", from: OUTSIDE, to: "tank", law: { type: "regulator", setPressure: ambient + pressure, maxFlow: PUSHES } },
      {
        id: "drift",
        ...(drift > 0 ? { from: OUTSIDE, to: "tank" } : { from: "tank", to: OUTSIDE }),
        law: { type: "pump", maxFlow: 0, stallPressure: Number.POSITIVE_INFINITY },
      },
    ],
  });
  network.advance(FILLS + held);
  network.set(2, { type: "regulator", setPressure: ambient, maxFlow: 0 });
  // A gas that warms pushes as one that gains so much mass: ṁ = m·(dT/dt)/T.
  const mass = (ambient * tank.volume) / (R_AIR * temperature);
  network.set(3, {
    type: "pump",
    maxFlow: (mass * Math.abs(drift)) / duration / temperature,
    stallPressure: Number.POSITIVE_INFINITY,
  });
  return Array.from({ length: Math.round(duration / every) + 1 }, (_, i): [number, number] => {
    network.advance(FILLS + held + i * every);
    return [i * every, network.pressure(0) - ambient];
  });
}

/** Openings a tank is pulled down through: purge and vent as they pass open and shut, m, and the manifold's pressure, Pa absolute. */
export interface Pull {
  readonly manifold: number;
  readonly purgeOpen: number;
  readonly purgeShut: number;
  readonly ventOpen: number;
  readonly ventShut: number;
}

/** When vent and purge are switched, s; a purge that is shut `once` it has pulled so far, or at the latest at its time. */
export interface PullPhases {
  readonly ventShutAt: number;
  readonly purgeOpenAt: number;
  readonly purgeShutAt: number;
  /** How long it is held after purge shut, and watched after the vent was opened, s */
  readonly holds: number;
  readonly relieves: number;
  /** Pa below ambient, at the sensor, at which purge is shut already */
  readonly deep?: number;
}

/**
 * A tank pulled down by the manifold through its purge valve, held, and let go, as a network of one zone beside a manifold.
 * @returns gauge pressures, Pa, at every second; and when purge was shut, s. What is switched at a moment shows from then on.
 */
export function pulldownTrace(
  tank: Tank,
  pull: Pull,
  phases: PullPhases,
): { readonly points: [seconds: number, gauge: number][]; readonly purgeShutAt: number } {
  const { ambient, temperature } = tank;
  const network = new Network({
    ambient,
    temperature,
    zones: [spaceOf(tank), { id: "manifold", volume: 1e3, pressure: pull.manifold, temperature }],
    joints: [
      { id: "leak", from: "tank", to: OUTSIDE, law: hole(tank.leak) },
      { id: "vent", from: "tank", to: OUTSIDE, law: hole(pull.ventOpen) },
      { id: "purge", from: "tank", to: "manifold", law: hole(pull.purgeShut) },
    ],
  });
  const points: [number, number][] = [];
  let { purgeShutAt } = phases;
  for (let t = 0; t <= purgeShutAt + phases.holds + phases.relieves; t++) {
    network.advance(t);
    const gauge = network.pressure(0) - ambient;
    points.push([t, gauge]);
    if (t === phases.ventShutAt) network.set(1, hole(pull.ventShut));
    if (t === phases.purgeOpenAt) network.set(2, hole(Math.max(pull.purgeOpen, pull.purgeShut)));
    if (phases.deep !== undefined && t > phases.purgeOpenAt + 2 && t < purgeShutAt && gauge < -phases.deep) purgeShutAt = t;
    if (t === purgeShutAt) network.set(2, hole(pull.purgeShut));
    if (t === purgeShutAt + phases.holds) network.set(1, hole(pull.ventOpen));
  }
  return { points, purgeShutAt };
}
