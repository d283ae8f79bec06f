import { BadInput } from "../input";
import {
  convert,
  type Parsed,
  parseField,
  parseNumber,
  parseQuantity,
  parseSwing,
  plausibility,
  type Quantity,
  UNITS,
} from "../units";
import { type Bare, type FormField, type FormState, type LinesField, type NumberField, type Read, resolve } from "./form-field";
import { gaugeTyped, readGauge } from "./gauge";

const NOTHING: Read = {};
const text = (raw: unknown): string => (typeof raw === "string" ? raw.trim() : "");

/** Units people write behind a bare number. */
const BARE_WORDS: Readonly<Record<Bare, RegExp>> = {
  rpm: /\s*(rpm|rpm|\/min|r\/min)$/i,
  s: /\s*(s|sec|seconds?)$/i,
  min: /\s*(min|minutes?)$/i,
  "%": /\s*%$/,
  strokes: /\s*strokes?$/i,
  times: /\s*(times|x|×)$/i,
};

const shown = (n: number) => String(Number(n.toPrecision(12)));

function readNumber<Known>(raw: string, field: NumberField<Known>, state: FormState<Known>): Parsed<number> {
  const bare = field.bare ? raw.replace(BARE_WORDS[field.bare], "") : raw;
  if (field.swings) {
    const swing = parseSwing(bare);
    return swing.ok ? { ok: true, value: Number(shown(swing.value.middle)) } : swing;
  }
  if (field.unit === undefined) return parseNumber(bare);
  const unit = resolve(field.unit, state);
  const parsed = parseQuantity(raw, { dimension: UNITS[unit].dimension, unit });
  if (!parsed.ok || parsed.value.unit === unit) return parsed.ok ? { ok: true, value: parsed.value.value } : parsed;
  return { ok: true, value: Number(shown(convert(parsed.value, unit).value)) };
}

/** Text as typed, a line each; empty ones left out. */
export const linesOf = (typed: string): string[] =>
  typed
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);

function readLines<Known>(raw: string, { read = (line) => line, optional }: LinesField<Known>): Read {
  const lines = linesOf(raw);
  if (lines.length === 0) return optional ? NOTHING : { value: [] };
  return readBy(() => lines.map(read));
}

/** Value by a reader of the field's own, or what it says against it. */
function readBy(read: () => unknown): Read {
  try {
    return { value: read() };
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    return { wrong: { message: error.message } };
  }
}

function readMoment(raw: string): Read {
  const moment = new Date(raw);
  return Number.isFinite(moment.getTime())
    ? { value: moment.toISOString() }
    : { wrong: { message: `"${raw}" is no date and time` } };
}

/** A moment as a field shows it: YYYY-MM-DDTHH:mm on the clock on the wall. */
function typedMoment(iso: string): string {
  const moment = new Date(iso);
  return new Date(moment.getTime() - moment.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** Reads what stands in a field of any type but rows, which have fields of their own. */
export function readField<Known>(field: FormField<Known>, raw: unknown, state: FormState<Known>): Read {
  switch (field.type) {
    case "quantity": {
      if (text(raw) === "") return NOTHING;
      const parsed = parseField(text(raw), field.band, resolve(field.unit, state));
      if (!parsed.ok) return { wrong: { message: parsed.message } };
      const query = plausibility(parsed.value, field.band);
      return query ? { wrong: { message: query.message } } : { value: parsed.value };
    }
    case "number": {
      if (text(raw) === "") return NOTHING;
      const parsed = readNumber(text(raw), field, state);
      return parsed.ok ? { value: parsed.value } : { wrong: { message: parsed.message } };
    }
    case "text":
      if (text(raw) === "") return NOTHING;
      if (field.read) return readBy(() => field.read?.(text(raw), state));
      return field.time === "moment" ? readMoment(text(raw)) : { value: text(raw) };
    case "lines":
      return readLines(text(raw), field);
    case "choice": {
      const chosen = text(raw);
      if (chosen === "" || chosen === field.silent) return NOTHING;
      const known = resolve(field.options, state).some(([id]) => id === chosen);
      return known ? { value: chosen } : { wrong: { message: "Choose one that is offered here" } };
    }
    case "answer":
      return raw === "yes" || raw === "no" ? { value: raw === "yes" } : NOTHING;
    case "tick":
      return field.optional && raw === undefined ? NOTHING : { value: raw === true };
    case "marks": {
      const known = new Set(resolve(field.options, state).map(([id]) => id));
      return { value: Array.isArray(raw) ? raw.filter((id) => known.has(id)) : [] };
    }
    case "place": {
      const id = text(raw);
      if (id === "") return NOTHING;
      return field.among(state).some((j) => j.id === id) ? { value: id } : { wrong: { message: "This car has no such place" } };
    }
    case "instrument":
      return readGauge(raw, field, field.shop(state));
    case "taken":
      return raw === undefined ? { value: field.empty } : { value: raw };
    case "rows":
      return NOTHING;
  }
}

/** How a reading stands in a field when it is edited again. */
export const typedQuantity = (q: Quantity): string => `${shown(q.value)} ${q.unit}${q.kind === "absolute" ? " abs" : ""}`;

/** How a record's value stands in its field: the inverse of reading it. Undefined where the record has none. */
export function typedValue<Known>(field: FormField<Known>, value: unknown, state: FormState<Known>): unknown {
  if (field.type === "answer") return value === undefined ? (field.open ? "open" : undefined) : value ? "yes" : "no";
  if (field.type === "choice" && value === undefined) return field.silent;
  if (value === undefined) return undefined;
  if (field.type === "quantity") return typedQuantity(value as Quantity);
  if (field.type === "number") return shown(value as number);
  if (field.type === "lines") return (value as never[]).map((one) => field.write?.(one) ?? (one as string)).join("\n");
  if (field.type === "text" && field.write) return field.write(value as never);
  if (field.type === "text" && field.time === "moment") return typedMoment(value as string);
  if (field.type === "instrument") return gaugeTyped(value, field.shop(state));
  return value;
}
