import { fields, oneOf, type RecordOf, text } from "../../form";
import { entryKind } from "./entry-kind";

const waitingFields = fields({
  on: oneOf(["me", "customer", "part", "cold-soak", "drive"], "What it waits for"),
  note: text({ name: "Note" }).optional(),
});
export type Waiting = RecordOf<typeof waitingFields>;
export type WaitingOn = Waiting["on"];

export const waiting = entryKind(waitingFields, {
  words: (b) => `Waiting for: ${b.on === "me" ? "us" : b.on.replace("-", " ")}${b.note ? `, ${b.note}` : ""}`,
});
