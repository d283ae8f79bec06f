import { checkForm, gaugeField, optionsOf, placeField, trappedField } from "../known";
import { HOLD_PART_NAMES, HOLD_PARTS, type HoldRecord, holdSchema } from "./record";

/** Hand pump and gauge: the readings are taken against the clock, the rest is said. */
export const holdForm = checkForm<HoldRecord>()({
  schema: holdSchema,
  fields: {
    joint: placeField("Part"),
    part: { type: "choice", label: "It is", options: optionsOf(HOLD_PARTS, HOLD_PART_NAMES), holds: () => "actuator" },
    gauge: { type: "number", label: "Gauge, inHg vacuum", unit: "inHg", aside: true, holds: () => "0" },
    /** Which of the two is watched, and when each began, ms since 1970 */
    watch: { type: "taken", label: "Watching it", aside: true },
    began: { type: "taken", label: "Began", aside: true },
    still: { type: "taken", label: "Left alone", empty: [] },
    wiggled: { type: "taken", label: "While wiggled", empty: [] },
    strokes: { type: "number", label: "Moves after how many strokes", bare: "strokes" },
    moved: {
      type: "answer",
      label: "Moves under vacuum",
      yes: "Moves",
      no: "Does not",
      open: "Nothing to move",
      holds: () => "open",
    },
    freeByHand: { type: "answer", label: "Lever by hand", yes: "Free", no: "Stiff", open: "Not tried", holds: () => "open" },
    instrument: gaugeField("vacuum"),
    volume: trappedField,
  },
  also: () => ({ unit: "inHg" }),
});
