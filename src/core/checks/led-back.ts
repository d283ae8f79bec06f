import { oneOfField } from "./fields";

/** How exhaust was led back while something was read: what the air meter misses then is no leak, and no lack of air. */
export const EGR_STATES = { shut: "Shut", open: "Open", unknown: "Nobody knows" } as const;
export type EgrState = keyof typeof EGR_STATES;
export const EGR_IDS = Object.keys(EGR_STATES) as EgrState[];

export const egrField = oneOfField("The way of exhaust led back", EGR_IDS);

/** A valve that is asked to open by no more counts as shut, percent. */
const SHUT = 2;

/** Whether a duty, percent, leads exhaust back; where none was logged, nothing says so. */
export const leadsBack = (duty: number | undefined): boolean => duty !== undefined && duty > SHUT;
