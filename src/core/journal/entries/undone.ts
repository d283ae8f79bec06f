import { fields } from "../../form";
import { entryKind } from "./entry-kind";
import { entryId } from "./shared";

const undoneFields = fields({ repair: entryId() });

export const undone = entryKind(undoneFields, { words: (b, names) => `Undone: ${names.repair(b.repair)}` });
