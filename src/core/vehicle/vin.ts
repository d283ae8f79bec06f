const VIN = /^[A-HJ-NPR-Z0-9]{17}$/;
/** Whether a text is a whole VIN (ISO 3779): 17 signs, without I, O and Q. */
export const isVin = (text: string): boolean => VIN.test(text.trim().toUpperCase());
const VIN_VALUES: Record<string, number> = Object.fromEntries([
  ..."0123456789".split("").map((c) => [c, Number(c)]),
  ..."ABCDEFGH".split("").map((c, i) => [c, i + 1]),
  ..."JKLMN".split("").map((c, i) => [c, i + 1]),
  ["P", 7],
  ["R", 9],
  ..."STUVWXYZ".split("").map((c, i) => [c, i + 2]),
]);
const VIN_WEIGHTS = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];

/**
 * Check digit of a VIN (49 CFR 565.15): what position 9 should read.
 * @returns undefined when the text is not 17 VIN characters; many markets do not use the digit, so it is only shown.
 */
export function vinCheckDigit(vin: string): { expected: string; matches: boolean } | undefined {
  const characters = vin.trim().toUpperCase();
  if (!VIN.test(characters)) return undefined;
  const sum = VIN_WEIGHTS.reduce((total, weight, i) => total + weight * (VIN_VALUES[characters[i] as string] ?? 0), 0);
  const expected = sum % 11 === 10 ? "X" : String(sum % 11);
  return { expected, matches: characters[8] === expected };
}

/** Whether a VIN is of a market in which position 9 is a check digit (first character 1 to 5). */
export const usesCheckDigit = (vin: string): boolean => /^[1-5]/.test(vin.trim());

/** Model years by the letter or digit at position 10, from 1980 (49 CFR 565.15, table VII); they begin anew after thirty years. */
const YEAR_CODES = "ABCDEFGHJKLMNPRSTVWXY123456789";
const FIRST_YEAR = 1980;

/**
 * Model year that a VIN states: position 10, a letter at position 7 telling 2010 and later from the thirty years before
 * (49 CFR 565.15, cars and light trucks). Only where the first character is one of a market that uses it (1 to 5) and the check
 * digit fits: elsewhere position 10 is the maker's own.
 * @returns undefined where the VIN says nothing of it.
 */
export function vinModelYear(vin: string): number | undefined {
  const characters = vin.trim().toUpperCase();
  if (!usesCheckDigit(characters) || !vinCheckDigit(characters)?.matches) return undefined;
  const code = YEAR_CODES.indexOf(characters[9] as string);
  if (code < 0) return undefined;
  return FIRST_YEAR + code + (/[A-Z]/.test(characters[6] as string) ? YEAR_CODES.length : 0);
}

/** The VIN within a text: the one it is labelled as, or the only word of it that can be one. */
export function vinIn(text: string): string | undefined {
  const labelled = /\bVIN\b[^A-Z0-9]*([A-HJ-NPR-Z0-9]{17})(?![A-Z0-9])/i.exec(text)?.[1];
  if (labelled) return labelled.toUpperCase();
  const words = (text.match(/\b[A-HJ-NPR-Z0-9]{17}\b/g) ?? []).filter((word) => /[A-Z]/.test(word) && /\d/.test(word));
  return new Set(words).size === 1 ? words[0] : undefined;
}
