import { fields, text } from "../../form";
import { entryKind } from "./entry-kind";

/** Takes out the entry that it corrects; both stay visible. */
const retractFields = fields({ reason: text({ name: "The reason", missing: "Say why it is struck out" }) });

export const retract = entryKind(retractFields, { words: (b) => `Taken out: ${b.reason}` });
