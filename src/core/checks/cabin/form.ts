import { checkForm } from "../known";
import { type CabinRecord, cabinSchema } from "./record";

/** Seals, one by one, and where smoke was blown away. */
export const cabinForm = checkForm<CabinRecord>()({
  schema: cabinSchema,
  fields: {
    fanOnFresh: { type: "tick", label: "Fan at its strongest on fresh air, doors and windows shut" },
    still: { type: "tick", label: "No draught: smoke rises straight up away from the car" },
    seals: {
      type: "lines",
      label: "Seals gone along",
      hint: "One a line, with an exclamation mark where smoke is blown away",
      read: (line) => ({ name: line.replace(/\s*!\s*$/, ""), blown: /!\s*$/.test(line) }),
      write: ({ name, blown }: CabinRecord["seals"][number]) => `${name}${blown ? " !" : ""}`,
      example: "left front door, top\nwindscreen, lower corner !",
    },
  },
});
