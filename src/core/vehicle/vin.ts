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
  if (!/^[A-HJ-NPR-Z0-9]{17}$/.test(characters)) return undefined;
  const sum = VIN_WEIGHTS.reduce((total, weight, i) => total + weight * (VIN_VALUES[characters[i] as string] ?? 0), 0);
  const expected = sum % 11 === 10 ? "X" : String(sum % 11);
  return { expected, matches: characters[8] === expected };
}
