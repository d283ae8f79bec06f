import { answer, fields, group, list, type RecordOf, text, tick } from "../../form";
import { checkForm } from "../check-form";

/** Smoke held outside along the seals, the fan blowing fresh air in: where it is blown away, the seal leaks. */
export const cabinFields = fields({
  /** Fan at its strongest on fresh air, every door and window shut */
  fanOnFresh: answer({
    label: "Fan at its strongest on fresh air, doors and windows shut",
    yes: "Yes",
    no: "No",
    missing: "Say whether the fan blew fresh air in with all shut",
  }),
  /** No wind in the bay: smoke rose straight up away from the car */
  still: answer({
    label: "Smoke away from the car",
    yes: "Rises straight up",
    no: "Drifts: a draught",
    missing: "Say whether smoke rises straight up away from the car",
  }),
  /** Seals that smoke was led along, each in the shop's own words */
  seals: list(group({ name: text({ name: "The seal", missing: "Name the seal", max: 60 }), blown: tick() }), {
    label: "Seals checked",
    hint: "One a line, with an exclamation mark where smoke is blown away",
    example: "left front door, top\nwindscreen, lower corner !",
    min: [1, "List the seals you checked with smoke"],
    max: 40,
    lines: {
      read: (line) => ({ name: line.replace(/\s*!\s*$/, ""), blown: /!\s*$/.test(line) }),
      write: ({ name, blown }) => `${name}${blown ? " !" : ""}`,
    },
  }),
});
export type CabinRecord = RecordOf<typeof cabinFields>;

export const cabinForm = checkForm(cabinFields);
