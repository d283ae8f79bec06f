import * as yup from "yup";
import { line, strictObject } from "../input";
import { BANDS, type BandId, type Dimension, type PressureKind, type Quantity, quantitySchema, type UnitId } from "../units";
import type { Bare, FormField, FormState, Option } from "./form-field";

/** How a field stands among the readings of a record, one number a row. */
export interface Column {
  /** Name of the number, in a few words; {name} stands for what that member of the same row says */
  readonly reading: string;
  /** Unit and kind of what is no quantity; of a reading in the record's own unit the kind alone */
  readonly unit?: string;
  readonly kind?: PressureKind;
}

interface Parts {
  /** Rule for any value of it, whether it may be left out or not */
  readonly base: yup.AnySchema;
  readonly required: (base: yup.AnySchema) => yup.AnySchema;
  /** How it is asked; a field without a label is asked by no form */
  readonly input?: { readonly type: string } & Readonly<Record<string, unknown>>;
  readonly members?: Members;
  readonly column?: Column | undefined;
  /** Of a group that is one of several read alike: which of them */
  readonly point?: number | undefined;
  readonly known?: FromKnown | undefined;
  /** Whether it is read on the record's own instrument */
  readonly gauged?: boolean | undefined;
}

/** Where a value comes from that nobody types. */
interface FromKnown {
  readonly value: (state: FormState<never>) => unknown;
  /** Advice on what to do where nothing is known */
  readonly elsewhere?: string;
}

/**
 * A field of a record, defined once: its type, its schema, how it is asked for and how it is exported.
 * @typeParam Value as the record holds it; @typeParam Optional whether the record may go without;
 * @typeParam Inner members of a group, or of each row of a list.
 */
export class Field<Value, Optional extends boolean = false, Inner = unknown> {
  declare readonly value: Value;
  declare readonly isOptional: Optional;
  declare readonly inner: Inner;
  /** Of a field that may be left out, whether it is */
  readonly schema: yup.AnySchema;

  constructor(
    readonly parts: Parts,
    schema?: yup.AnySchema,
  ) {
    this.schema = schema ?? parts.required(parts.base);
  }

  /** The same, that the record may go without. */
  optional(): Field<Value, true, Inner> {
    return new Field(this.parts, this.parts.base.optional().default(undefined));
  }

  /** The same, with other words where it is missing. */
  requiring(missing: string): Field<Value, false, Inner> {
    return new Field({ ...this.parts, required: (base) => base.required(missing) });
  }

  /** Taken from what is known, and not asked. A record that is corrected keeps its own. */
  known(value: (state: FormState<never>) => unknown, elsewhere?: string): Field<Value, Optional, Inner> {
    return new Field({ ...this.parts, known: { value, ...(elsewhere ? { elsewhere } : {}) } }, this.schema);
  }

  /** RequiredKeys by an instrument or a log as a whole, and not typed. @param empty what is there before anything was taken. */
  taken(label: string, empty?: Value): Field<Value, Optional> {
    const { members: _, ...parts } = this.parts;
    return new Field({ ...parts, input: { type: "taken", label, ...(empty === undefined ? {} : { empty }) } }, this.schema);
  }

  /** No reading of the record's own instrument: what a part bears, what was asked for, what another instrument showed. */
  notGauged(): Field<Value, Optional, Inner> {
    return new Field({ ...this.parts, gauged: false }, this.schema);
  }

  /** A choice of how the check is set up, and no observation: made again, it stands as it was. */
  setUp(): Field<Value, Optional, Inner> {
    return this.asked({ setUp: true });
  }

  /** What the shop's own equipment is: it stands as it was on the last car too. */
  equipment(): Field<Value, Optional, Inner> {
    return this.asked({ setUp: true, equipment: true });
  }

  /** The same, asked in another way. */
  asked(input: Readonly<Record<string, unknown>> & { readonly type?: FormField<never>["type"] }): Field<Value, Optional, Inner> {
    const type = input.type ?? this.parts.input?.type ?? "text";
    return new Field({ ...this.parts, input: { ...this.parts.input, ...input, type } }, this.schema);
  }

  /** Rule that must hold within a group or a list; `at` names the member the complaint belongs to. */
  rule(at: string, message: string, holds: (value: Unchecked<Value>) => boolean): Field<Value, Optional, Inner> {
    const test = (schema: yup.AnySchema) =>
      schema.test(at, message, (v: unknown) => !isObject(v) || holds(v as Unchecked<Value>));
    return new Field({ ...this.parts, base: test(this.parts.base) }, test(this.schema));
  }
}

/** A rule as a schema asks it: what is no group yet has its own complaint. @param at the member that is complained of. */
const ruling = <T>(at: string, holds: (value: Unchecked<T>) => boolean): yup.TestFunction =>
  function (value) {
    if (!isObject(value) || holds(value as unknown as Unchecked<T>)) return true;
    return at ? this.createError({ path: [this.path, at].filter(Boolean).join(".") }) : false;
  };

const isObject = (value: unknown): value is object => typeof value === "object" && value !== null;

/** A record that has not been validated yet, as a rule between its members meets it. */
export type Unchecked<T> = T extends readonly unknown[] ? readonly unknown[] : { readonly [K in keyof T]?: unknown };

export type Members = Readonly<Record<string, Field<unknown, boolean>>>;
type RequiredKeys<F extends Members> = { [K in keyof F]: F[K]["isOptional"] extends true ? never : K }[keyof F];

/** The record that members make. */
export type RecordOfMembers<F extends Members> = {
  readonly [K in keyof F as K extends RequiredKeys<F> ? K : never]: F[K]["value"];
} & { readonly [K in keyof F as K extends RequiredKeys<F> ? never : K]?: F[K]["value"] | undefined };

/** Paths of a record's fields, as in "reference.diameter"; rows of a list have fields of their own. */
export type PathsOf<F extends Members> = {
  [K in keyof F & string]: F[K]["inner"] extends { readonly members: infer G extends Members } ? K | `${K}.${PathsOf<G>}` : K;
}[keyof F & string];

/** All fields of a record. */
export class FieldSet<F extends Members> {
  declare readonly record: RecordOfMembers<F>;
  readonly schema: yup.ObjectSchema<object>;

  constructor(
    readonly members: F,
    schema?: yup.ObjectSchema<object>,
  ) {
    this.schema = schema ?? schemaOf(members);
  }

  /** The same as a part of another record. */
  get group(): Field<RecordOfMembers<F>, false, { readonly members: F }> {
    return new Field({ base: this.schema, required: required(undefined), members: this.members });
  }

  /** Rule that must hold between fields; `at` is the one that the complaint is said at, or a word where it is about the whole. */
  rule(at: PathsOf<F> | "whole", message: string, holds: (record: Unchecked<RecordOfMembers<F>>) => boolean): FieldSet<F> {
    return new FieldSet(this.members, this.schema.test(at, message, ruling(at === "whole" ? "" : at, holds)));
  }
}

export const fields = <const F extends Members>(members: F): FieldSet<F> => new FieldSet(members);
export type RecordOf<S extends { readonly record: unknown }> = S["record"];

const schemaOf = (members: Members): yup.ObjectSchema<object> =>
  strictObject(Object.fromEntries(Object.entries(members).map(([name, field]) => [name, field.schema])));

/** Options of every field: how it is asked and exported. */
export interface Shown {
  readonly label?: string;
  readonly hint?: string;
  readonly example?: string;
  /** Default value while nobody touched it; never an observation that a verdict rests on */
  readonly defaultValue?: unknown;
  /** Nothing said is an answer too, though the record needs one: it is worked out */
  readonly free?: true;
  /** Among the readings */
  readonly column?: string;
  /** Wording where it is missing */
  readonly missing?: string;
}

const shown = ({ label, hint, example, defaultValue, free }: Shown) => ({
  ...(label === undefined ? {} : { label }),
  ...(hint === undefined ? {} : { hint }),
  ...(example === undefined ? {} : { example }),
  ...(free ? { free } : {}),
  ...(defaultValue === undefined ? {} : { defaultValue: () => defaultValue }),
});

const required = (missing: string | undefined) => (base: yup.AnySchema) => (missing ? base.required(missing) : base.required());

/** A value that is taken as it comes, by a schema of its own. */
export const plain = <Value>(base: yup.AnySchema, missing?: string): Field<Value> =>
  new Field({ base, required: required(missing) });

/** Something that helps to fill a form and is taken as it comes: when a command began, which row is next. */
export const taken = <Value = unknown>(label: string, empty?: Value): Field<Value> =>
  plain<Value>(yup.mixed()).taken(label, empty);

/**
 * A reading with its unit.
 * @param rule the band that it must lie in, or a bare dimension. @param more the first of `units` is taken for a bare number.
 */
export function quantity(
  rule: BandId | { readonly dimension: Dimension; readonly kind?: PressureKind },
  more: Shown & { readonly units?: readonly [UnitId, ...UnitId[]] } = {},
): Field<Quantity> {
  const { units, column, missing, label } = more;
  const kind = typeof rule === "string" ? (BANDS[rule] as { readonly kind?: PressureKind }).kind : rule.kind;
  return new Field({
    base: quantitySchema(rule),
    required: required(missing ?? (label && `${label} is missing`)),
    ...(units ? { input: { type: "quantity", band: rule, unit: units[0], units, ...shown(more) } } : {}),
    column: column === undefined ? undefined : { reading: column, ...(kind ? { kind } : {}) },
  });
}

type Bound = readonly [value: number, message: string];

/** A number. Where its unit stands once in the record, the form names it. */
export function number(
  more: Shown & {
    /** Its name in complaints */
    readonly name: string;
    readonly bare?: Bare;
    readonly unit?: UnitId;
    readonly swings?: true;
    /** Wording of what is no number */
    readonly wrong?: string;
    readonly min?: Bound;
    readonly above?: Bound;
    readonly max?: Bound;
    readonly integer?: string;
    readonly columnUnit?: string;
    readonly kind?: PressureKind;
    /** Read on the record's own instrument, in the record's own unit */
    readonly gauged?: true;
  },
): Field<number> {
  const { name, bare, unit, swings, min, above, max, integer, column, missing, kind } = more;
  let base = yup.number().typeError(more.wrong ?? `${name} is a number`);
  if (integer) base = base.integer(integer);
  if (min) base = base.min(...min);
  if (above) base = base.moreThan(...above);
  if (max) base = base.max(...max);
  const columnUnit = more.columnUnit ?? bare ?? unit;
  return new Field({
    base,
    required: required(missing ?? `${name} is missing`),
    input: {
      type: "number",
      ...shown(more),
      ...(bare ? { bare } : {}),
      ...(unit ? { unit } : {}),
      ...(swings ? { swings } : {}),
    },
    column:
      column === undefined
        ? undefined
        : { reading: column, ...(columnUnit ? { unit: columnUnit } : {}), ...(kind ? { kind } : {}) },
    gauged: more.gauged ?? false,
  });
}

/** A text; where the record needs it, it must say something. */
export function text(
  more: Shown & { readonly name: string; readonly max?: number; readonly long?: true; readonly time?: "day" | "moment" },
): Field<string> {
  const { name, max, long, time } = more;
  const missing = more.missing ?? `${name} is missing`;
  return new Field({
    base: line(name, max),
    required: (base) =>
      (base as yup.StringSchema)
        .required(missing)
        .test("filled", missing, (said: string | undefined) => (said ?? "").trim() !== ""),
    input: { type: "text", ...shown(more), ...(long ? { long } : {}), ...(time ? { time } : {}) },
  });
}

/** A text of a certain form: a day, a moment, a hash. */
export const pattern = (form: RegExp, wrong: string, more: Shown & { readonly time?: "day" | "moment" } = {}): Field<string> =>
  new Field({
    base: yup.string().matches(form, wrong),
    required: required(more.missing ?? wrong),
    input: { type: "text", ...shown(more), ...(more.time ? { time: more.time } : {}) },
  });

/** A PIN or a passphrase, by a schema of its own: hidden as it is typed, and never kept on the device. */
export const secret = (kind: "pin" | "pad" | "passphrase", schema: yup.StringSchema, more: Shown): Field<string> =>
  new Field({ base: schema, required: (base) => base, input: { type: "text", secret: kind, ...shown(more) } });

/** A day, as 2026-01-31. */
export const day = (name: string, more: Shown = {}): Field<string> =>
  pattern(/^\d{4}-\d\d-\d\d$/, `${name} looks like 2026-01-31`, { time: "day", ...more });

/** Ids with their names, as options of a choice. */
const optionsOf = (names: Readonly<Record<string, string>>): readonly Option[] => Object.entries(names);

/** One of a few, each with its name on the screen. */
export function choice<const Id extends string>(
  names: Readonly<Record<Id, string>>,
  more: Shown & {
    /** Its name in complaints */
    readonly name?: string;
    /** Shown as a list to pull down */
    readonly list?: true;
    /** The answer that says nothing, and leaves nothing in the record: its id, and its name where it is offered */
    readonly silent?: readonly [id: string, name?: string, place?: "last"];
    readonly wrong?: string;
  } = {},
): Field<Id> {
  const { list, silent } = more;
  const name = more.name ?? more.label ?? "It";
  const ids = Object.keys(names) as Id[];
  const unsaid: readonly Option[] = silent?.[1] === undefined ? [] : [[silent[0], silent[1]]];
  const options = silent?.[2] ? [...optionsOf(names), ...unsaid] : [...unsaid, ...optionsOf(names)];
  return new Field({
    base: yup.mixed<Id>().oneOf(ids, more.wrong ?? `${name} is one of ${ids.join(", ")}`),
    required: required(more.missing ?? `${name} is missing`),
    input: {
      type: "choice",
      options,
      ...shown(more),
      ...(list ? { list } : {}),
      ...(silent ? { silent: silent[0] } : {}),
      ...(unsaid.length > 0 && more.defaultValue === undefined ? { defaultValue: () => silent?.[0] } : {}),
    },
  });
}

/** One of a list of ids whose names only the form knows. */
export const oneOf = <const Id extends string>(
  ids: readonly Id[],
  name: string,
  more: Shown & { readonly list?: true } = {},
): Field<Id> =>
  new Field({
    base: yup.mixed<Id>().oneOf(ids as Id[], `${name} is one of ${ids.join(", ")}`),
    required: required(more.missing ?? `${name} is missing`),
    input: { type: "choice", options: ids.map((id) => [id, id]), ...shown(more), ...(more.list ? { list: true } : {}) },
  });

/** A question with two answers, and nothing said while nobody answered it. @param more `open` is a third that leaves it open. */
export const answer = (more: Shown & { readonly yes: string; readonly no: string; readonly open?: string }): Field<boolean> =>
  new Field({
    base: yup.boolean(),
    required: required(more.missing ?? (more.label && `${more.label}: say which`)),
    input: { type: "answer", yes: more.yes, no: more.no, ...(more.open ? { open: more.open } : {}), ...shown(more) },
  });

/** Said by hand, or not said. */
export const tick = (more: Shown = {}): Field<boolean> =>
  new Field({ base: yup.boolean(), required: required(more.missing), input: { type: "tick", ...shown(more) } });

/** True, or left out. */
export const only = (): Field<true, true> =>
  new Field<true>({ base: yup.boolean().oneOf([true]), required: required(undefined) }).optional();

/** Any of a few. */
export const marks = <Id extends string>(
  each: yup.AnySchema,
  more: Shown & { readonly most: number; readonly options?: readonly Option[]; readonly list?: true },
): Field<readonly Id[]> =>
  new Field({
    base: yup.array().of(each).max(more.most),
    required: required(more.missing),
    input: {
      type: "marks",
      ...shown(more),
      ...(more.options ? { options: more.options } : {}),
      ...(more.list ? { list: true } : {}),
    },
  });

/** Fields that belong together and are there together. @param more which of several read alike it is, among the readings. */
export const group = <const F extends Members>(
  members: F,
  more: { readonly point?: number; readonly missing?: string } = {},
): Field<RecordOfMembers<F>, false, { readonly members: F }> =>
  new Field({
    base: schemaOf(members),
    required: required(more.missing),
    members,
    point: more.point,
  });

interface ListMore extends Shown {
  readonly min?: Bound;
  readonly max: number | Bound;
}

/** A list of the same, each by a field of its own: values, or groups of fields. */
export const list = <Value, Inner>(
  each: Field<Value, boolean, Inner>,
  more: ListMore & {
    /** A row that is added, and where rows stand there from the beginning, each of them: then it is typed row by row */
    readonly blank?: object;
    /** The record goes without the list where there is no row */
    readonly free?: true;
    /** Typed a line each */
    readonly lines?: {
      readonly read?: (line: string) => Value;
      readonly write?: (value: Value) => string;
      readonly optional?: true;
    };
    /** Kept as it is taken */
    readonly empty?: readonly Value[];
  },
): Field<readonly Value[], false, { readonly row: Inner extends { readonly members: infer G } ? G : never }> => {
  const { min, max, blank, lines } = more;
  let base = yup.array().of(each.schema);
  if (min) base = base.min(...min);
  base = typeof max === "number" ? base.max(max) : base.max(...max);
  const type = blank ? "rows" : lines ? "lines" : "taken";
  return new Field({
    base,
    required: required(more.missing),
    ...(each.parts.members ? { members: each.parts.members } : {}),
    input: {
      type,
      ...shown(more),
      ...(blank ? { blank } : {}),
      ...(more.empty ? { empty: more.empty } : {}),
      ...lines,
    },
  });
};

type Variants = Readonly<Record<string, Members>>;
type Together<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer I) => void ? I : never;

/**
 * One of several kinds, each with fields of its own, told apart by one of them.
 * @param by the field that tells them apart; @param incomplete what to say where one lacks what its kind must have.
 */
export function variants<const By extends string, const V extends Variants>(
  by: By,
  of: V,
  more: { readonly name: string; readonly incomplete: Readonly<Partial<Record<keyof V & string, string>>> },
): Field<
  { [K in keyof V & string]: { readonly [P in By]: K } & RecordOfMembers<V[K]> }[keyof V & string],
  false,
  { readonly members: { readonly [P in By]: Field<keyof V & string> } & Together<V[keyof V]> }
> {
  const kinds = Object.keys(of);
  const all = Object.values(of).flatMap((members) => Object.entries(members));
  const optional = Object.fromEntries(all.map(([name, field]) => [name, field.optional()]));
  const members = { [by]: oneOf(kinds, more.name), ...optional };
  let base: yup.AnySchema = schemaOf(members);
  for (const [kind, message] of Object.entries(more.incomplete as Record<string, string>)) {
    const needs = Object.entries(of[kind] ?? {}).filter(([, field]) => !field.schema.describe().optional);
    base = base.test(kind, message, (value: unknown) => {
      const said = value as Readonly<Record<string, unknown>> | undefined;
      return said?.[by] !== kind || needs.every(([name]) => said[name] !== undefined && said[name] !== "");
    });
  }
  return new Field({ base, required: required(undefined), members });
}
