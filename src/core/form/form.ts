import { type ObjectSchema, type SchemaDescription, type SchemaFieldDescription, ValidationError } from "yup";
import { type Draft, type FormField, type FormFields, type FormState, type RowsField, resolve } from "./form-field";
import type { Form } from "./form-of";
import { type TypedGauge, typedGauge } from "./gauge";
import { getIn, type Path, pathOf, setIn } from "./path";
import { readField, typedValue } from "./typed";

/**
 * A form whose fields hold what stands recorded already, while nobody touched them; what is not recorded they hold as ever.
 * @param recorded the record from what is known.
 */
export function recalling<Body extends object, Known, Name extends string>(
  form: Form<Body, Known, Name>,
  recorded: (known: Known) => Body | undefined,
): Form<Body, Known, Name> {
  const recall = ([name, field]: [string, FormField<Known>]) => [
    name,
    {
      ...field,
      defaultValue: (state: FormState<Known>) => {
        const record = recorded(state.known);
        const value = record && valueIn(form, record, name, field);
        return value === undefined ? field.defaultValue?.(state) : held(field, value, state);
      },
    },
  ];
  return {
    ...form,
    fields: Object.fromEntries(Object.entries<FormField<Known>>(form.fields).map(recall)) as Form<Body, Known, Name>["fields"],
  };
}

/** Value of a record for a field, in the shape the field holds it in. */
const valueIn = <Body extends object, Known>(
  { laidOut }: Pick<Form<Body, Known>, "laidOut">,
  record: Body,
  name: string,
  field: FormField<Known>,
) => (laidOut[name] ? laidOut[name](record as never) : getIn(record, field.at ?? name));

/** Everything wrong with a form, or not said yet. */
export interface FieldError {
  /** The field, with the part of it; empty where it is about the whole */
  readonly field: Path;
  readonly message: string;
  /** Nobody said it yet; otherwise what was said is wrong */
  readonly missing: boolean;
}

export type Filled<Body> =
  | { readonly record: Body; readonly errors?: undefined }
  | { readonly record?: undefined; readonly errors: readonly FieldError[] };

/** Values of a form's fields: what was typed, or what is known of what nobody touched. */
export function formStateOf<Known>(fields: FormFields<Known>, draft: Draft, known: Known): FormState<Known> {
  const state: FormState<Known> = {
    known,
    value(name) {
      const typed = getIn(draft, name);
      const field = Object.hasOwn(fields, name) ? fields[name] : undefined;
      // A list stays a list, whatever a kept draft gave back.
      if (field?.type === "taken" && Array.isArray(field.empty) && !Array.isArray(typed)) return field.empty;
      if (field?.type === "instrument") return gaugeOver(field.defaultValue?.(state), typed);
      return typed === undefined ? field?.defaultValue?.(state) : typed;
    },
  };
  return state;
}

/** Whether a field is asked as things stand. */
export const isAsked = <Known>(field: FormField<Known>, state: FormState<Known>): boolean => field.when?.(state) ?? true;

/** A gauge of which a part is typed and the rest known; one that is told otherwise has the known one's name no more. */
function gaugeOver(known: unknown, raw: unknown): TypedGauge | undefined {
  if (known === undefined) return raw === undefined ? undefined : typedGauge(raw);
  const { name, ...gauge } = typedGauge(known);
  const typed: TypedGauge = Object.fromEntries(Object.entries(typedGauge(raw)).filter(([, part]) => part !== undefined));
  const same = typed.id === undefined && typed.division === undefined && typed.end === undefined;
  return { ...gauge, ...(same && name !== undefined ? { name } : {}), ...typed };
}

interface Reading {
  readonly record: Record<string, unknown>;
  readonly errors: readonly FieldError[];
  /** Of each list of the record, which row of the form its rows come from */
  readonly rows: Readonly<Record<Path, readonly number[]>>;
}

/** Whether anything was typed into a row: what was taken for it is no answer. */
const isBlank = <Known>(fields: FormFields<Known>, row: Draft): boolean =>
  Object.entries(fields).every(([name, f]) => f.type === "taken" || [undefined, "", false].includes(getIn(row, name) as never));

function readFields<Known>(fields: FormFields<Known>, state: FormState<Known>): Reading {
  let record: Record<string, unknown> = {};
  const errors: FieldError[] = [];
  const rows: Record<Path, readonly number[]> = {};
  for (const [name, field] of Object.entries(fields)) {
    if (!isAsked(field, state) || field.counts?.(state) === false) continue;
    const at = field.at ?? name;
    if (field.type === "rows") {
      const filled = rowsOf(state.value(name)).flatMap((row, i) => (isBlank(field.fields, row) ? [] : [{ row, i }]));
      const read = filled.map(({ row }) => readFields(field.fields, formStateOf(field.fields, row, state.known)));
      rows[at] = filled.map(({ i }) => i);
      const needed = filled.length === 0 ? field.needed?.(state) : undefined;
      if (needed) errors.push({ field: name, message: needed, missing: true });
      if (read.length > 0 || !field.optional) {
        const list = read.map((r) => r.record);
        record = setIn(record, at, list);
      }
      for (const [n, { errors: wrong }] of read.entries())
        errors.push(...wrong.map((f) => ({ ...f, field: `${name}.${rows[at]?.[n]}.${f.field}` })));
      continue;
    }
    const { value, wrong } = readField(field, state.value(name), state);
    if (wrong)
      errors.push({ field: wrong.part ? `${name}.${wrong.part}` : name, message: wrong.message, missing: wrong.unsaid ?? false });
    if (value !== undefined && !field.aside) record = setIn(record, at, value);
    const needed = value === undefined && !wrong ? field.needed?.(state) : undefined;
    if (needed) errors.push({ field: name, message: needed, missing: true });
  }
  return { record, errors, rows };
}

/** The rows that a draft holds, whatever a kept draft gave back. */
export const rowsOf = (raw: unknown): readonly Draft[] =>
  Array.isArray(raw) ? raw.filter((row): row is Draft => typeof row === "object" && row !== null) : [];

/**
 * The field that a path of the record comes from, with what of the path lies inside it. A complaint about a group is said
 * at the field that it is named after, or at the first of the group.
 */
function fieldOf<Known>(fields: FormFields<Known>, path: Path, about: string, rows: Reading["rows"]): Path | undefined {
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

/** Complaint of a schema where something is not there yet; `read` is a form of which nothing was read. */
const MISSING = new Set(["required", "optionality", "nullable", "defined", "read"]);

/**
 * The record of what was typed, or all that stands between: what cannot be read, what the record's own schema refuses, and
 * what nobody said, each with the field it belongs to, in the order of the fields.
 */
export function toRecord<Body extends object, Known>(form: Form<Body, Known>, draft: Draft, known: Known): Filled<Body> {
  const state = formStateOf(form.fields, draft, known);
  const { record: read, errors, rows } = readFields(form.fields, state);
  const record = keptIn(form.keeps, draft, { ...read, ...computedOf(form, read, state) });
  const refused = refusals(form, record, rows, state).filter(
    (r) => !errors.some((f) => f.field === r.field || f.field.startsWith(`${r.field}.`) || r.field.startsWith(`${f.field}.`)),
  );
  const all = [...errors, ...refused];
  if (all.length === 0) return { record: record as Body };
  const order = Object.keys(form.fields);
  const rank = (f: FieldError) => {
    const at = order.findIndex((name) => f.field === name || f.field.startsWith(`${name}.`));
    return at < 0 ? order.length : at;
  };
  return { errors: all.toSorted((a, b) => rank(a) - rank(b)) };
}

/** Parts that nobody types, left out where nothing is known of them. */
const computedOf = <Known>(
  { computed }: Pick<Form<object, Known>, "computed">,
  read: Record<string, unknown>,
  state: FormState<Known>,
) =>
  Object.fromEntries(
    Object.entries(computed).flatMap(([name, of]) => {
      const value = of(read, state);
      return value === undefined ? [] : [[name, value]];
    }),
  );

/** Part of the record that can be read so far, whatever is still missing; a tick that nobody touched says nothing yet. */
export function readSoFar<Known>({ fields }: { readonly fields: FormFields<Known> }, draft: Draft, known: Known): object {
  const said = Object.entries(fields).filter(([name, field]) => field.type !== "tick" || getIn(draft, name) !== undefined);
  return readFields(Object.fromEntries(said), formStateOf(fields, draft, known)).record;
}

/** Complaints of the record's schema against it, by field; one complaint a field. */
function refusals<Body extends object, Known>(
  form: Form<Body, Known>,
  record: object,
  rows: Reading["rows"],
  state: FormState<Known>,
): FieldError[] {
  try {
    form.schema.validateSync(record, { strict: true, abortEarly: false, disableStackTrace: true });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const found = new Map<string, FieldError>();
    for (const e of error.inner.length > 0 ? error.inner : [error]) {
      const path = pathOf(e.path ?? "");
      const elsewhere = form.elsewhere[path.split(".")[0] ?? ""];
      const field = elsewhere ? "" : (fieldOf(form.fields, path, e.type ?? "", rows) ?? "");
      const key = field || e.message;
      if (found.has(key)) continue;
      // Where nothing was typed nothing is wrong yet.
      const blank = field !== "" && [undefined, ""].includes(state.value(field) as undefined);
      const unsaid = blank || MISSING.has(e.type ?? "") || (e.type === "min" && Array.isArray(e.value));
      const holder = form.fields[field];
      const wordless = holder && e.message === `${e.path} is a required field`;
      // Paths are for programs: a person sees the field.
      const message = wordless ? `Fill in: ${labelOf(holder, state)}` : withoutPath(e);
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
function laidInto<Known>(
  fields: FormFields<Known>,
  record: object,
  known: Known,
  laidOut: Form<never, Known>["laidOut"] = {},
): Draft {
  const state = formStateOf(fields, {}, known);
  let draft: Record<string, unknown> = {};
  for (const [name, field] of Object.entries(fields)) {
    const raw = held(field, valueIn({ laidOut }, record as never, name, field), state);
    if (raw !== undefined) draft = setIn(draft, name, raw);
    // What the record leaves out was left out: what is known elsewhere does not fill it again.
    else if (field.defaultValue) draft = setIn(draft, name, "");
  }
  return draft;
}

/** A record's value as its field holds it, rows of a list with fields of their own included. */
const held = <Known>(field: FormField<Known>, value: unknown, state: FormState<Known>): unknown =>
  field.type === "rows"
    ? (value as object[] | undefined)?.map((row) => laidInto((field as RowsField<Known>).fields, row, state.known))
    : typedValue(field, value, state);

/** How a record stands in its form, to be corrected: the inverse of `toRecord`. */
export function toDraft<Body extends object, Known>(form: Form<Body, Known>, record: Body, known: Known): Draft {
  const kept = Object.fromEntries(form.keeps.map((part) => [part, getIn(record, part) ?? null]));
  return { ...laidInto(form.fields, record, known, form.laidOut), [KEPT]: kept };
}

/** How what an instrument or a log gave stands in the fields it fills, by their names: a part of a record, the rest is left as it is. */
export function partTyped<Known>(
  { fields }: { readonly fields: FormFields<Known> },
  part: object,
  state: FormState<Known>,
): Readonly<Record<string, unknown>> {
  const told = Object.entries(fields).flatMap(([name, field]) => {
    const value = getIn(part, field.at ?? name);
    return value === undefined ? [] : [[name, held(field, value, state)] as const];
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
  state: FormState<Known>,
): boolean {
  const field = form.fields[name];
  if (!field || field.free || field.type === "tick" || field.type === "marks" || field.type === "lines") return false;
  if (field.needed?.(state)) return true;
  let at: SchemaFieldDescription | undefined = describedBy(form.schema);
  for (const key of (field.at ?? name).split(".")) {
    at = (at as SchemaDescription & { fields?: Record<string, SchemaFieldDescription> }).fields?.[key];
    if (at === undefined || !("optional" in at)) return false;
    if (at.optional) return false;
  }
  return true;
}

/** The words above a field. */
export const labelOf = <Known>(field: FormField<Known>, state: FormState<Known>): string => resolve(field.label, state);

/** A draft as an earlier build kept it, under the names that its fields have today; a tick that is a question now was a yes. */
export function draftOfToday<Known>(
  { fields, formerly }: { readonly fields: FormFields<Known>; readonly formerly: Readonly<Record<string, string>> },
  kept: Draft,
): Draft {
  const named = Object.entries(formerly).reduce((draft, [name, before]) => {
    const value = getIn(draft, before);
    return value === undefined || getIn(draft, name) !== undefined ? draft : setIn(draft, name, value);
  }, kept);
  return Object.entries(fields).reduce(
    (draft, [name, { type }]) => (type === "answer" && getIn(draft, name) === true ? setIn(draft, name, "yes") : draft),
    named,
  );
}
