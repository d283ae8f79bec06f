import fc from "fast-check";
import { FITTED_SYSTEMS } from ".";

/** Facts that any car may have that the map shows: added to the facts of one. */
export const anyCar = fc.record({
  induction: fc.constantFrom("natural" as const, "turbo" as const),
  banks: fc.constantFrom(1 as const, 2 as const),
  fitted: fc.subarray([...FITTED_SYSTEMS]),
  evap: fc.record({
    monitor: fc.constantFrom("engine-vacuum" as const, "canister-pump" as const, "pressure-only" as const),
    market: fc.constantFrom("strict" as const, "other" as const),
    tank: fc.constant({ value: 50, unit: "L" as const }),
    servicePort: fc.boolean(),
    neck: fc.constantFrom("cap" as const, "capless" as const),
    neckFlap: fc.boolean(),
    tankOneWay: fc.boolean(),
  }),
});
