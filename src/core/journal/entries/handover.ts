import { day, fields, formOf, type RecordOf, text, tick } from "../../form";
import { entryKind } from "./entry-kind";
import { journalSeq } from "./shared";

/** Notes for the customer: what to know, what to watch, when to come back. */
const handoverFields = fields({
  summary: text({
    name: "The summary",
    label: "What the customer should know",
    long: true,
    max: 2000,
    missing: "Say in a line what the customer should know",
  }),
  watch: text({ name: "What to watch", label: "What to watch", max: 500 }).optional(),
  comeBack: text({ name: "When to come back", label: "When to come back" }).optional(),
  /** The day on which the customer is asked how it held */
  call: day("The day to call", { label: "Ask how it held on" }).optional(),
  decidedOn: journalSeq(),
  conditional: tick(),
  /** All that is open are conditions that no shop can make: nobody signs for those */
  onRoad: tick().optional(),
});
type HandoverBody = RecordOf<typeof handoverFields>;

/** Basis that the handover is decided on: the journal as far as it was read, and whether the repair is proved. */
export type Decided = Pick<HandoverBody, "decidedOn" | "conditional" | "onRoad">;

export const handoverForm = formOf<Decided>()(handoverFields, {
  ask: {
    call: {
      hint: ({ known }) =>
        `Left empty: ${known.conditional ? "after a week" : "after four weeks"}. It stands under Follow-ups then`,
    },
  },
  computed: {
    decidedOn: (_, { known }) => known.decidedOn,
    conditional: (_, { known }) => known.conditional,
    onRoad: (_, { known }) => known.onRoad,
  },
});

export const handover = entryKind(handoverFields, {
  ahead: { field: "call", message: "The day to call is in the past: set one ahead" },
  words: (b) => `Handed over${b.conditional ? " conditionally" : ""}: ${b.summary}`,
});
