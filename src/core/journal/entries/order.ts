import { fields } from "../../form";
import { entryKind } from "./entry-kind";
import { entryId } from "./shared";

/** The technician's word that a failing check came before a repair, where the record cannot tell. */
const orderFields = fields({ entry: entryId(), before: entryId() });

export const order = entryKind(orderFields, {
  words: (b, names) => `Order told: ${names.headline(b.entry) ?? "a reading"} came before ${names.repair(b.before)}`,
});
