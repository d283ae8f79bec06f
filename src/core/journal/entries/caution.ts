import { CAUTION_TEXTS, type CautionId } from "../../checks";
import { fields, oneOf } from "../../form";
import { entryKind } from "./entry-kind";

const cautionFields = fields({ caution: oneOf(Object.keys(CAUTION_TEXTS) as CautionId[], "The caution") });

export const caution = entryKind(cautionFields, { words: (b) => `Caution understood: ${CAUTION_TEXTS[b.caution]}` });
