import * as yup from "yup";
import { pictures as kept } from "../../checks/fields";
import { type Field, plain } from "../../form";

/** Where nobody can say where: every place. */
export const ANYWHERE = "anywhere";

/** Another entry of the job, by its id. */
export const entryId = (): Field<string> => plain<string>(yup.string().uuid("An entry is named by its id"));

/** SHA-256 of pictures kept with the job: of the gauge, of the scan tool's screen, of the damage. */
export const pictures = () => kept(40).optional();

/** No count of entries or jobs comes near this; what lies beyond would leave no room for the next. */
export const MOST = 1_000_000_000;
/** How far the journal had been read. */
export const journalSeq = (): Field<number> =>
  plain<number>(yup.number().integer().min(0).max(MOST, "${path} is no count of entries: at most ${max}"));
