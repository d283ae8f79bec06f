import { type Bay, chosen, type Setup } from "../../practice/readers/bay";
import { common, setupOf } from "../../practice/readers/vapour";
import { smokeRecord } from "../smoke/simulate";
import type { EvapSmokeRun } from "./fields";

export const simulate = (bay: Bay, setup: Setup): EvapSmokeRun => {
  const fill = setupOf(bay, setup);
  return {
    ...smokeRecord(bay, fill, chosen(setup, "machine", undefined), chosen(setup, "lookedAt", undefined)),
    ...common(bay.car),
    vent: fill.vent,
    gas: "inert",
    capOffs: [],
  };
};
