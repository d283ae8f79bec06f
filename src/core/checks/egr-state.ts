import { choice } from "../form";

/** How exhaust was led back while something was read: what the air meter misses then is no leak, and no lack of air. */
const EGR_STATES = { shut: "Shut", open: "Open", unknown: "Nobody knows" } as const;

export const egrState = () => choice(EGR_STATES, { name: "The EGR's state", label: "EGR meanwhile" });

/** A valve that is asked to open by no more counts as shut, percent. */
const SHUT = 2;

/** Whether a duty, percent, leads exhaust back; where none was logged, nothing says so. */
export const egrFlows = (duty: number | undefined): boolean => duty !== undefined && duty > SHUT;
