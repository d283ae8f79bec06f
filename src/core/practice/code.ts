import type { Family, SymptomId } from "../faults";
import { BadInput } from "../input";

/** Version of how cases are drawn: the same code is the same car only within it. */
export const CASE_VERSION = 1;

/** Families by their place in a code: a new one goes to the end. */
export const CODE_FAMILIES: readonly Family[] = ["engine", "boost", "egr", "evap", "filter", "secondary-air"];

/** Symptoms by their bit in a code: a new one goes to the end. */
export const CODE_SYMPTOMS: readonly SymptomId[] = [
  "hiss-idle",
  "hiss-load",
  "rough-idle",
  "low-power",
  "cold-worse",
  "brake-hard",
  "oil-smell",
  "ticking-cold",
  "whistle-cap",
  "dull-low",
  "comes-and-goes",
  "stalls",
  "nozzle-clicks",
  "fuel-smell",
  "hard-start-filled",
  "cap-whoosh",
  "regenerates-often",
  "oil-rises",
  "pump-howl",
  "black-smoke",
];

export const LEVELS = { 1: "One plain fault", 2: "One fault, and something that misleads", 3: "Two faults that mix" } as const;
export type Level = keyof typeof LEVELS;

/** A case that is drawn from a seed. */
export interface DrawnCase {
  readonly family: Family;
  readonly level: Level;
  /** 0 to 2²⁰ − 1 */
  readonly seed: number;
}
/** A case that somebody put together: the vehicle by its own seed, faults by their place among its causes, what the customer tells. */
export interface ComposedCase {
  readonly family: Family;
  /** 0 to 255 */
  readonly vehicle: number;
  readonly faults: readonly { readonly cause: number; readonly size: number }[];
  /** By their place in `CODE_SYMPTOMS`, one bit each */
  readonly symptoms: number;
  /** An unrelated code is stored as well */
  readonly misleads: boolean;
}
export type CaseSpec = DrawnCase | ComposedCase;

/** Crockford's base 32: no letter that reads like a digit. */
const DIGITS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
const MISREAD: Readonly<Record<string, string>> = { O: "0", I: "1", L: "1", U: "V" };

/** Luhn's check digit to the base of 32: finds one wrong sign and most that changed places. */
function checkDigit(digits: readonly number[]): number {
  const sum = digits.toReversed().reduce((total, digit, i) => {
    const weighed = digit * (i % 2 === 0 ? 2 : 1);
    return total + Math.floor(weighed / 32) + (weighed % 32);
  }, 0);
  return (32 - (sum % 32)) % 32;
}

type Field = readonly [value: number, bits: number];
/** Sizes go into three bits. */
const SIZES = 7;
const NO_FAULT = 127;

const fieldsOf = (spec: CaseSpec): Field[] => {
  const family = CODE_FAMILIES.indexOf(spec.family);
  if ("seed" in spec)
    return [
      [0, 1],
      [family, 4],
      [spec.level, 2],
      [spec.seed, 20],
    ];
  const [first, second] = spec.faults;
  const fault = (f: typeof first): Field[] => [
    [f?.cause ?? NO_FAULT, 7],
    [Math.round((f?.size ?? 0) * SIZES), 3],
  ];
  return [
    [1, 1],
    [family, 4],
    [spec.vehicle, 8],
    ...fault(first),
    ...fault(second),
    [spec.misleads ? 1 : 0, 1],
    [spec.symptoms, 30],
  ];
};

/** A case as a short code, in groups of four: its version, what it is drawn from, and a check digit. */
export function caseCode(spec: CaseSpec): string {
  let bits = BigInt(CASE_VERSION);
  let length = 4;
  for (const [value, width] of fieldsOf(spec)) {
    bits = (bits << BigInt(width)) | BigInt(value);
    length += width;
  }
  const count = Math.ceil(length / 5);
  bits <<= BigInt(count * 5 - length);
  const digits = Array.from({ length: count }, (_, i) => Number((bits >> BigInt(5 * (count - 1 - i))) & 31n));
  return [...digits, checkDigit(digits)]
    .map((d) => DIGITS[d])
    .join("")
    .replace(/(.{4})(?=.)/g, "$1-");
}

const WRONG = "This is no case code: look at it again, sign by sign";

/** Case that a code stands for. Throws BadInput where it was mistyped, or is of another version. */
export function readCaseCode(typed: string): CaseSpec {
  const text = typed.toUpperCase().replace(/[\s-]/g, "");
  const digits = [...text].map((sign) => DIGITS.indexOf(MISREAD[sign] ?? sign));
  const [last] = digits.slice(-1);
  if (digits.length < 3 || digits.includes(-1)) throw new BadInput(WRONG, "code");
  const body = digits.slice(0, -1);
  if (checkDigit(body) !== last) throw new BadInput(WRONG, "code");
  let left = body.length * 5;
  const bits = body.reduce((all, digit) => (all << 5n) | BigInt(digit), 0n);
  const take = (width: number): number => {
    left -= width;
    if (left < 0) throw new BadInput(WRONG, "code");
    return Number((bits >> BigInt(left)) & ((1n << BigInt(width)) - 1n));
  };
  const version = take(4);
  if (version !== CASE_VERSION)
    throw new BadInput(
      `This code is of version ${version} of the practice cases; here they are of version ${CASE_VERSION}. Ask for a new one`,
      "code",
    );
  const composed = take(1) === 1;
  const family = CODE_FAMILIES[take(4)];
  if (!family) throw new BadInput(WRONG, "code");
  const spec = composed ? composedFrom(family, take) : drawnFrom(family, take);
  // One case has one code: what is left over says nothing.
  if (left >= 5 || caseCode(spec).replace(/-/g, "") !== digits.map((d) => DIGITS[d]).join("")) throw new BadInput(WRONG, "code");
  return spec;
}

function drawnFrom(family: Family, take: (width: number) => number): DrawnCase {
  const level = take(2);
  if (level === 0) throw new BadInput(WRONG, "code");
  return { family, level: level as Level, seed: take(20) };
}

function composedFrom(family: Family, take: (width: number) => number): ComposedCase {
  const vehicle = take(8);
  const faults = [0, 1].flatMap(() => {
    const [cause, size] = [take(7), take(3)];
    return cause === NO_FAULT ? [] : [{ cause, size: size / SIZES }];
  });
  const misleads = take(1) === 1;
  return { family, vehicle, faults, symptoms: take(30), misleads };
}
