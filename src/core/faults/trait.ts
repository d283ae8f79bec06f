import type { CONFIRM_MINUTES as ENGINE } from "./engine/traits";
import type { CONFIRM_MINUTES as EVAP } from "./evap/traits";

/** How a cause shows: causes of one trait give the same observations and differ by their place. */
export type Trait = keyof typeof ENGINE | keyof typeof EVAP | "healthy";
