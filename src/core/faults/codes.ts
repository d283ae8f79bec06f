import { FAMILIES } from "./families";
import type { CodeText } from "./family";

/** Our own short wording for generic codes of the families; any other code is accepted as typed. */
export const CODE_TEXTS: readonly CodeText[] = Object.values(FAMILIES).flatMap((f) => f.codes);

const find = (codes: readonly CodeText[], code: string) => codes.find((c) => c.code === code.toUpperCase());

export const codeText = (code: string): CodeText | undefined => find(CODE_TEXTS, code);

/** Codes of the vapour system that mean a leak: only the whole system proved tight answers them. */
const LEAKS: readonly string[] = ["code:evap", "code:evap-gross", "code:evap-small", "code:evap-very-small"];

/** Whether a code is one of the vapour system. */
const isVapourCode = (code: string): boolean => find(FAMILIES.evap.codes, code) !== undefined;
/** Codes of a wire or a signal: measured and commanded good, they want no monitor that waits for a cold night. */
const ELECTRICAL: readonly string[] = ["code:purge-circuit", "code:vent-circuit"];
const SIGNALS: readonly string[] = ["P0452", "P0453"];

/** Whether only the car's own vapour monitor has the last word on a code: a leak, a flow, a vent; not a wire. */
export const isForVapourMonitor = (code: string): boolean =>
  isVapourCode(code) && !ELECTRICAL.includes(codeText(code)?.observation ?? "") && !SIGNALS.includes(code.toUpperCase());
/** Whether a code means a leak of the vapour system: its criteria name the leak to be caught. */
export const isVapourLeak = (code: string): boolean => LEAKS.includes(codeText(code)?.observation ?? "");
