import * as yup from "yup";
import { CHECK_IDS, CHECKS, type CheckId } from "../../checks";
import { fields, oneOf, plain } from "../../form";
import { entryKind } from "./entry-kind";
import { pictures } from "./shared";

const checkFields = fields({
  check: oneOf<CheckId>(CHECK_IDS, "The check"),
  /** Its own check's fields say what is in it */
  record: plain<object>(yup.mixed<object>()),
  pictures: pictures(),
});

export const check = entryKind(checkFields, {
  words: (b, names, entry) => {
    const headline = names.headline(entry);
    return headline ? `${CHECKS[b.check].name}: ${headline}` : CHECKS[b.check].name;
  },
});
