import type { Joint, Layout, ZoneId } from "../../vehicle";

/** Joints that stand under boost. */
const CHARGE: readonly ZoneId[] = ["hot-pipe", "cooler", "cold-pipe"];

/** Whether a joint has boost on one of its sides. */
export const underBoost = ({ from, to }: Joint): boolean => [from, to].some((zone) => CHARGE.some((c) => c === zone));

/** Every hose's end on the charge side, the usual ways in first: after the compressor. */
export const chargeEntries = (layout: Layout): Joint[] =>
  layout.joints
    .filter((j) => j.end && CHARGE.includes(j.from))
    .toSorted((a, b) => Number(b.end?.usual ?? false) - Number(a.end?.usual ?? false));
