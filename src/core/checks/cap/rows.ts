import type { Saying } from "../../faults";
import { rows as hold } from "../hold/rows";

/** Likelihood rows of a cap on its tester: it held or it did not, as any part that is pumped up. */
export const rows = { "hold-leaks:*": hold["hold-leaks:*"], "hold-good": hold["hold-good"] } as const;
export type Seen = Saying<typeof rows>;
