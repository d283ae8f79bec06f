import type { CheckId } from "../checks";
import type { Family } from "./causes";
import { EVAP_ROWS } from "./tables/evap";

/** Checks that only the vapour system has. */
const EVAP_CHECKS: readonly CheckId[] = ["evap-smoke", "decay", "pulldown", "vent-path", "cap", "tank-sensor"];

const EVAP_STORY = new Set(EVAP_ROWS.map((r) => r.observation).filter((o) => /^(code|symptom):/.test(o)));

/**
 * The families a job is weighed over: those its codes, symptoms and checks point at; the engine where nothing does.
 * A lean code sends to the purge valve as well, which belongs to both.
 */
export function familiesOf(story: readonly string[], checks: readonly CheckId[]): Family[] {
  const evap = story.some((o) => EVAP_STORY.has(o)) || checks.some((c) => EVAP_CHECKS.includes(c));
  const engine = story.some((o) => !EVAP_STORY.has(o)) || !evap;
  return [...(engine ? (["engine"] as const) : []), ...(evap ? (["evap"] as const) : [])];
}
