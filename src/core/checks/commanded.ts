import type { Joint, Layout } from "../vehicle";
import type { Family } from "./candidate";

/** Solenoids and valves that can be commanded, by the family whose faults send to them. */
const COMMANDED: Readonly<Record<Family, readonly string[]>> = {
  engine: ["purge-valve", "flap-solenoid", "egr-valve", "idle-air"],
  evap: ["purge-valve", "vent-valve"],
};

/** Parts that electricity moves, beside those: a command and a coil make sense on these alone. */
const ELECTRIC: readonly string[] = [...COMMANDED.engine, ...COMMANDED.evap, "bypass-valve", "throttle"];

/** Ids of this vehicle's parts that electricity moves. */
export const electricOf = ({ joints }: Layout): string[] => joints.filter((j) => ELECTRIC.includes(j.id)).map((j) => j.id);

/** Every part of this vehicle that can be commanded, of these families. */
export const commandedOf = (layout: Layout, families: readonly Family[]): Joint[] =>
  [...new Set(families.flatMap((f) => COMMANDED[f]))].flatMap((id) => layout.joints.find((j) => j.id === id) ?? []);
