import { CHECKS, type CheckId, type Family } from "../checks";
import { codeText } from "./codes";
import { EVAP_ROWS } from "./tables/evap";

/** Whether a check is of the vapour system alone. */
const onlyVapour = (check: CheckId) => CHECKS[check].families?.every((f) => f === "evap") ?? false;

const EVAP_STORY = new Set(EVAP_ROWS.map((r) => r.observation).filter((o) => /^(code|symptom):/.test(o)));

/** Codes of the vapour system that mean a leak: only the whole system proved tight answers them. */
const LEAKS: readonly string[] = ["code:evap", "code:evap-gross", "code:evap-small", "code:evap-very-small"];

/** Whether a code is one of the vapour system, on which only the car's own monitor has the last word. */
export const isVapourCode = (code: string): boolean => EVAP_STORY.has(codeText(code)?.observation ?? "");
/** Whether a code means a leak of the vapour system: its criteria name the leak to be caught. */
export const isVapourLeak = (code: string): boolean => LEAKS.includes(codeText(code)?.observation ?? "");

/**
 * The families a job is weighed over: those its codes, symptoms and checks point at; the engine where nothing does.
 * A lean code sends to the purge valve as well, which belongs to both.
 */
export function familiesOf(story: readonly string[], checks: readonly CheckId[]): Family[] {
  const evap = story.some((o) => EVAP_STORY.has(o)) || checks.some(onlyVapour);
  const engine = story.some((o) => !EVAP_STORY.has(o)) || !evap;
  return [...(engine ? (["engine"] as const) : []), ...(evap ? (["evap"] as const) : [])];
}
