"use client";

import { requiredOf } from "@/core/checks/evap-fields";
import { type RequiredLeak, requiredLeakOf } from "@/core/vehicle";
import { useJob } from "../use-job";

/** The leak this car's monitor must catch, as its codes' criteria, its maker or its model year name it. */
export function useRequired(): { leak: RequiredLeak; field: ReturnType<typeof requiredOf> } | undefined {
  const { state } = useJob();
  if (!state.vehicle) return undefined;
  const criteria = state.codes.flatMap((c) =>
    c.criteria?.leak && !c.asideReason ? [{ code: c.code, size: c.criteria.leak }] : [],
  );
  const leak = requiredLeakOf(state.vehicle, criteria);
  return leak && { leak, field: requiredOf(leak) };
}
