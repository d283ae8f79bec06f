import { type ObjectSchema, type SchemaDescription, type SchemaFieldDescription, ValidationError } from "yup";
import { asked, type Draft, type Field, type Fields, type Given, type RowsField } from "./field";
import { getIn, type Path, pathOf, setIn } from "./path";
import { readField, typedValue } from "./typed";

/** What a form asks, and the record that its answers make. */
export interface Form<Body extends object, Known, Name extends string = string> {
  readonly schema: ObjectSchema<object>;
  readonly fields: Readonly<Record<Name, Field<Known>>>;
  /** What the record needs besides and nobody has to type: added to what was read */
  readonly also?: (read: Readonly<Record<string, unknown>>, given: Given<Known>) => object;
  /** Parts that `also` takes from what is known: a record that is corrected keeps its own, whatever is known since */
  readonly keeps?: readonly string[];
  /** What to do about a part of the record that no field asks for, by its path */
  readonly elsewhere?: Readonly<Record<Path, string>>;
  /** A record as the fields see it, where `also` gave it another shape */
  laidOut?(record: Body): object;
}

/** Keeps the names of a form's fields in its type. */
export const formOf =
  <Body extends object, Known>() =>
  <Name extends string>(form: Form<Body, Known, Name>): Form<Body, Known, Name> =>
    form;

/**
 * Fields that hold what stands recorded already, while nobody touched them; what is not recorded they hold as ever.
 * @param recorded the record as its fields see it, from what is known.
 */
export function recalling<Known, Name extends string>(
  recorded: (known: Known) => object | undefined,
  fields: Readonly<Record<Name, Field<Known>>>,
): Readonly<Record<Name, Field<Known>>> {
  const recall = ([name, field]: [string, Field<Known>]) => [
    name,
    {
      ...field,
      holds: (given: Given<Known>) => {
        const value = getIn(recorded(given.known) ?? {}, field.at ?? name);
        return value === undefined ? field.holds?.(given) : held(field, value, given);
      },
    },
  ];
  return Object.fromEntries(Object.entries<Field<Known>>(fields).map(recall)) as Record<Name, Field<Known>>;
}

/** What is wrong with a form, or not said yet. */
export interface Fault {
  /** The field, with the part of it; empty where it is about the whole */
  readonly field: Path;
  readonly message: string;
  /** Nobody said it yet; otherwise what was said is wrong */
  readonly missing: boolean;
}

export type Filled<Body> =
  | { readonly record: Body; readonly faults?: undefined }
  | { readonly record?: undefined; readonly faults: readonly Fault[] };

/** What a form's fields hold: what was typed, or what is known of what nobody touched. */
export function givenOf<Known>(fields: Fields<Known>, draft: Draft, known: Known): Given<Known> {
  const given: Given<Known> = {
    known,
    holds(name) {
      const typed = getIn(draft, name);
      const field = Object.hasOwn(fields, name) ? fields[name] : undefined;
      // A list stays a list, whatever a kept draft gave back.
      if (field?.type === "taken" && Array.isArray(field.empty) && !Array.isArray(typed)) return field.empty;
      return typed === undefined ? field?.holds?.(given) : typed;
    },
  };
  return given;
}

/** Whether a field is asked as things stand. */
export const isAsked = <Known>(field: Field<Known>, given: Given<Known>): boolean => field.when?.(given) ?? true;

interface Reading {
  readonly record: Record<string, unknown>;
  readonly faults: readonly Fault[];
  /** Of each list of the record, which row of the form its rows come from */
  readonly rows: Readonly<Record<Path, readonly number[]>>;
}

/** Whether anything was typed into a row: what was taken for it is no answer. */
const isBlank = <Known>(fields: Fields<Known>, row: Draft): boolean =>
  Object.entries(fields).every(([name, f]) => f.type === "taken" || [undefined, "", false].includes(getIn(row, name) as never));

function readFields<Known>(fields: Fields<Known>, given: Given<Known>): Reading {
  let record: Record<string, unknown> = {};
  const faults: Fault[] = [];
  const rows: Record<Path, readonly number[]> = {};
  for (const [name, field] of Object.entries(fields)) {
    if (!isAsked(field, given) || field.counts?.(given) === false) continue;
    const at = field.at ?? name;
    if (field.type === "rows") {
      const filled = rowsOf(given.holds(name)).flatMap((row, i) => (isBlank(field.fields, row) ? [] : [{ row, i }]));
      const read = filled.map(({ row }) => readFields(field.fields, givenOf(field.fields, row, given.known)));
      rows[at] = filled.map(({ i }) => i);
      const needed = filled.length === 0 ? field.needed?.(given) : undefined;
      if (needed) faults.push({ field: name, message: needed, missing: true });
      if (read.length > 0 || !field.optional) {
        const list = read.map((r) => r.record);
        record = setIn(record, at, list);
      }
      for (const [n, { faults: wrong }] of read.entries())
        faults.push(...wrong.map((f) => ({ ...f, field: `${name}.${rows[at]?.[n]}.${f.field}` })));
      continue;
    }
    const { value, wrong } = readField(field, given.holds(name), given);
    if (wrong)
      faults.push({ field: wrong.part ? `${name}.${wrong.part}` : name, message: wrong.message, missing: wrong.unsaid ?? false });
    if (value !== undefined && !field.aside) record = setIn(record, at, value);
    const needed = value === undefined && !wrong ? field.needed?.(given) : undefined;
    if (needed) faults.push({ field: name, message: needed, missing: true });
  }
  return { record, faults, rows };
}

/** The rows that a draft holds, whatever a kept draft gave back. */
export const rowsOf = (raw: unknown): readonly Draft[] =>
  Array.isArray(raw) ? raw.filter((row): row is Draft => typeof row === "object" && row !== null) : [];

/**
 * The field that a path of the record comes from, with what of the path lies inside it. A complaint about a group is said
 * at the field that it is named after, or at the first of the group.
 */
function fieldOf<Known>(fields: Fields<Known>, path: Path, about: string, rows: Reading["rows"]): Path | undefined {
  for (const [name, field] of Object.entries(fields)) {
    const at = field.at ?? name;
    if (path !== at && !path.startsWith(`${at}.`)) continue;
    if (field.type === "instrument") return `${name}${path.slice(at.length)}`;
    if (field.type !== "rows") return name;
    const [row, ...rest] = path.slice(at.length + 1).split(".");
    const inside = rest.length > 0 ? fieldOf(field.fields, rest.join("."), about, {}) : undefined;
    return row ? [name, rows[at]?.[Number(row)] ?? row, ...(inside ? [inside] : [])].join(".") : name;
  }
  const group = path === "" ? "" : `${path}.`;
  const named = Object.keys(fields).find((name) => (fields[name]?.at ?? name) === `${group}${about}`);
  return named ?? (group === "" ? undefined : Object.keys(fields).find((name) => (fields[name]?.at ?? name).startsWith(group)));
}

/** What a schema says where something is not there yet; `read` is a form of which nothing was read. */
const MISSING = new Set(["required", "optionality", "nullable", "defined", "read"]);

/**
 * The record of what was typed, or all that stands between: what cannot be read, what the record's own schema refuses, and
 * what nobody said, each with the field it belongs to, in the order of the fields.
 */
export function toRecord<Body extends object, Known>(form: Form<Body, Known>, draft: Draft, known: Known): Filled<Body> {
  const given = givenOf(form.fields, draft, known);
  const { record: read, faults, rows } = readFields(form.fields, given);
  const record = keptIn(form.keeps ?? [], draft, { ...read, ...form.also?.(read, given) });
  const refused = refusals(form, record, rows, given).filter(
    (r) => !faults.some((f) => f.field === r.field || f.field.startsWith(`${r.field}.`) || r.field.startsWith(`${f.field}.`)),
  );
  const all = [...faults, ...refused];
  if (all.length === 0) return { record: record as Body };
  const order = Object.keys(form.fields);
  const rank = (f: Fault) => {
    const at = order.findIndex((name) => f.field === name || f.field.startsWith(`${name}.`));
    return at < 0 ? order.length : at;
  };
  return { faults: all.toSorted((a, b) => rank(a) - rank(b)) };
}

/** What can be read of a form so far, whatever is still missing; a tick that nobody touched says nothing yet. */
export function readSoFar<Known>({ fields }: { readonly fields: Fields<Known> }, draft: Draft, known: Known): object {
  const said = Object.entries(fields).filter(([name, field]) => field.type !== "tick" || getIn(draft, name) !== undefined);
  return readFields(Object.fromEntries(said), givenOf(fields, draft, known)).record;
}

/** What the record's schema says against it, by field; one complaint a field. */
function refusals<Body extends object, Known>(
  form: Form<Body, Known>,
  record: object,
  rows: Reading["rows"],
  given: Given<Known>,
): Fault[] {
  try {
    form.schema.validateSync(record, { strict: true, abortEarly: false, disableStackTrace: true });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const found = new Map<string, Fault>();
    for (const e of error.inner.length > 0 ? error.inner : [error]) {
      const path = pathOf(e.path ?? "");
      const elsewhere = form.elsewhere?.[path.split(".")[0] ?? ""];
      const field = elsewhere ? "" : (fieldOf(form.fields, path, e.type ?? "", rows) ?? "");
      const key = field || e.message;
      if (found.has(key)) continue;
      // Where nothing was typed nothing is wrong yet.
      const blank = field !== "" && [undefined, ""].includes(given.holds(field) as undefined);
      const unsaid = blank || MISSING.has(e.type ?? "") || (e.type === "min" && Array.isArray(e.value));
      const holder = form.fields[field];
      const wordless = holder && e.message === `${e.path} is a required field`;
      // Paths are for programs: a person sees the field.
      const message = wordless ? `${labelOf(holder, given)}: not said yet` : withoutPath(e);
      found.set(key, { field, message: elsewhere ?? message, missing: unsaid || elsewhere !== undefined });
    }
    return [...found.values()];
  }
}

/** A schema's complaint without the path it begins with. */
function withoutPath({ message, path }: ValidationError): string {
  const prefix = `${path}: `;
  return message.startsWith(prefix) ? message.slice(prefix.length) : message;
}

/** Where the draft of a correction holds what its record was read under; null is what it went without. */
const KEPT = "kept";

/** A record with the parts that its correction keeps. */
function keptIn(parts: readonly string[], draft: Draft, record: object): object {
  const own = parts.flatMap((part) => {
    const value = getIn(draft, `${KEPT}.${part}`);
    return value === undefined ? [] : [[part, value] as const];
  });
  const without = new Set(own.flatMap(([part, value]) => (value === null ? [part] : [])));
  return Object.fromEntries([...Object.entries(record), ...own].filter(([part]) => !without.has(part)));
}

/** A record as its fields hold it. */
function laidInto<Known>(fields: Fields<Known>, record: object, known: Known): Draft {
  const given = givenOf(fields, {}, known);
  let draft: Record<string, unknown> = {};
  for (const [name, field] of Object.entries(fields)) {
    const raw = held(field, getIn(record, field.at ?? name), given);
    if (raw !== undefined) draft = setIn(draft, name, raw);
    // What the record leaves out was left out: what is known elsewhere does not fill it again.
    else if (field.holds) draft = setIn(draft, name, "");
  }
  return draft;
}

/** A record's value as its field holds it, rows of a list with fields of their own included. */
const held = <Known>(field: Field<Known>, value: unknown, given: Given<Known>): unknown =>
  field.type === "rows"
    ? (value as object[] | undefined)?.map((row) => laidInto((field as RowsField<Known>).fields, row, given.known))
    : typedValue(field, value, given);

/** How a record stands in its form, to be corrected: the inverse of `toRecord`. */
export function toDraft<Body extends object, Known>(form: Form<Body, Known>, record: Body, known: Known): Draft {
  const kept = Object.fromEntries((form.keeps ?? []).map((part) => [part, getIn(record, part) ?? null]));
  return { ...laidInto(form.fields, form.laidOut?.(record) ?? record, known), [KEPT]: kept };
}

/** How what an instrument or a log gave stands in the fields it fills, by their names: a part of a record, the rest is left as it is. */
export function partTyped<Known>(
  { fields }: { readonly fields: Fields<Known> },
  part: object,
  given: Given<Known>,
): Readonly<Record<string, unknown>> {
  const told = Object.entries(fields).flatMap(([name, field]) => {
    const value = getIn(part, field.at ?? name);
    return value === undefined ? [] : [[name, held(field, value, given)] as const];
  });
  return Object.fromEntries(told);
}

/** A schema describes itself anew each time it is asked, and every field of a form asks at every drawing. */
const descriptions = new WeakMap<ObjectSchema<object>, SchemaFieldDescription>();
function describedBy(schema: ObjectSchema<object>): SchemaFieldDescription {
  const known = descriptions.get(schema);
  if (known) return known;
  const made = schema.describe();
  descriptions.set(schema, made);
  return made;
}

/** Whether a record is refused without this: what the schema itself requires. */
export function isRequired<Known>(
  form: Pick<Form<object, Known>, "schema" | "fields">,
  name: string,
  given: Given<Known>,
): boolean {
  const field = form.fields[name];
  if (!field || field.free || field.type === "tick" || field.type === "marks" || field.type === "lines") return false;
  if (field.needed?.(given)) return true;
  let at: SchemaFieldDescription | undefined = describedBy(form.schema);
  for (const key of (field.at ?? name).split(".")) {
    at = (at as SchemaDescription & { fields?: Record<string, SchemaFieldDescription> }).fields?.[key];
    if (at === undefined || !("optional" in at)) return false;
    if (at.optional) return false;
  }
  return true;
}

/** The words above a field. */
export const labelOf = <Known>(field: Field<Known>, given: Given<Known>): string => asked(field.label, given);
