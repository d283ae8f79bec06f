import type { HouseMethods, Limits, Shop } from "../shop/settings";
import { type Layout, layoutOf, type VehicleFacts, type VehicleRecord, vehicleFacts } from "../vehicle";
import type { RequiredSize } from "./required-size";

/** All that judging depends on besides the record. */
export interface CheckContext {
  readonly vehicle: VehicleFacts;
  readonly layout: Layout;
  readonly limits: Limits;
  readonly house: HouseMethods;
  /** The least leak that this job's vapour system must not have, by all that is known: it judges every record of it */
  readonly required?: RequiredSize;
  /** It is played on a simulated car: what simulated devices read is this car's */
  readonly practice?: true;
}

/**
 * The context of a vehicle in a shop: what the maker says of this vehicle goes before the shop's own limits.
 * @param required the leak that the job's vapour system is held against; @param practice the case that it is played on, where the car is a simulated one.
 */
export function contextOf(
  given: VehicleRecord,
  shop: Pick<Shop, "limits" | "house">,
  practice?: string,
  required?: RequiredSize,
): CheckContext {
  const vehicle = vehicleFacts(given);
  return {
    vehicle,
    layout: layoutOf(vehicle),
    limits: { ...shop.limits, ...vehicle.limits },
    house: shop.house,
    ...(required ? { required } : {}),
    ...(practice ? { practice: true } : {}),
  };
}
