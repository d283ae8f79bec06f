import type { Saying } from "../../faults";
import { rows as pinch } from "../pinch/rows";
import { rows as smoke } from "../smoke/rows";

/** Likelihood rows of a smoke run of the vapour system; a section capped off in the run says what a branch shut off says. */
export const rows = {
  "smoke-at:*": smoke["smoke-at:*"],
  "smoke-none-outside": smoke["smoke-none-outside"],
  "smoke-inside-path": smoke["smoke-inside-path"],
  "pinch-recovers": pinch["pinch-recovers"],
} as const;
export type Seen = Saying<typeof rows>;
