import type { CONFIRM_MINUTES as BOOST } from "./boost/traits";
import type { CONFIRM_MINUTES as EGR } from "./egr/traits";
import type { CONFIRM_MINUTES as ENGINE } from "./engine/traits";
import type { CONFIRM_MINUTES as EVAP } from "./evap/traits";
import type { CONFIRM_MINUTES as FILTER } from "./filter/traits";
import type { CONFIRM_MINUTES as SECONDARY_AIR } from "./secondary-air/traits";

/** How a cause shows: causes of one trait give the same observations and differ by their place. */
export type Trait =
  | keyof typeof EGR
  | keyof typeof ENGINE
  | keyof typeof BOOST
  | keyof typeof EVAP
  | keyof typeof FILTER
  | keyof typeof SECONDARY_AIR
  | "healthy";
