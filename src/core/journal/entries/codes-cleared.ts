import { fields } from "../../form";
import { entryKind } from "./entry-kind";

const codesClearedFields = fields({});

export const codesCleared = entryKind(codesClearedFields, { words: () => "Codes cleared" });
