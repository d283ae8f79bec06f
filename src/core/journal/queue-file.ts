import * as yup from "yup";
import { BadInput, parseJson, strictObject, validate } from "../input";
import { validateBody } from "./entries";
import { type Entry, entrySchema } from "./envelope";

const QUEUE_FORMAT = "pelota-queue";
const QUEUE_VERSION = 1;

/** Entries that waited on a device, as it leaves it: every entry as it was made, under its signature. */
export interface QueueFile {
  readonly format: typeof QUEUE_FORMAT;
  readonly version: typeof QUEUE_VERSION;
  readonly exportedAt: string;
  readonly device: string;
  readonly entries: readonly Entry[];
}

/** Entries at most in one file. */
const MOST = 5000;
export const LARGEST_QUEUE_FILE = 32 * 1024 * 1024;

const fileSchema = strictObject({
  format: yup
    .string()
    .oneOf([QUEUE_FORMAT], "This is not what waited on a Pelota device")
    .required("This is not what waited on a Pelota device"),
  version: yup.number().oneOf([QUEUE_VERSION], "The file is of another version: update the app, then import it").required(),
  exportedAt: yup.string().required(),
  device: yup.string().max(80).required(),
  entries: yup
    .array()
    .min(1, "Nothing waited there")
    .max(MOST, `More than ${MOST} entries: nobody's queue is so long`)
    .required(),
});

export const toQueueFile = (entries: readonly Entry[], device: string, exportedAt: string): QueueFile => ({
  format: QUEUE_FORMAT,
  version: QUEUE_VERSION,
  exportedAt,
  device,
  entries: entries.toSorted((a, b) => a.deviceSeq - b.deviceSeq),
});

/** Reads what waited on a device; each entry is asked what any door asks. Throws BadInput with the place. */
export function parseQueueFile(text: string): QueueFile {
  const data = parseJson(text, "The file is cut off or damaged: save it on the device once more");
  const file = validate<QueueFile>(fileSchema, data);
  const seen = new Set<string>();
  file.entries.forEach((entry, i) => {
    validate(entrySchema, entry, `entries[${i}]`);
    if (seen.has(entry.id)) throw new BadInput("The same entry stands twice in the file", `entries[${i}].id`);
    seen.add(entry.id);
    validateBody(entry.kind, entry.body, entry.v);
  });
  return file;
}

/** One entry of what waited on a device, as a lead looks at it. */
export interface Queued {
  readonly id: string;
  readonly kind: string;
  readonly at: Entry["at"];
  /** As the sign-in has it; as it stands in the file where nobody can tell */
  readonly by: string;
  /** The job's number; 0 where there is none such here */
  readonly job: number;
  readonly jobId: string;
  readonly state: "fits" | "here-already" | "refused";
  readonly why?: string;
}
