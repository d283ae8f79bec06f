import type { BandId, Quantity, UnitId } from "../units";

/** Text as typed into a form so far, by its fields' names: a name with dots lies deeper. Untouched fields are absent. */
export type Draft = Readonly<Record<string, unknown>>;

/** A form as a field sees it when it is asked: what is known without asking, and what the other fields hold. */
export interface FormState<Known, Name extends string = string> {
  readonly known: Known;
  /** The value of a field as it stands in the form: typed, or its default */
  readonly value: (name: Name) => unknown;
}

/** The same whatever the form holds, or worked out from it. */
export type Dynamic<Known, T, Name extends string = string> = T | ((state: FormState<Known, Name>) => T);

interface Common<Known> {
  readonly label: Dynamic<Known, string>;
  /** Hint that helps to answer; or where what stands there comes from */
  readonly hint?: Dynamic<Known, string | undefined>;
  /** Where its value lies in the record; under its own name where this is left out */
  readonly at?: string;
  /** Whether it is asked as things stand; always, where this is left out */
  readonly when?: (state: FormState<Known>) => boolean;
  /** Whether it goes into the record, where it is asked and may stand there for nothing: the start of what nobody timed */
  readonly counts?: (state: FormState<Known>) => boolean;
  /** Wording where nothing was said though it is needed here, by what is known: a meter's flow on a metered engine */
  readonly needed?: (state: FormState<Known>) => string | undefined;
  /** Default value while nobody touched it */
  readonly defaultValue?: (state: FormState<Known>) => unknown;
  /** A choice of how a check is set up: made again, it stands as it was */
  readonly setUp?: true;
  /** A fact of the shop's own equipment, and none of the car: the same on the next one */
  readonly equipment?: true;
  /** Nothing said is an answer too, though the record needs one: it is worked out */
  readonly free?: true;
  /** Helps to fill the form and is no part of the record by itself */
  readonly aside?: true;
}

/** A reading with its unit: "13 inH2O", or a bare number in the usual unit. */
export interface QuantityField<Known> extends Common<Known> {
  readonly type: "quantity";
  readonly band: BandId;
  /** Taken where none is typed */
  readonly unit: Dynamic<Known, UnitId>;
  readonly units: readonly UnitId[];
  readonly example: Dynamic<Known, string>;
}

/** Unit behind a bare number that is no quantity. */
export type Bare = "rpm" | "s" | "min" | "%" | "strokes" | "times";

/** A number. In a record whose unit stands once, `unit` names it: another one that is typed is converted. */
export interface NumberField<Known> extends Common<Known> {
  readonly type: "number";
  readonly unit?: Dynamic<Known, UnitId>;
  readonly bare?: Bare;
  /** It may be typed as the two ends that it swings between: their middle counts */
  readonly swings?: true;
  readonly example?: string;
}

/** Which way from the air outside a gauge reads. */
export type ReadsTo = "vacuum" | "pressure";

/** A gauge or meter that may be proposed: the shop's. */
export interface GaugeOnHand {
  readonly id: string;
  readonly name: string;
  /** One division of its scale; the unit says what it measures */
  readonly division: Quantity;
  readonly end?: Quantity | undefined;
  readonly reads?: ReadsTo | undefined;
}

export interface TextField<Known> extends Common<Known> {
  readonly type: "text";
  readonly long?: true;
  /** A PIN or a passphrase: hidden as it is typed, and never kept on the device; "pad": typed on keys large enough for gloves */
  readonly secret?: "pin" | "pad" | "passphrase";
  /** A day, as 2026-01-31; a moment is typed as the clock on the wall has it, and kept as ISO 8601 in UTC */
  readonly time?: "day" | "moment";
  readonly example?: Dynamic<Known, string>;
  /** Text as typed, where it is no plain text; throws BadInput for what it cannot be */
  readonly read?: (typed: string, state: FormState<Known>) => unknown;
  /** How it stands in its field: the inverse of `read` */
  readonly write?: (value: never) => string;
}

/** Several of something, typed a line each. */
export interface LinesField<Known> extends Common<Known> {
  readonly type: "lines";
  /** Parser of a line; throws BadInput for what is none. The line itself, where this is left out */
  readonly read?: (line: string) => unknown;
  /** How it stands in its line: the inverse of `read` */
  readonly write?: (value: never) => string;
  /** The record goes without the list where there is no line */
  readonly optional?: true;
  readonly example?: string;
}

export type Option = readonly [id: string, name: string];

/** One of a few; `silent` is the answer that says nothing, and leaves nothing in the record. */
export interface ChoiceField<Known> extends Common<Known> {
  readonly type: "choice";
  readonly options: Dynamic<Known, readonly Option[]>;
  readonly silent?: string;
  /** Shown as a list to pull down, where there are many */
  readonly list?: true;
  /** The list in groups, each with its name */
  readonly groups?: Dynamic<Known, readonly (readonly [name: string, options: readonly Option[]])[]>;
}

/** A question: yes, no, or nothing said. */
export interface AnswerField<Known> extends Common<Known> {
  readonly type: "answer";
  readonly yes: string;
  readonly no: string;
  /** The third answer, that leaves it open */
  readonly open?: string;
}

/** A yes that must be given by hand; not given is no, or nothing where the record goes without. */
export interface TickField<Known> extends Common<Known> {
  readonly type: "tick";
  readonly optional?: true;
}

/** Any of a few. */
export interface MarksField<Known> extends Common<Known> {
  readonly type: "marks";
  readonly options: Dynamic<Known, readonly Option[]>;
  /** Picked one by one from a list to pull down, where there are many */
  readonly list?: true;
}

/** A place on the vehicle, and the zone it lies in. */
export interface Place {
  readonly id: string;
  readonly name: string;
  readonly from: string;
}

/** One of the vehicle's places. */
export interface PlaceField<Known> extends Common<Known> {
  readonly type: "place";
  readonly among: (state: FormState<Known>) => readonly Place[];
}

/** A gauge or meter: which one, its division, and what it shows with nothing on it. */
export interface InstrumentField<Known> extends Common<Known> {
  readonly type: "instrument";
  readonly measures: "pressure" | "voltage";
  /** How large a reading may get, SI */
  readonly reach: number;
  /** Which way from the air outside; either where left out */
  readonly reads?: ReadsTo;
  readonly shop: (state: FormState<Known>) => readonly GaugeOnHand[];
}

/** Several of the same, each with fields of its own. A row in which nothing was typed is no row yet. */
export interface RowsField<Known> extends Common<Known> {
  readonly type: "rows";
  readonly fields: FormFields<Known>;
  /** A row that is added, and where rows stand there from the beginning, each of them */
  readonly blank: Draft;
  /** The record goes without the list where there is no row */
  readonly optional?: true;
}

/** Taken by an instrument and not typed: readings over time, taps, ports. It is kept as it is. */
export interface TakenField<Known> extends Common<Known> {
  readonly type: "taken";
  /** Default before anything was taken; nothing, where the record may go without */
  readonly empty?: unknown;
}

export type FormField<Known> =
  | QuantityField<Known>
  | NumberField<Known>
  | TextField<Known>
  | LinesField<Known>
  | ChoiceField<Known>
  | AnswerField<Known>
  | TickField<Known>
  | MarksField<Known>
  | PlaceField<Known>
  | InstrumentField<Known>
  | RowsField<Known>
  | TakenField<Known>;

export type FormFields<Known> = Readonly<Record<string, FormField<Known>>>;

/** Dynamic parts of a field, as the form stands. */
export function resolve<Known, T>(what: Dynamic<Known, T>, state: FormState<Known>): T {
  return typeof what === "function" ? (what as (state: FormState<Known>) => T)(state) : what;
}

/** The error in what stands in a field; `part` where the field has parts. */
export interface Wrong {
  readonly message: string;
  readonly part?: string;
  /** Nothing was said there */
  readonly unsaid?: boolean;
}
/** The value of what was typed, what was wrong with it, or neither where nothing was said. */
export type Read = { readonly value?: unknown; readonly wrong?: Wrong };
