import type { Rows } from "../../faults";

/** A door's seal tells nothing of an engine: nothing of it is weighed. */
export const rows = {} as const satisfies Rows;
