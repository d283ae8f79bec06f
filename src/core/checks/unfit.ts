import type { FittedSystem, VehicleFacts } from "../vehicle";
import type { CheckContext } from "./context";

/** Why a check says nothing on a vehicle; undefined where it may. */
export type Unfit = (context: Pick<CheckContext, "vehicle" | "layout">) => string | undefined;

/** It says something only where this holds. */
export const unless =
  (holds: (vehicle: VehicleFacts) => boolean, why: string): Unfit =>
  ({ vehicle }) =>
    holds(vehicle) ? undefined : why;

export const fittedWith = (system: FittedSystem, why: string): Unfit => unless((v) => v.fitted.includes(system), why);
export const notOnDiesel = (why: string): Unfit => unless((v) => v.fuel !== "diesel", why);
export const turboOnly = (why: string): Unfit => unless((v) => v.induction === "turbo", why);
/** A check of the vapour system. */
export const evapOnly: Unfit = fittedWith("evap", "No vapour system (EVAP) is entered for this vehicle.");

/** A plan's refusal, where the vehicle is one that the check says nothing on. */
export const refusing = (unfit: Unfit, context: CheckContext): { readonly refused?: string } => {
  const refused = unfit(context);
  return refused ? { refused } : {};
};
