import { CHECKS } from "../../checks";
import { BadInput, validate } from "../../input";
import { bay } from "./bay";
import { caution } from "./caution";
import { check } from "./check";
import { close } from "./close";
import { codes } from "./codes";
import { codesCleared } from "./codes-cleared";
import { complaintTried } from "./complaint-tried";
import { conditions } from "./conditions";
import { countersigned } from "./countersigned";
import { displaced } from "./displaced";
import { drive } from "./drive";
import { engineNote } from "./engine-note";
import type { EntryKind as Kind } from "./entry-kind";
import { finding } from "./finding";
import { handover } from "./handover";
import { judged } from "./judged";
import { kit } from "./kit";
import { monitor } from "./monitor";
import { note } from "./note";
import { opened } from "./opened";
import { order } from "./order";
import { outcome } from "./outcome";
import { readiness } from "./readiness";
import { repair } from "./repair";
import { reset } from "./reset";
import { restored } from "./restored";
import { retract } from "./retract";
import { setAside } from "./set-aside";
import { signed } from "./signed";
import { story } from "./story";
import { tried } from "./tried";
import { undone } from "./undone";
import { vehicle } from "./vehicle";
import { waiting } from "./waiting";

export * from "./bay";
export * from "./codes";
export * from "./complaint-tried";
export * from "./conditions";
export * from "./displaced";
export * from "./drive";
export * from "./engine-note";
export type { JournalNames } from "./entry-kind";
export * from "./finding";
export * from "./handover";
export * from "./monitor";
export * from "./note";
export * from "./outcome";
export * from "./readiness";
export * from "./repair";
export * from "./reset";
export * from "./set-aside";
export { ANYWHERE } from "./shared";
export * from "./story";
export * from "./vehicle";
export type { WaitingOn } from "./waiting";

/** Every kind of entry. Adding one adds its file and its line here. */
const KINDS = {
  opened,
  vehicle,
  story,
  codes,
  "codes-cleared": codesCleared,
  conditions,
  check,
  judged,
  caution,
  displaced,
  restored,
  finding,
  kit,
  repair,
  undone,
  reset,
  "complaint-tried": complaintTried,
  tried,
  readiness,
  monitor,
  drive,
  order,
  "set-aside": setAside,
  waiting,
  note,
  "engine-note": engineNote,
  handover,
  close,
  signed,
  countersigned,
  outcome,
  bay,
  retract,
} satisfies Readonly<Record<string, Kind<never>>>;

export type EntryKind = keyof typeof KINDS;
/** Every kind's body, as written today. */
export type Bodies = { [K in EntryKind]: Parameters<(typeof KINDS)[K]["words"]>[0] };

/** The same without their bodies' types: a body has passed its kind's schema at the door. */
export const ENTRY_KINDS = KINDS as unknown as Readonly<Record<EntryKind, Kind>>;

export const isEntryKind = (kind: string): kind is EntryKind => Object.hasOwn(KINDS, kind);

/** The version each kind's body has today. */
export const bodyVersion = (kind: EntryKind): number => ENTRY_KINDS[kind].version ?? 1;

/** Validates a body by its kind (and a check's record by its check). Throws BadInput for an unknown kind or version. */
export function validateBody(kind: string, body: unknown, v = 1): void {
  if (!isEntryKind(kind))
    throw new BadInput(`Entries of kind "${kind}" are not known here: update the app on this server`, "kind");
  const newest = bodyVersion(kind);
  if (v > newest)
    throw new BadInput(`Entries of kind "${kind}" are read up to version ${newest} here: update the app on this server`, "v");
  const { fields, today } = ENTRY_KINDS[kind];
  validate((v === newest ? (today ?? fields) : fields).schema, body, "body");
  if (kind === "check") {
    const { check, record } = body as Bodies["check"];
    validate(CHECKS[check].fields.schema, record, "body.record");
  }
}

/**
 * Dates that lie ahead when they are written: asked at the door, by the server's clock, never in the fold.
 * @param today as 2026-01-31.
 */
export function validateDates(kind: string, body: unknown, today: string): void {
  const ahead = isEntryKind(kind) ? ENTRY_KINDS[kind].ahead : undefined;
  const day = ahead && (body as Readonly<Record<string, unknown>>)[ahead.field];
  if (ahead && typeof day === "string" && day < today) throw new BadInput(ahead.message, `body.${ahead.field}`);
}
