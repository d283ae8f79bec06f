import * as yup from "yup";
import { CAUTION_TEXTS, type CautionId, CHECK_IDS, CHECKS, type CheckId, type Outcome } from "../checks";
import { percentField } from "../checks/fields";
import { BadInput, line, needed, strictObject, validate } from "../input";
import { ENGINE_NOW, type EngineNow, SYMPTOMS, type SymptomId } from "../suspects";
import { type Quantity, quantitySchema } from "../units";
import { KIT_KINDS, type KitItem, type KitKind, type VehicleFacts, vehicleSchema } from "../vehicle";

import type { ReadinessFacts } from "./readiness";

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
}

/** An entry as the server keeps it. */
export interface Recorded {
  readonly seq: number;
  readonly recordedAt: string;
  /** The time the device gave, when its clock ran ahead of the server's and `at` was set back */
  readonly clampedFrom?: At;
}
export type JournalEntry = Entry & Recorded;

export type CodeStatus = "current" | "pending" | "stored" | "permanent" | "history";
export interface CodeRead {
  readonly code: string;
  readonly status: CodeStatus;
  /** Why it is set aside and not chased */
  readonly asideReason?: string;
  readonly freezeFrame?: string;
  /** The code's own criteria: what the ECU tests and calls a fail, and the leak it names */
  readonly criteria?: { readonly text?: string; readonly leak?: Quantity };
}
export type Permanence = "permanent" | "temporary" | "bypass";
export const MONITOR_RESULTS = {
  passed: "Ran and passed",
  failed: "Ran and failed",
  "not-complete": "Has not run yet",
} as const;
export type MonitorResult = keyof typeof MONITOR_RESULTS;
export type WaitingOn = "me" | "customer" | "part" | "cold-soak" | "drive";

/** Every kind's body, as written today. */
export interface Bodies {
  opened: { readonly number: number };
  vehicle: VehicleFacts;
  story: {
    readonly complaint: string;
    readonly since?: string;
    readonly when?: string;
    readonly symptoms: readonly SymptomId[];
    readonly replacedBefore?: string;
    readonly verified: "seen" | "not-seen" | "not-tried";
  };
  codes: { readonly codes: readonly CodeRead[] };
  "codes-cleared": Record<string, never>;
  conditions: {
    /** Station pressure, absolute: read here, or worked out from what follows */
    readonly ambient: Quantity;
    readonly bayTemperature: Quantity;
    readonly altitude?: Quantity;
    /** A weather report's pressure, reduced to sea level */
    readonly seaLevel?: Quantity;
    readonly engine?: EngineNow;
  };
  check: { readonly check: CheckId; readonly record: object };
  judged: {
    readonly entry: string;
    readonly inputsHash: string;
    readonly rulesVersion: number;
    readonly outcome: Outcome;
    readonly headline: string;
  };
  caution: { readonly caution: CautionId };
  displaced: {
    readonly what: string;
    readonly joint?: string;
    /** A scan-tool command that stands until it is released; s after which the tool lets go by itself */
    readonly commanded?: { readonly seconds: number };
    /** A change taken back to learn whether it was the cure: the old part in again */
    readonly swappedBack?: string;
  };
  restored: { readonly item: string };
  finding: {
    readonly joint: string;
    readonly what: string;
    readonly size?: Quantity;
    readonly evidence: readonly string[];
    readonly confirmed: boolean;
    /** SHA-256 of pictures kept with the job */
    readonly pictures?: readonly string[];
  };
  /** What the teardown needs, worked out beforehand; the newest list counts */
  kit: { readonly items: readonly KitItem[] };
  repair: {
    readonly finding?: string;
    readonly what: string;
    readonly permanence: Permanence;
    readonly recheck?: string;
    readonly labourMinutes: number;
    readonly parts: readonly { readonly name: string; readonly count: number }[];
    readonly goAhead?: string;
    /** What else was changed along the way: filter, cleaned part, disturbed duct */
    readonly otherChanges: readonly string[];
    readonly torques?: readonly { readonly where: string; readonly torque: Quantity }[];
    /** Bolts broken, renewed, glued; clamps moved over, seals oiled, latches tugged */
    readonly fasteners?: string;
    readonly pictures?: readonly string[];
  };
  undone: { readonly repair: string };
  "complaint-tried": { readonly how: string; readonly result: "gone" | "remains" };
  /** The car as it stands before its EVAP monitor is to run */
  readiness: ReadinessFacts;
  /** What the EVAP monitor said, read from the car */
  monitor: { readonly result: MonitorResult; readonly readBy: string };
  waiting: { readonly on: WaitingOn; readonly note?: string };
  note: { readonly text: string };
  handover: {
    readonly decidedOn: number;
    readonly conditional: boolean;
    readonly summary: string;
    readonly watch?: string;
    readonly comeBack?: string;
  };
  close: { readonly decidedOn: number };
  outcome: { readonly result: "held" | "came-back" | "not-seen-again"; readonly note?: string };
  retract: { readonly reason: string };
}
export type EntryKind = keyof Bodies;

/** The version each kind's body has today. */
const BODY_VERSION = 1;

const id = yup.string().uuid("An entry is named by its id").required();
const pictures = yup
  .array()
  .of(
    yup
      .string()
      .matches(/^[0-9a-f]{64}$/, "A picture is named by its SHA-256")
      .required(),
  )
  .max(40)
  .optional()
  .default(undefined);
const seq = yup.number().integer().min(0).required();

const BODY_SCHEMAS: { readonly [K in EntryKind]: yup.ObjectSchema<object> } = {
  opened: strictObject({ number: yup.number().integer().min(1).required() }),
  vehicle: vehicleSchema,
  story: strictObject({
    complaint: needed("The complaint", "Write down what the customer complains of", 2000),
    since: line("Since when").optional(),
    when: line("When it happens", 500).optional(),
    symptoms: yup
      .array()
      .of(
        yup
          .string()
          .oneOf(SYMPTOMS.map(([s]) => s))
          .required(),
      )
      .required(),
    replacedBefore: line("What was replaced before", 1000).optional(),
    verified: yup.string().oneOf(["seen", "not-seen", "not-tried"]).required(),
  }),
  codes: strictObject({
    codes: yup
      .array()
      .of(
        strictObject({
          code: yup
            .string()
            .trim()
            .matches(/^[A-Za-z0-9-]{2,12}$/, "A code is 2 to 12 letters and digits, like P0171")
            .required(),
          status: yup.string().oneOf(["current", "pending", "stored", "permanent", "history"]).required(),
          asideReason: line("The reason").optional(),
          freezeFrame: line("Freeze frame", 500).optional(),
          criteria: strictObject({
            text: line("The criteria", 500).optional(),
            leak: quantitySchema("hole").optional().default(undefined),
          })
            .optional()
            .default(undefined),
        }).required(),
      )
      .max(100)
      .required(),
  }),
  "codes-cleared": strictObject({}),
  conditions: strictObject({
    ambient: quantitySchema("ambient").required(),
    bayTemperature: quantitySchema("airTemperature").required(),
    altitude: quantitySchema("altitude").optional().default(undefined),
    seaLevel: quantitySchema("ambient").optional().default(undefined),
    engine: yup.mixed<EngineNow>().oneOf(ENGINE_NOW).optional(),
  }),
  check: strictObject({ check: yup.string().oneOf(CHECK_IDS).required(), record: yup.mixed<object>().required() }),
  judged: strictObject({
    entry: id,
    inputsHash: yup.string().required(),
    rulesVersion: yup.number().integer().required(),
    outcome: yup.string().oneOf(["pass", "fail", "unsure", "void"]).required(),
    headline: line("Headline", 500).required(),
  }),
  caution: strictObject({
    caution: yup.string().oneOf(Object.keys(CAUTION_TEXTS)).required(),
  }),
  displaced: strictObject({
    what: needed("What", "Say what was taken off or put in"),
    joint: line("Joint", 60).optional(),
    commanded: strictObject({ seconds: yup.number().min(1).max(3600).required() })
      .optional()
      .default(undefined),
    swappedBack: line("The change", 1000).optional(),
  }),
  restored: strictObject({ item: id }),
  finding: strictObject({
    joint: needed("The place", "Say where it is"),
    what: needed("The finding", "Say what was found", 1000),
    size: quantitySchema("hole").optional().default(undefined),
    evidence: yup.array().of(id).max(50).required(),
    confirmed: yup.boolean().required(),
    pictures,
  }),
  kit: strictObject({
    items: yup
      .array()
      .of(
        strictObject({
          kind: yup
            .mixed<KitKind>()
            .oneOf(Object.keys(KIT_KINDS) as KitKind[])
            .required(),
          what: needed("The item", "Say what is needed"),
          ready: yup.boolean().required(),
        }).required(),
      )
      .max(60)
      .required(),
  }),
  repair: strictObject({
    finding: yup.string().uuid().optional(),
    what: needed("The repair", "Say what was done", 1000),
    permanence: yup.string().oneOf(["permanent", "temporary", "bypass"]).required(),
    recheck: yup
      .string()
      .matches(/^\d{4}-\d\d-\d\d$/, "The re-check date looks like 2026-01-31")
      .optional(),
    labourMinutes: yup
      .number()
      .typeError("Labour is a number of minutes")
      .min(0, "Labour cannot be negative")
      .max(10000)
      .required("Type the labour in minutes"),
    parts: yup
      .array()
      .of(
        strictObject({
          name: needed("The part", "Name the part"),
          count: yup.number().integer().min(1).max(999).required(),
        }).required(),
      )
      .max(50)
      .required(),
    goAhead: line("The go-ahead").optional(),
    otherChanges: yup.array().of(needed("The change", "Name the change")).max(20).required(),
    torques: yup
      .array()
      .of(
        strictObject({
          where: needed("The fastener", "Name the fastener", 80),
          torque: quantitySchema("torque").required("Type the torque"),
        }).required(),
      )
      .max(40)
      .optional()
      .default(undefined),
    fasteners: line("Notes on fasteners", 1000).optional(),
    pictures,
  }).test("recheck", "A temporary repair needs a re-check date", (b) => b?.permanence !== "temporary" || b.recheck !== undefined),
  undone: strictObject({ repair: id }),
  "complaint-tried": strictObject({
    how: needed("How", "Say how the complaint was tried again", 500),
    result: yup.string().oneOf(["gone", "remains"], "Say whether it is gone").required(),
  }),
  readiness: strictObject({
    fuelLevel: percentField("The fuel level", 0, 100),
    outside: quantitySchema("airTemperature").required("Type the air temperature expected at the start"),
    parkedAt: yup
      .string()
      .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, "Say when the engine was switched off")
      .required("Say when the engine was switched off"),
  }),
  monitor: strictObject({
    result: yup.string().oneOf(Object.keys(MONITOR_RESULTS), "Say what the monitor did").required(),
    readBy: needed("How it was read", "Say how the monitor was read", 200),
  }),
  waiting: strictObject({
    on: yup.string().oneOf(["me", "customer", "part", "cold-soak", "drive"]).required(),
    note: line("Note").optional(),
  }),
  note: strictObject({ text: needed("The note", "The note is empty", 4000) }),
  handover: strictObject({
    decidedOn: seq,
    conditional: yup.boolean().required(),
    summary: needed("The summary", "Say in a line what the customer should know", 2000),
    watch: line("What to watch", 500).optional(),
    comeBack: line("When to come back").optional(),
  }),
  close: strictObject({ decidedOn: seq }),
  outcome: strictObject({
    result: yup.string().oneOf(["held", "came-back", "not-seen-again"]).required(),
    note: line("Note", 500).optional(),
  }),
  retract: strictObject({ reason: needed("The reason", "Say why it is taken out") }),
};

export const isEntryKind = (kind: string): kind is EntryKind => Object.hasOwn(BODY_SCHEMAS, kind);

const isoDate = yup
  .string()
  .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, "${path} must be an ISO time in UTC, like 2026-01-31T08:15:00Z")
  .test("date", "${path} is no date of the calendar", (v) => v === undefined || Number.isFinite(Date.parse(v)));

const atSchema = yup
  .mixed<At>()
  .required()
  .test("at", function (value) {
    if (typeof value === "string")
      return isoDate.isValidSync(value) || this.createError({ message: `${this.path} must be an ISO time in UTC` });
    const run = strictObject({ from: isoDate.required(), to: isoDate.required() });
    if (!value || !run.isValidSync(value))
      return this.createError({ message: `${this.path} must be an ISO time, or from and to` });
    return value.from <= value.to || this.createError({ message: `${this.path}: a run cannot end before it began` });
  });

const envelope = {
  id: yup.string().uuid("An entry's id is a UUID").required(),
  jobId: yup.string().uuid("A job's id is a UUID").required(),
  kind: yup.string().max(40).required(),
  v: yup.number().integer().min(1).required(),
  at: atSchema,
  by: needed("Who", "Say who you are first: pick a name on this device", 80),
  device: needed("The device", "The device has no name", 80),
  deviceSeq: seq,
  seenSeq: seq,
  body: yup.mixed<object>().required(),
  corrects: yup.string().uuid().optional(),
};

/** The envelope of an entry as a client sends it; the body is validated by its kind. */
export const entrySchema = strictObject(envelope);
/** The envelope of an entry as the server keeps and exports it. */
export const recordedSchema = strictObject({
  ...envelope,
  seq: yup.number().integer().min(1).required(),
  recordedAt: isoDate.required(),
  clampedFrom: yup.mixed<At>().optional(),
});

/** Validates a body by its kind (and a check's record by its check). Throws BadInput for an unknown kind or version. */
export function validateBody(kind: string, body: unknown, v = BODY_VERSION): void {
  if (!isEntryKind(kind))
    throw new BadInput(`Entries of kind "${kind}" are not known here: update the app on this server`, "kind");
  if (v > BODY_VERSION)
    throw new BadInput(
      `Entries of kind "${kind}" are read up to version ${BODY_VERSION} here: update the app on this server`,
      "v",
    );
  validate(BODY_SCHEMAS[kind], body, "body");
  if (kind === "check") {
    const { check, record } = body as Bodies["check"];
    validate(CHECKS[check].schema, record, "body.record");
  }
}

/** Start and end of an entry, ms since 1970. */
export function spanOf(at: At): { from: number; to: number } {
  return typeof at === "string"
    ? { from: Date.parse(at), to: Date.parse(at) }
    : { from: Date.parse(at.from), to: Date.parse(at.to) };
}
