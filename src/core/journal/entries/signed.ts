import { fields } from "../../form";
import { entryKind } from "./entry-kind";
import { entryId } from "./shared";

/** The signature under a repair that an apprentice proposes as permanent. */
const signedFields = fields({ repair: entryId() });

export const signed = entryKind(signedFields, { words: (b, names) => `Signed as permanent: ${names.repair(b.repair)}` });
