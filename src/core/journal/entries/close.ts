import { fields } from "../../form";
import { entryKind } from "./entry-kind";
import { journalSeq } from "./shared";

/** An apprentice's is asked for: it stands once a lead has countersigned it. */
const closeFields = fields({ decidedOn: journalSeq() });

export const close = entryKind(closeFields, {
  words: (b, names, entry) => (names.asksToClose(entry) ? `Asks to close (looked at through ${b.decidedOn})` : "Job closed"),
});
