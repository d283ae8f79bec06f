import { checkForm, placeField } from "../known";
import { type BorescopeRecord, borescopeSchema } from "./record";

/** Ports graded by the share of them that stands open. */
export const borescopeForm = checkForm<BorescopeRecord>()({
  schema: borescopeSchema,
  fields: {
    joint: placeField("Passage"),
    when: {
      type: "choice",
      label: "When",
      options: [
        ["as-found", "As found"],
        ["after-cleaning", "After cleaning"],
      ],
      holds: () => "as-found",
    },
    ports: { type: "taken", label: "Ports", empty: [] },
    pictures: { type: "taken", label: "Pictures", empty: [] },
  },
});
