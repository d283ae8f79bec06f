import type { Quantity } from "./quantity";
import { type Dimension, findUnit, type PressureKind, UNITS, type UnitId, unitsOf } from "./units";

export type Parsed<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };

const fail = (message: string): Parsed<never> => ({ ok: false, message });

/**
 * A typed number with either decimal sign: "0.4", "0,4", "1.013,25", "-18".
 * A lone group of three behind one comma ("1,000") is two numbers to two people, so it is asked back.
 */
export function parseNumber(text: string): Parsed<number> {
  const t = text.trim().replace(/[\s']/g, "").replace("−", "-");
  if (!/^[+-]?(\d[\d.,]*|[.,]\d+)(e[+-]?\d+)?$/i.test(t)) return fail(`"${text.trim()}" is not a number`);
  const dots = t.split(".").length - 1;
  const commas = t.split(",").length - 1;
  let plain = t;
  if (commas === 1 && dots === 0) {
    if (/^[+-]?[1-9]\d{0,2},\d{3}$/.test(t)) {
      return fail(`"${t}" can mean ${t.replace(",", "")} or ${t.replace(",", ".")}: type it without the comma`);
    }
    plain = t.replace(",", ".");
  } else if (commas > 0 && dots > 0) {
    plain = t.lastIndexOf(",") > t.lastIndexOf(".") ? t.replaceAll(".", "").replace(",", ".") : t.replaceAll(",", "");
  } else if (commas > 1) plain = t.replaceAll(",", "");
  else if (dots > 1) plain = t.replaceAll(".", "");
  const value = Number(plain);
  return Number.isFinite(value) ? { ok: true, value } : fail(`"${text.trim()}" is not a number`);
}

/** Separators people write between the two ends of a reading that swings: "-8 … -15", "-8 to -15", "8..15", "-8 - -15". */
const BETWEEN = /\s*(?:…|\.{2,3}|\bto\b)\s*|\s+[-–—]\s+/;

/**
 * A number, or the two ends that a reading swings between: its middle, with the standard deviation of a value that may lie
 * anywhere between them, half-width/√3 (JCGM 100:2008, 4.3.7). A single number has none.
 */
export function parseSwing(text: string): Parsed<{ readonly middle: number; readonly sd: number }> {
  const ends = text.trim().split(BETWEEN);
  const [a, b] = ends.map(parseNumber);
  if (!a?.ok) return a ?? fail("Nothing typed yet");
  if (!b) return { ok: true, value: { middle: a.value, sd: 0 } };
  if (!b.ok) return b;
  if (ends.length > 2) return fail(`"${text.trim()}" has more than two ends`);
  return { ok: true, value: { middle: (a.value + b.value) / 2, sd: Math.abs(a.value - b.value) / 2 / Math.sqrt(3) } };
}

const KIND_WORDS: readonly (readonly [RegExp, PressureKind])[] = [
  [/\s*\(?\b(abs|absolute|a)\)?\.?$/i, "absolute"],
  [/\s*\(?\b(vac|vacuum)\)?\.?$/i, "vacuum"],
  [/\s*\(?\b(g|gauge|gage|rel)\)?\.?$/i, "gauge"],
];

/** Quantity expected by the field a text is typed into. */
export interface Expected {
  readonly dimension: Dimension;
  /** Taken when the text names no unit; without it a unit is required. */
  readonly unit?: UnitId;
  /** Taken when a pressure names no kind. */
  readonly kind?: PressureKind;
}

/**
 * Parser for what people type into a field: "13 inH2O", "-18 inhg", "0,4 psi", "1.013 bar abs", "psia" and "barg" too.
 * The unit it was taken in is kept. The message of a refusal says what was wrong and what to do.
 */
export function parseQuantity(text: string, expected: Expected): Parsed<Quantity> {
  const match = /^\s*([+\-−]?[\d.,'\s]*\d(?:[eE][+-]?\d+)?)\s*(.*)$/.exec(text);
  if (!match) return fail(text.trim() === "" ? "Nothing typed yet" : `"${text.trim()}" does not start with a number`);
  const number = parseNumber(match[1] ?? "");
  if (!number.ok) return number;

  let rest = (match[2] ?? "").trim();
  let kind: PressureKind | undefined;
  for (const [pattern, word] of KIND_WORDS) {
    if (expected.dimension === "pressure" && !kind && pattern.test(rest) && findUnit(rest) === undefined) {
      kind = word;
      rest = rest.replace(pattern, "").trim();
    }
  }
  let unit = rest === "" ? expected.unit : findUnit(rest);
  if (!unit && /[ag]$/i.test(rest)) {
    unit = findUnit(rest.slice(0, -1));
    if (unit) kind = rest.toLowerCase().endsWith("a") ? "absolute" : "gauge";
  }
  const known = unitsOf(expected.dimension).join(", ");
  if (!unit) return fail(rest === "" ? `Add a unit: ${known}` : `Unit "${rest}" is not known here. Known: ${known}`);
  const dimension = UNITS[unit].dimension;
  if (dimension !== expected.dimension) {
    return fail(
      `${unit} measures ${dimension.replace("-", " ")}; here a ${expected.dimension.replace("-", " ")} is asked: ${known}`,
    );
  }
  if (dimension !== "pressure") return { ok: true, value: { value: number.value, unit } };
  const taken = kind ?? expected.kind ?? "gauge";
  if (taken === "absolute" && number.value < 0) {
    return fail(`An absolute pressure cannot be negative: is ${match[1]?.trim()} ${unit} gauge?`);
  }
  return { ok: true, value: { value: number.value, unit, kind: taken } };
}

/** A bare number as people type it; undefined while it is none. */
export function parseBare(text: string): number | undefined {
  const parsed = parseNumber(text);
  return text.trim() !== "" && parsed.ok ? parsed.value : undefined;
}
