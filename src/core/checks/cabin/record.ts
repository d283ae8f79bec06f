import * as yup from "yup";
import { needed, strictObject } from "../../input";

/** Smoke held outside along the seals, the fan blowing fresh air in: where it is blown away, the seal leaks. */
export interface CabinRecord {
  /** Fan at its strongest on fresh air, every door and window shut */
  readonly fanOnFresh: boolean;
  /** No wind in the bay: smoke rose straight up away from the car */
  readonly still: boolean;
  /** Seals that smoke was led along, each in the shop's own words */
  readonly seals: readonly { readonly name: string; readonly blown: boolean }[];
}

export const cabinSchema = strictObject({
  fanOnFresh: yup.boolean().required(),
  still: yup.boolean().required(),
  seals: yup
    .array()
    .of(strictObject({ name: needed("The seal", "Name the seal", 60), blown: yup.boolean().required() }).required())
    .min(1, "Say which seals smoke was led along")
    .max(40)
    .required(),
});
