import type { CheckId } from "@/core/checks";

/** Instruments that a job may begin with, before anybody was asked. */
export const STRAIGHT = ["smoke", "trims", "evap-smoke", "hold"] as const satisfies readonly CheckId[];
export type StraightId = (typeof STRAIGHT)[number];
