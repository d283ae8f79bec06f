import { formOf } from "../form";
import type { Instrument } from "../shop/settings";
import type { Quantity } from "../units";
import type { Joint } from "../vehicle";
import type { CheckContext } from "./context";
import type { RequiredSize } from "./required-size";

/** What a check need not ask, because the job or the shop has it already. */
export interface CheckFacts {
  readonly context: CheckContext;
  readonly instruments: readonly Instrument[];
  /** Of the bay, as the conditions have it */
  readonly ambient?: Quantity;
  readonly temperature?: Quantity;
  /** Whether the engine is warm; undefined where nobody said */
  readonly warm?: boolean;
  /** The leak that a check of the vapour system is held against */
  readonly required?: RequiredSize;
  /** Percent of the tank, as it was typed last in this job */
  readonly fuelLevel?: number;
  /** Joints that the check can be done at, the likeliest first */
  readonly places: readonly Joint[];
  /** The one it is proposed at, and why */
  readonly place?: { readonly id: string; readonly because: string };
}

/** The form of a check's record. */
export const checkForm = formOf<CheckFacts>();
