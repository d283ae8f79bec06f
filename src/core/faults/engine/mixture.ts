import { codeText } from "../codes";

/** Codes that mean a lean bank, by bank. */
const LEAN_BANKS: Record<string, 1 | 2> = { P0171: 1, P2187: 1, P2177: 1, P0174: 2, P2189: 2 };

/** Codes of the mixture, lean or rich, by the bank they name. */
const MIXTURE_BANKS: Record<string, 1 | 2> = { ...LEAN_BANKS, P0172: 1, P2178: 1, P2188: 1, P0175: 2, P2190: 2 };

/** Banks whose correction a code speaks of; a lean code that names none speaks of all. */
export function mixtureBanks(code: string, banks: 1 | 2): number[] {
  const own = MIXTURE_BANKS[code.toUpperCase()];
  if (own !== undefined) return own <= banks ? [own] : [1];
  return codeText(code)?.observation === "code:lean" ? Array.from({ length: banks }, (_, i) => i + 1) : [];
}

/** Codes that only an engine with a second bank can set: its mixture, its sensors (P015x, P016x), its catalyst. */
export const isOfSecondBank = (code: string): boolean =>
  MIXTURE_BANKS[code.toUpperCase()] === 2 || /^P0(15\d|16[0-7]|43[0-4])$/i.test(code);

/** Observations from a set of codes: each observation once; lean on one of two banks is its own observation. */
export function codeObservations(codes: readonly string[], banks: 1 | 2): string[] {
  const found = new Set(codes.flatMap((c) => codeText(c)?.observation ?? []));
  const lean = new Set(codes.flatMap((c) => LEAN_BANKS[c.toUpperCase()] ?? []));
  if (banks === 2 && lean.size === 1) {
    found.delete("code:lean");
    found.add("code:one-bank-lean");
  }
  return [...found];
}
