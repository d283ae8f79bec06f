import type { Rows, Saying } from "../../faults";

/** A door's seal tells nothing of an engine: nothing of it is weighed. */
export const rows = {} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
