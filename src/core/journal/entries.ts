import * as yup from "yup";
import { CAUTION_TEXTS, type CautionId, CHECK_IDS, CHECKS, type CheckId, type Outcome } from "../checks";
import { percentField } from "../checks/fields";
import { BAY_INSTRUMENTS, type BayInstrument } from "../devices/instrument-fault";
import { DOORS, LAMPS, type Light } from "../devices/light";
import { SYMPTOMS, type SymptomId } from "../faults";
import { BadInput, line, needed, said, strictObject, validate } from "../input";
import { ROLE_IDS, type Role, type Signature } from "../people";
import { ENGINE_NOW, type EngineNow } from "../suspects";
import { isQuantity, type Quantity, quantitySchema, toSi } from "../units";
import { type GivenFacts, KIT_KINDS, type KitItem, type KitKind, vehicleSchema } from "../vehicle";
import { COMEBACK_KINDS, type ComebackKind } from "./comeback";
import type { ReadinessFacts } from "./readiness";
import { onlyCleaned } from "./typed";

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

/** Values of a freeze frame (SAE J1979 service 02) that make an operating point. */
export interface FreezeFrame {
  readonly rpm?: number;
  /** Calculated load, percent */
  readonly load?: number;
  readonly coolant?: Quantity;
  /** Trims of bank 1, percent */
  readonly short?: number;
  readonly long?: number;
}

/** One value of an on-board monitor (SAE J1979 service 06), with the limits it is held against. */
export interface MonitorValue {
  readonly name: string;
  readonly value: number;
  readonly min?: number;
  readonly max?: number;
  readonly unit?: string;
}

/** How a finding was confirmed. */
export const CONFIRMATIONS = {
  "capped-off": "Capped off, and the reading recovered",
  seen: "Seen: smoke, bubbles or the damage itself",
  measured: "Measured at the part by itself",
  swapped: "Swapped, and the reading recovered",
} as const;
export type Confirmation = keyof typeof CONFIRMATIONS;

/** Why a part failed: what was not answered comes again. */
export const FAILURE_CAUSES = {
  rub: "Rubbed through",
  heat: "Heat",
  oil: "Oil or fuel",
  age: "Age",
  "earlier-work": "Earlier work",
  unknown: "Not known",
} as const;
export type FailureCause = keyof typeof FAILURE_CAUSES;

/** Where residue sits at nested seals tells them apart: dye inside a seal only, the seal works. */
export const RESIDUES = {
  inside: "Inside the seal only: the seal works",
  outside: "Outside the seal: it lets by",
  both: "On both sides",
} as const;
export type Residue = keyof typeof RESIDUES;

/** What was done to the part. */
export const METHODS = {
  renewed: "Renewed",
  repaired: "Repaired or put right",
  cleaned: "Cleaned",
  regenerated: "Burned free (regeneration)",
} as const;
export type Method = keyof typeof METHODS;

/** What loaded a part that was cleaned or burned free: cleaned alone, it loads again. */
export const CULPRITS = {
  "boost-leak": "Boost leak",
  egr: "Exhaust led back",
  injection: "Injection",
  "short-trips": "Short trips",
  oil: "Oil or ash",
  "not-found": "Not found yet",
} as const;
export type Culprit = keyof typeof CULPRITS;

/** Where nobody can say where: every place. */
export const ANYWHERE = "anywhere";

export type CodeStatus = "current" | "pending" | "stored" | "permanent" | "history";
export interface CodeRead {
  readonly code: string;
  readonly status: CodeStatus;
  /** Why it is set aside and not chased */
  readonly asideReason?: string;
  readonly freezeFrame?: string;
  /** Control unit it was read in */
  readonly module?: string;
  /** The operating point that the freeze frame holds: where to test, and where to prove */
  readonly frame?: FreezeFrame;
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
/** What happened weeks later. */
export const OUTCOMES = { held: "It held", "came-back": "It came back", "not-seen-again": "The car was not seen again" } as const;

/** What a note for an engine's card is about. */
export const ENGINE_NOTES = {
  "way-in": "The way in",
  tools: "Tools and insertion depths",
  torque: "A torque, with its source",
  kit: "The kit: what to have ready",
  reading: "What it reads when sound",
  other: "Something else",
} as const;
export type EngineNote = keyof typeof ENGINE_NOTES;
export type WaitingOn = "me" | "customer" | "part" | "cold-soak" | "drive";

/** Every kind's body, as written today. */
export interface Bodies {
  /** `practice`: the code of the case that it is played on, where no real car stands in the bay */
  opened: { readonly number: number; readonly practice?: string };
  vehicle: GivenFacts;
  story: {
    readonly complaint: string;
    readonly since?: string;
    readonly when?: string;
    readonly symptoms: readonly SymptomId[];
    readonly replacedBefore?: string;
    /** Earlier visits for the same fault, here or elsewhere */
    readonly earlierVisits?: string;
    /** Whether it uses more fuel since, as the customer has it */
    readonly fuelUse?: string;
    readonly verified: "seen" | "not-seen" | "not-tried";
    /** Looked over without a complaint: nothing asks for a repair */
    readonly purpose?: "inspection";
    /** A fault that is not always there: how it comes back, and how far it went each time */
    readonly comeback?: {
      readonly kind: ComebackKind;
      readonly after?: readonly Quantity[] | undefined;
      /** Of a fault of cold starts: on how many of how many it came */
      readonly came?: number | undefined;
      readonly of?: number | undefined;
    };
  };
  /** `modules`: the control units that were read, where somebody wrote them down */
  codes: { readonly codes: readonly CodeRead[]; readonly modules?: readonly string[] };
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
  check: {
    readonly check: CheckId;
    readonly record: object;
    /** SHA-256 of pictures kept with the job: of the gauge, of the scan tool's screen */
    readonly pictures?: readonly string[];
  };
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
    /** No part of a gas path: a cover, a panel, a bolt */
    readonly elsewhere?: true;
    /** Its bolts and clips: how many, and where they are kept */
    readonly kept?: string;
  };
  /** `seated`: looked at as it went back on, and it sits as it must */
  restored: { readonly item: string; readonly seated?: true };
  finding: {
    readonly joint: string;
    readonly what: string;
    readonly size?: Quantity;
    readonly evidence: readonly string[];
    readonly confirmed: boolean;
    readonly confirmedBy?: Confirmation;
    /** Where dye or residue sat at a seal */
    readonly residue?: Residue;
    /** Why it failed, and what was done against it */
    readonly failed?: { readonly why: FailureCause; readonly against?: string };
    /** SHA-256 of pictures kept with the job */
    readonly pictures?: readonly string[];
  };
  /** What the teardown needs, worked out beforehand; the newest list counts */
  kit: { readonly items: readonly KitItem[] };
  repair: {
    readonly finding?: string;
    readonly what: string;
    readonly permanence: Permanence;
    readonly method?: Method;
    /** What made it necessary, where the part is mostly a victim */
    readonly culprit?: Culprit;
    /** A filter burned free: by whose command, how hot it got, and the soot before and after, g */
    readonly regeneration?: {
      readonly by: "commanded" | "driven";
      readonly hottest?: Quantity;
      readonly sootBefore?: number;
      readonly sootAfter?: number;
    };
    /** Joints or parts that were worked on; absent where nobody said: then anywhere */
    readonly places?: readonly string[];
    readonly recheck?: string;
    /** How far a temporary repair may go: a distance, a speed, a season */
    readonly limit?: string;
    /** A substitute hose, sealant or glue, and what it can bear */
    readonly substitute?: {
      readonly what: string;
      readonly medium?: string;
      readonly temperature?: Quantity;
      readonly suction?: Quantity;
    };
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
  /** The ECU was told that a part is as new, and what it shows of it since */
  reset: { readonly check: CheckId; readonly learned: string };
  "complaint-tried": { readonly how: string; readonly result: "gone" | "remains" };
  /** The car as it stands before its EVAP monitor is to run */
  readiness: ReadinessFacts;
  /** What the EVAP monitor said, read from the car, with its values where the tool shows them */
  monitor: { readonly result: MonitorResult; readonly readBy: string; readonly values?: readonly MonitorValue[] };
  /** A drive, with what it was to set off */
  drive: {
    readonly minutes: number;
    readonly distance?: Quantity;
    readonly conditions?: string;
    readonly coldStart?: boolean;
    /** Engine and air as it was started, from the scan tool: what is warm is no cold start */
    readonly start?: { readonly coolant: Quantity; readonly air: Quantity };
    /** Pending codes as they were read after it */
    readonly pending?: "none" | "came";
    /** What the road asked of it: what sets in under load is not answered by a stroll */
    readonly load?: "town" | "steady" | "hills";
    /** Ignition off and on again before it */
    readonly keyCycle?: boolean;
    /** The complaint came back on it, after so far */
    readonly cameBackAfter?: Quantity;
  };
  /** The technician's word that a failing check came before a repair, where the record cannot tell */
  order: { readonly entry: string; readonly before: string };
  /** A finding, a failing check or a code that is left: why, at what risk, and what the customer decided */
  "set-aside": {
    readonly of: "finding" | "check" | "code";
    /** The entry's id, or the code */
    readonly id: string;
    readonly reason: string;
    readonly risk: string;
    readonly decision: string;
    /** When it is looked at again */
    readonly date: string;
  };
  waiting: { readonly on: WaitingOn; readonly note?: string };
  note: { readonly text: string };
  /** What whoever works on such an engine next should know: it stands on the engine's card */
  "engine-note": { readonly about: EngineNote; readonly text: string; readonly pictures?: readonly string[] };
  handover: {
    readonly decidedOn: number;
    readonly conditional: boolean;
    readonly summary: string;
    readonly watch?: string;
    readonly comeBack?: string;
    /** The day on which the customer is asked how it held */
    readonly call?: string;
  };
  /** An apprentice's is asked for: it stands once a lead has countersigned it */
  close: { readonly decidedOn: number };
  /** The signature under a repair that an apprentice proposes as permanent */
  signed: { readonly repair: string };
  /** A lead's word on a closing that an apprentice asks for */
  countersigned: { readonly close: string; readonly decidedOn: number; readonly sentBack?: string };
  outcome: { readonly result: keyof typeof OUTCOMES; readonly note?: string };
  /** What is done in a practice bay beside the work itself */
  bay: {
    readonly act: BayAct;
    /** How long a wait was, min */
    readonly minutes?: number;
    /** What was tightened */
    readonly joint?: string;
    /** What smoke is looked for with from now on, and how the bay's door stands */
    readonly light?: Light;
    /** What was looked over and put right */
    readonly instrument?: BayInstrument;
  };
  retract: { readonly reason: string };
}
export type EntryKind = keyof Bodies;

/** Beside the work itself: a hint taken, a wait skipped, something tightened by hand, light and door, an instrument looked over, the case ended. */
export const BAY_ACTS = ["hint", "wait", "tighten", "light", "look-over", "end"] as const;
export type BayAct = (typeof BAY_ACTS)[number];
/** A wait is skipped up to a weekend, min. */
const LONGEST_WAIT = 4320;

/** The version each kind's body has today, where it is not the first. */
const BODY_VERSIONS: { readonly [K in EntryKind]?: number } = { finding: 2, repair: 2 };
export const bodyVersion = (kind: EntryKind): number => BODY_VERSIONS[kind] ?? 1;

const day = (what: string) => yup.string().matches(/^\d{4}-\d\d-\d\d$/, `${what} looks like 2026-01-31`);

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
/** A coolant so far above the air is no cold engine's, K. */
const WARM_START = 10;
const FAR = "Type how far it went at least once: without it nothing can be counted on";
const STARTS = "It came on no more starts than there were, and on one at least: type both";
const starts = (name: string) =>
  yup
    .number()
    .typeError(`${name} is a whole number`)
    .integer(`${name} is a whole number`)
    .min(1, `${name}: once at least`)
    .max(10_000)
    .optional();
const grams = (name: string) =>
  yup
    .number()
    .typeError(`${name} is a number of grams`)
    .min(0, `${name} cannot be negative`)
    .max(500, `${name}: no filter holds so much`);
/** No count of entries or jobs comes near this; what lies beyond would leave no room for the next. */
const MOST = 1_000_000_000;
const seq = yup.number().integer().min(0).max(MOST, "${path} is no count of entries: at most ${max}").required();

/** What a finding records. */
export const displacedSchema = strictObject({
  what: needed("What", "Say what was taken off or put in"),
  joint: line("Joint", 60).optional(),
  commanded: strictObject({ seconds: yup.number().min(1).max(3600).required() })
    .optional()
    .default(undefined),
  swappedBack: line("The change", 1000).optional(),
  elsewhere: yup.boolean().oneOf([true]).optional(),
  kept: line("Where its bolts and clips are kept", 200).optional(),
});

export const findingSchema = strictObject({
  joint: needed("The place", "Say where it is"),
  what: needed("The finding", "Say what was found", 1000),
  size: quantitySchema("hole").optional().default(undefined),
  evidence: yup.array().of(id).max(50).required(),
  confirmed: yup.boolean().required(),
  confirmedBy: yup
    .mixed<Confirmation>()
    .oneOf(Object.keys(CONFIRMATIONS) as Confirmation[])
    .optional(),
  residue: yup
    .mixed<Residue>()
    .oneOf(Object.keys(RESIDUES) as Residue[])
    .optional(),
  failed: strictObject({
    why: yup
      .mixed<FailureCause>()
      .oneOf(Object.keys(FAILURE_CAUSES) as FailureCause[])
      .required("Say why it failed, or that nobody knows"),
    against: line("What was done against it", 500).optional(),
  })
    .optional()
    .default(undefined),
  pictures,
});

/** One code as it was read. */
export const codeReadSchema = strictObject({
  code: yup
    .string()
    .trim()
    .matches(/^[A-Za-z0-9-]{2,12}$/, "A code is 2 to 12 letters and digits, like P0171")
    .required("Type the code, like P0171"),
  status: yup.string().oneOf(["current", "pending", "stored", "permanent", "history"]).required(),
  asideReason: line("The reason").optional(),
  freezeFrame: line("Freeze frame", 500).optional(),
  module: line("The module", 60).optional(),
  frame: strictObject({
    rpm: yup.number().min(0).max(12000).optional(),
    load: percentField("The load", 0, 100).optional().notRequired(),
    coolant: quantitySchema("coolant").optional().default(undefined),
    short: percentField("Short-term trim").optional().notRequired(),
    long: percentField("Long-term trim").optional().notRequired(),
  })
    .optional()
    .default(undefined),
  criteria: strictObject({
    text: line("The criteria", 500).optional(),
    leak: quantitySchema("hole").optional().default(undefined),
  })
    .optional()
    .default(undefined),
});

/** One of what a bay has. */
const one = <Id extends string>(of: Readonly<Record<Id, string>>, what: string) =>
  yup.mixed<Id>().oneOf(Object.keys(of) as Id[], `The ${what} is one of ${Object.keys(of).join(", ")}`);
const BODY_SCHEMAS: { readonly [K in EntryKind]: yup.ObjectSchema<object> } = {
  opened: strictObject({
    number: yup.number().integer().min(1).max(MOST, "No shop has a job of that number").required(),
    practice: line("The case", 40).optional(),
  }),
  bay: strictObject<Bodies["bay"]>({
    act: yup.mixed<BayAct>().oneOf(BAY_ACTS, "Say what was done in the bay").required("Say what was done in the bay"),
    minutes: yup
      .number()
      .typeError("A wait is a number of minutes")
      .min(1, "A wait lasts a minute at least")
      .max(LONGEST_WAIT, "A wait lasts a weekend at most")
      .optional(),
    joint: line("Joint", 60).optional(),
    light: strictObject({
      lamp: one(LAMPS, "lamp").required("Say what smoke is looked for with"),
      door: one(DOORS, "door").required("Say how the door stands"),
    })
      .optional()
      .default(undefined),
    instrument: one(BAY_INSTRUMENTS, "instrument").optional(),
  })
    .test("light", "Say what smoke is looked for with", (b) => b?.act !== "light" || b.light !== undefined)
    .test("look-over", "Say what was looked over", (b) => b?.act !== "look-over" || Boolean(b.instrument))
    .test("wait", "Say how many minutes were waited", (b) => b?.act !== "wait" || b.minutes !== undefined)
    .test("tighten", "Say what was tightened", (b) => b?.act !== "tighten" || Boolean(b.joint)),
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
    earlierVisits: line("Earlier visits", 1000).optional(),
    fuelUse: line("Fuel use", 200).optional(),
    verified: yup.string().oneOf(["seen", "not-seen", "not-tried"]).required(),
    purpose: yup.string().oneOf(["inspection"]).optional(),
    comeback: strictObject({
      kind: yup.string().oneOf(Object.keys(COMEBACK_KINDS)).required("Say how it comes back"),
      after: yup
        .array()
        .of(quantitySchema("driven").required())
        .min(1, FAR)
        .max(100, "More than 100: keep the last ones")
        .optional()
        .default(undefined),
      came: starts("How often it came"),
      of: starts("How many starts there were"),
    })
      .test("told", function (told) {
        const { kind, after, came, of } = (told ?? {}) as Partial<NonNullable<Bodies["story"]["comeback"]>>;
        const not = (field: string, message: string) => this.createError({ path: `${this.path}.${field}`, message });
        if (kind === undefined) return true;
        if (kind !== "cold-starts") return after !== undefined || not("after", FAR);
        return (came !== undefined && of !== undefined && came <= of) || not("came", STARTS);
      })
      .optional()
      .default(undefined),
  }),
  codes: strictObject({
    codes: yup.array().of(codeReadSchema.required()).max(100).required(),
    modules: yup
      .array()
      .of(needed("The module", "Name the module", 60))
      .max(60)
      .optional()
      .default(undefined),
  }),
  "codes-cleared": strictObject({}),
  conditions: strictObject({
    ambient: quantitySchema("ambient").required("Type the ambient pressure, absolute, as read here"),
    bayTemperature: quantitySchema("airTemperature").required("Type the temperature of the bay"),
    altitude: quantitySchema("altitude").optional().default(undefined),
    seaLevel: quantitySchema("ambient").optional().default(undefined),
    engine: yup.mixed<EngineNow>().oneOf(ENGINE_NOW).optional(),
  }),
  check: strictObject({
    check: yup.string().oneOf(CHECK_IDS).required(),
    record: yup.mixed<object>().required(),
    pictures,
  }),
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
  displaced: displacedSchema,
  restored: strictObject({ item: id, seated: yup.boolean().oneOf([true]).optional() }),
  finding: findingSchema,
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
  repair: strictObject<Bodies["repair"]>({
    finding: yup.string().uuid().optional(),
    what: needed("The repair", "Say what was done", 1000),
    permanence: yup.string().oneOf(["permanent", "temporary", "bypass"]).required(),
    method: yup
      .string()
      .oneOf(Object.keys(METHODS) as Method[])
      .optional(),
    culprit: yup
      .string()
      .oneOf(Object.keys(CULPRITS) as Culprit[])
      .optional(),
    regeneration: strictObject({
      by: yup.string().oneOf(["commanded", "driven"]).required("Say whether it was commanded or driven"),
      hottest: quantitySchema("exhaustTemperature").optional().default(undefined),
      sootBefore: grams("Soot before").optional(),
      sootAfter: grams("Soot after").optional(),
    })
      .optional()
      .default(undefined),
    places: yup
      .array()
      .of(needed("The place", "Name the place", 60))
      .max(60)
      .optional()
      .default(undefined),
    recheck: day("The re-check date").optional(),
    limit: line("The limit", 200).optional(),
    substitute: strictObject({
      what: needed("The substitute", "Say which hose, sealant or glue was used"),
      medium: line("What it touches", 100).optional(),
      temperature: quantitySchema("bearable").optional().default(undefined),
      suction: quantitySchema({ dimension: "pressure" }).optional().default(undefined),
    })
      .optional()
      .default(undefined),
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
  reset: strictObject({
    check: yup
      .string()
      .oneOf(CHECK_IDS.filter((check) => CHECKS[check].resets))
      .required(),
    learned: needed("What it shows since", "Write down what the ECU shows since: soot, ash, distance", 300),
  }),
  "complaint-tried": strictObject({
    how: needed("How", "Say how the complaint was tried again", 500),
    result: yup.string().oneOf(["gone", "remains"], "Say whether it is gone").required("Say whether it is gone"),
  }),
  readiness: strictObject({
    fuelLevel: percentField("The fuel level", 0, 100).required("Type the fuel level in percent of the tank"),
    outside: quantitySchema("airTemperature").required("Type the air temperature expected at the start"),
    parkedAt: yup
      .string()
      .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, "Say when the engine was switched off")
      .required("Say when the engine was switched off"),
  }),
  monitor: strictObject({
    result: yup.string().oneOf(Object.keys(MONITOR_RESULTS), "Say what the monitor did").required("Say what the monitor did"),
    readBy: needed("How it was read", "Say how the monitor was read", 200),
    values: yup
      .array()
      .of(
        strictObject({
          name: needed("The value", "Name the value", 80),
          value: yup.number().required(),
          min: yup.number().optional(),
          max: yup.number().optional(),
          unit: line("The unit", 20).optional(),
        }).required(),
      )
      .max(60)
      .optional()
      .default(undefined),
  }),
  drive: strictObject({
    minutes: yup
      .number()
      .typeError("How long it was driven is a number of minutes")
      .min(1, "A drive lasts at least a minute")
      .max(1440, "A drive lasts a day at most")
      .required("Say how many minutes it was driven"),
    distance: quantitySchema("odometer").optional().default(undefined),
    conditions: line("The conditions", 300).optional(),
    coldStart: yup.boolean().optional(),
    start: strictObject({
      coolant: quantitySchema("coolant").required("Type the coolant's temperature at the start"),
      air: quantitySchema("airTemperature").required("Type the air's temperature at the start"),
    })
      .optional()
      .default(undefined),
    pending: yup.string().oneOf(["none", "came"]).optional(),
    load: yup.string().oneOf(["town", "steady", "hills"]).optional(),
    keyCycle: yup.boolean().optional(),
    cameBackAfter: quantitySchema("driven").optional().default(undefined),
  })
    .test(
      "cold",
      "Coolant that much above the air is a warm engine: a warm restart is no cold start. Take the tick out, or let it stand",
      (drive) => {
        const { coldStart, start } = (drive ?? {}) as { coldStart?: boolean; start?: { coolant?: unknown; air?: unknown } };
        if (!coldStart || !start || !isQuantity(start.coolant) || !isQuantity(start.air)) return true;
        return toSi(start.coolant) - toSi(start.air) <= WARM_START;
      },
    )
    .test("within", "It came back within the drive: no later than its distance", (drive) => {
      const { distance, cameBackAfter } = (drive ?? {}) as { distance?: unknown; cameBackAfter?: unknown };
      return !isQuantity(distance) || !isQuantity(cameBackAfter) || toSi(cameBackAfter) <= toSi(distance) * (1 + 1e-9);
    }),
  order: strictObject({ entry: id, before: id }),
  "set-aside": strictObject({
    of: yup.string().oneOf(["finding", "check", "code"]).required(),
    id: needed("What is set aside", "Name what is set aside", 60),
    reason: needed("The reason", "Say why it is left", 500),
    risk: needed("The risk", "Say what may come of leaving it", 500),
    decision: needed("The decision", "Say what the customer decided", 500),
    date: day("The date").required("Say when it is looked at again"),
  }),
  waiting: strictObject({
    on: yup.string().oneOf(["me", "customer", "part", "cold-soak", "drive"]).required(),
    note: line("Note").optional(),
  }),
  note: strictObject({ text: needed("The note", "The note is empty", 4000) }),
  "engine-note": strictObject({
    about: yup
      .mixed<EngineNote>()
      .oneOf(Object.keys(ENGINE_NOTES) as EngineNote[])
      .required("Say what the note is about"),
    text: needed("The note", "The note is empty", 1000),
    pictures,
  }),
  handover: strictObject({
    decidedOn: seq,
    conditional: yup.boolean().required(),
    summary: needed("The summary", "Say in a line what the customer should know", 2000),
    watch: line("What to watch", 500).optional(),
    comeBack: line("When to come back").optional(),
    call: day("The day to call").optional(),
  }),
  close: strictObject({ decidedOn: seq }),
  signed: strictObject({ repair: id }),
  countersigned: strictObject({
    close: id,
    decidedOn: seq,
    sentBack: said("What is still to be done", 500),
  }),
  outcome: strictObject({
    result: yup.string().oneOf(Object.keys(OUTCOMES)).required("Say what happened"),
    note: line("Note", 500).optional(),
  }),
  retract: strictObject({ reason: needed("The reason", "Say why it is taken out") }),
};

/** What a door asks of an entry's body, written today. */
export const bodySchema = (kind: EntryKind): yup.ObjectSchema<object> => BODY_SCHEMAS[kind];

export const isEntryKind = (kind: string): kind is EntryKind => Object.hasOwn(BODY_SCHEMAS, kind);

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

/** What devices add to what they make since its maker is named by id. */
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
  mac: yup
    .string()
    .matches(/^[0-9a-f]{64}$/, "A signature is 64 hexadecimal digits")
    .required(),
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

export const CLEANED =
  "What was cleaned or freed, with no new part, is a temporary repair: give it its limit and a re-check date";

/** Parts that load up by what is wrong elsewhere: what the ECU models the load of. */
const VICTIMS: readonly string[] = CHECK_IDS.flatMap((check) => CHECKS[check].resets?.places ?? []);

/** A repair that only takes out what loaded a part. */
export const isVictim = ({ method, places }: Pick<Bodies["repair"], "method" | "places">): boolean =>
  (method === "cleaned" || method === "regenerated") && (places ?? []).some((place) => VICTIMS.includes(place));

/** What a body of today's version must say beyond what older ones could leave open; the path and what to do. */
const TODAY: { readonly [K in EntryKind]?: (body: Bodies[K]) => readonly [string, string] | undefined } = {
  finding: (b) =>
    b.confirmed && !b.confirmedBy
      ? ["confirmedBy", "Say how it was confirmed: capped off, seen, measured or swapped"]
      : b.failed
        ? undefined
        : ["failed", "Say why it failed, or that nobody knows"],
  repair: (b) => {
    if (!b.places?.length) return ["places", "Say where it was worked on, or that it was all over"];
    if (b.permanence === "temporary" && !b.limit)
      return ["limit", "A temporary repair needs a limit: how far, how long, until what"];
    if (isVictim(b) && !b.culprit)
      return ["culprit", "Say what loaded it, or that it was not found yet: cleaned alone, it loads again"];
    if (b.method === "regenerated" && !b.regeneration) return ["regeneration.by", "Say whether it was commanded or driven"];
    if (b.permanence === "permanent" && onlyCleaned(b)) return ["permanence", CLEANED];
    const { substitute } = b;
    const known = !substitute || (substitute.medium && substitute.temperature && substitute.suction);
    if (!known && b.permanence === "permanent")
      return ["substitute", "A substitute whose medium, temperature and suction are not all known is a temporary repair"];
    return undefined;
  },
};

/** A repair as it is recorded today. */
export const repairSchema = BODY_SCHEMAS.repair.test("today", (body, { createError }) => {
  const wrong = body && TODAY.repair?.(body as Bodies["repair"]);
  return wrong ? createError({ path: wrong[0], message: wrong[1] }) : true;
});

/** Validates a body by its kind (and a check's record by its check). Throws BadInput for an unknown kind or version. */
export function validateBody(kind: string, body: unknown, v = 1): void {
  if (!isEntryKind(kind))
    throw new BadInput(`Entries of kind "${kind}" are not known here: update the app on this server`, "kind");
  const newest = bodyVersion(kind);
  if (v > newest)
    throw new BadInput(`Entries of kind "${kind}" are read up to version ${newest} here: update the app on this server`, "v");
  validate(BODY_SCHEMAS[kind], body, "body");
  const wrong =
    v === newest ? (TODAY[kind] as ((body: unknown) => readonly [string, string] | undefined) | undefined)?.(body) : undefined;
  if (wrong) throw new BadInput(wrong[1], `body.${wrong[0]}`);
  if (kind === "check") {
    const { check, record } = body as Bodies["check"];
    validate(CHECKS[check].schema, record, "body.record");
  }
}

/**
 * Dates that lie ahead when they are written: asked at the door, by the server's clock, never in the fold.
 * @param today as 2026-01-31.
 */
export function validateDates(kind: string, body: unknown, today: string): void {
  const { recheck } = kind === "repair" ? (body as Bodies["repair"]) : { recheck: undefined };
  if (recheck !== undefined && recheck < today)
    throw new BadInput("The re-check date lies behind us: set one ahead", "body.recheck");
  const { date } = kind === "set-aside" ? (body as Bodies["set-aside"]) : { date: undefined };
  if (date !== undefined && date < today) throw new BadInput("The date lies behind us: set one ahead", "body.date");
  const { call } = kind === "handover" ? (body as Bodies["handover"]) : { call: undefined };
  if (call !== undefined && call < today) throw new BadInput("The day to call lies behind us: set one ahead", "body.call");
}

/** Start and end of an entry, ms since 1970. */
export function spanOf(at: At): { from: number; to: number } {
  return typeof at === "string"
    ? { from: Date.parse(at), to: Date.parse(at) }
    : { from: Date.parse(at.from), to: Date.parse(at.to) };
}
