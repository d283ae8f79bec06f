import * as yup from "yup";
import { BadInput, parseJson, validate } from "../input";
import { liftShop, type Shop, shopSchema } from "../shop/settings";
import { isEntryKind, validateBody } from "./entries";
import { type JournalEntry, recordedSchema } from "./envelope";

const JOB_FILE_FORMAT = "pelota-job";
const JOB_FILE_VERSION = 1;

/** A whole job as it travels: its journal, and the shop snapshot and clock its verdicts rest on. */
export interface JobFile {
  readonly format: typeof JOB_FILE_FORMAT;
  readonly version: number;
  readonly exportedAt: string;
  readonly jobId: string;
  readonly shop: Shop;
  readonly entries: readonly JournalEntry[];
}

const headSchema = yup
  .object({
    format: yup.string().required(),
    version: yup.number().integer().required(),
    exportedAt: yup.string().required(),
    jobId: yup.string().uuid().required(),
    shop: shopSchema.required(),
    entries: yup.array().required(),
  })
  .noUnknown()
  .strict();

/** Largest job file that is read, bytes */
export const LARGEST_JOB_FILE = 64 * 1024 * 1024;

/**
 * Reads a job file. Entries of kinds we do not know are kept as they are; known ones are validated like at any door.
 * Throws BadInput for text that is no JSON (truncated), another format, or a newer version.
 */
export function parseJobFile(text: string): JobFile {
  const data = parseJson(text, "The job file is cut off or damaged: it does not end as JSON must. Export it again");
  const head = data as Partial<JobFile> | null;
  if (head === null || typeof head !== "object" || head.format !== JOB_FILE_FORMAT) {
    throw new BadInput("This is not a Pelota job file", "format");
  }
  if (typeof head.version === "number" && head.version > JOB_FILE_VERSION) {
    throw new BadInput(
      `The job file is of version ${head.version}; this app reads up to ${JOB_FILE_VERSION}. Update the app, then import it`,
      "version",
    );
  }
  const file = validate<JobFile>(headSchema, { ...head, shop: liftShop(head.shop) });
  const ids = new Set<string>();
  const seqs = new Set<number>();
  file.entries.forEach((entry, i) => {
    validate(recordedSchema, entry, `entries[${i}]`);
    if (entry.jobId !== file.jobId) throw new BadInput("An entry belongs to another job", `entries[${i}].jobId`);
    if (ids.has(entry.id)) throw new BadInput("The same entry stands twice in the file", `entries[${i}].id`);
    if (seqs.has(entry.seq)) throw new BadInput("Two entries carry the same number", `entries[${i}].seq`);
    ids.add(entry.id);
    seqs.add(entry.seq);
    if (isEntryKind(entry.kind)) {
      try {
        validateBody(entry.kind, entry.body, entry.v);
      } catch (error) {
        if (error instanceof BadInput) throw new BadInput(error.message, `entries[${i}].${error.path}`);
        throw error;
      }
    }
  });
  return file;
}

export function toJobFile(jobId: string, shop: Shop, entries: readonly JournalEntry[], exportedAt: string): JobFile {
  return {
    format: JOB_FILE_FORMAT,
    version: JOB_FILE_VERSION,
    exportedAt,
    jobId,
    shop,
    entries: [...entries].sort((a, b) => a.seq - b.seq),
  };
}
