import * as yup from "yup";
import { line, needed, SHA256, strictObject } from "../input";
import { ROLE_IDS, type Role, type Signature } from "../people";
import { journalSeq } from "./entries/shared";

/** When something happened: a moment, or from–to for a run. ISO 8601, UTC. */
export type At = string | { readonly from: string; readonly to: string };

export interface Entry<K extends string = string, B = unknown> {
  readonly id: string;
  readonly jobId: string;
  readonly kind: K;
  /** Version of the kind's body */
  readonly v: number;
  readonly at: At;
  readonly by: string;
  readonly device: string;
  readonly deviceSeq: number;
  /** Newest entry the device had seen */
  readonly seenSeq: number;
  readonly body: B;
  /** Root entry this one replaces */
  readonly corrects?: string;
  /** Who made it, by the person's id, and when by the device's clock as the server last set it right; none in older forms */
  readonly person?: string;
  readonly madeAt?: string;
  /** The entry that its device made before it */
  readonly prior?: string;
  /** The sign-in it was made under; none where the shop had no lead yet */
  readonly signed?: Signature;
}

/** An entry as the server keeps it. */
export interface Recorded {
  readonly seq: number;
  readonly recordedAt: string;
  /** The time the device gave, when its clock ran ahead of the server's and `at` was set back */
  readonly clampedFrom?: At;
  /** The role, then, of whoever was signed in; none where the shop had no lead yet */
  readonly role?: Role;
  /** It came in a file from another shop: who took it in, and when. It is shown, and closes nothing here */
  readonly imported?: Imported;
  /** Why it is kept as history alone: it proves and closes nothing */
  readonly history?: string;
}
export interface Imported {
  readonly by: string;
  readonly at: string;
}
export type JournalEntry = Entry & Recorded;

const seq = journalSeq().schema;

const isoDate = yup
  .string()
  .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, "${path} must be an ISO time in UTC, like 2026-01-31T08:15:00Z")
  .test("date", "${path} is no date of the calendar", (v) => v === undefined || Number.isFinite(Date.parse(v)));

const someTime = yup.mixed<At>().test("at", function (value) {
  if (value === undefined) return true;
  if (typeof value === "string")
    return isoDate.isValidSync(value) || this.createError({ message: `${this.path} must be an ISO time in UTC` });
  const run = strictObject({ from: isoDate.required(), to: isoDate.required() });
  if (!value || !run.isValidSync(value)) return this.createError({ message: `${this.path} must be an ISO time, or from and to` });
  return value.from <= value.to || this.createError({ message: `${this.path}: a run cannot end before it began` });
});

const atSchema = someTime.required();

/** Fields that devices add to what they make since its maker is named by id. */
const made = {
  person: yup.string().uuid("A person is named by id").optional(),
  madeAt: isoDate.optional(),
  prior: yup.string().uuid("The entry before is named by its id").optional(),
};
const envelope = {
  ...made,
  id: yup.string().uuid("An entry's id is a UUID").required(),
  jobId: yup.string().uuid("A job's id is a UUID").required(),
  kind: yup.string().max(40).required(),
  v: yup.number().integer().min(1).max(1000).required(),
  at: atSchema,
  by: needed("Who", "Say who you are first: pick a name on this device", 80),
  device: needed("The device", "The device has no name", 80),
  deviceSeq: seq,
  seenSeq: seq,
  body: yup.mixed<object>().required(),
  corrects: yup.string().uuid().optional(),
};
const signature = strictObject({
  signIn: yup.string().uuid().required(),
  mac: yup.string().matches(SHA256, "A signature is 64 hexadecimal digits").required(),
})
  .optional()
  .default(undefined);

/** The envelope of an entry as a client sends it; the body is validated by its kind. */
export const entrySchema = strictObject({ ...envelope, signed: signature });
/** The first entry of a job as a client asks for it: its number is the server's. */
export const openingSchema = strictObject({
  id: envelope.id,
  jobId: envelope.jobId,
  at: atSchema,
  by: envelope.by,
  device: envelope.device,
  deviceSeq: envelope.deviceSeq,
  ...made,
  practice: line("The case", 40).optional(),
  signed: signature,
});
/** The highest number that an entry may have in a file: the job goes on from there. */
const HIGHEST_IN_FILE = 1_000_000;
/** The envelope of an entry as the server keeps and exports it. */
export const recordedSchema = strictObject({
  ...envelope,
  seq: yup.number().integer().min(1).max(HIGHEST_IN_FILE, "${path}: no job has so many entries").required(),
  recordedAt: isoDate.required(),
  clampedFrom: someTime.optional(),
  signed: signature,
  role: yup.mixed<Role>().oneOf(ROLE_IDS, "A role is apprentice, technician or lead").optional(),
  imported: strictObject({ by: line("Who took it in", 80).defined(), at: isoDate.required() })
    .optional()
    .default(undefined),
  history: line("Why it is history", 500).optional(),
});

/** Start and end of an entry, ms since 1970. */
export function spanOf(at: At): { from: number; to: number } {
  return typeof at === "string"
    ? { from: Date.parse(at), to: Date.parse(at) }
    : { from: Date.parse(at.from), to: Date.parse(at.to) };
}
