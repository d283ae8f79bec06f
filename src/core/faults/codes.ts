import { FAMILIES } from "./families";
import type { CodeText } from "./family";

/** Our own short wording for generic codes of the families; any other code is accepted as typed. */
export const CODE_TEXTS: readonly CodeText[] = Object.values(FAMILIES).flatMap((f) => f.codes);

const find = (codes: readonly CodeText[], code: string) => codes.find((c) => c.code === code.toUpperCase());

export const codeText = (code: string): CodeText | undefined => find(CODE_TEXTS, code);

/** Codes of the vapour system that mean a leak: only the whole system proved tight answers them. */
const LEAKS: readonly string[] = ["code:evap", "code:evap-gross", "code:evap-small", "code:evap-very-small"];

/** Whether a code is one of the vapour system, on which only the car's own monitor has the last word. */
export const isVapourCode = (code: string): boolean => find(FAMILIES.evap.codes, code) !== undefined;
/** Whether a code means a leak of the vapour system: its criteria name the leak to be caught. */
export const isVapourLeak = (code: string): boolean => LEAKS.includes(codeText(code)?.observation ?? "");
