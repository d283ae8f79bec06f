import { chosen, type Reader } from "../../practice/readers/bay";
import { common, setupOf } from "../../practice/readers/vapour";
import { smokeRecord } from "../smoke/simulate";

export const simulate: Reader = (bay, setup) => {
  const fill = setupOf(bay, setup);
  return {
    ...smokeRecord(bay, fill, chosen(setup, "machine", undefined), chosen(setup, "lookedAt", undefined)),
    ...common(bay.car),
    vent: fill.vent,
    gas: "inert",
    capOffs: [],
  };
};
