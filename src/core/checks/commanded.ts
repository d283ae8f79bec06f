import { FAMILIES, type Family } from "../faults";
import type { Joint, Layout } from "../vehicle";

/** Parts that electricity moves, beside those that are commanded: a command and a coil make sense on these alone. */
const ELECTRIC: readonly string[] = [...Object.values(FAMILIES).flatMap((f) => f.commanded), "bypass-valve", "throttle"];

/** Ids of this vehicle's parts that electricity moves. */
export const electricOf = ({ joints }: Layout): string[] => joints.filter((j) => ELECTRIC.includes(j.id)).map((j) => j.id);

/** Every part of this vehicle that can be commanded, of these families. */
export const commandedOf = (layout: Layout, families: readonly Family[]): Joint[] =>
  [...new Set(families.flatMap((f) => FAMILIES[f].commanded))].flatMap((id) => layout.joints.find((j) => j.id === id) ?? []);
