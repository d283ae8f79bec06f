import { CHECKS, type CheckId } from "../checks";
import { FAMILIES, FAMILY_IDS, type Family } from "../faults";

/**
 * The families a job is weighed over: those its codes, symptoms and checks point at; the engine where nothing does.
 * A lean code sends to the purge valve as well, which belongs to both.
 */
export function familiesOf(story: readonly string[], checks: readonly CheckId[]): Family[] {
  const pointed = FAMILY_IDS.filter((id) => {
    const { rows, alsoOn = [] } = FAMILIES[id];
    const told = story.some((o) => rows[o] !== undefined || alsoOn.includes(o));
    return told || checks.some((check) => CHECKS[check].families?.every((f) => f === id) ?? false);
  });
  const unknown = story.some((o) => FAMILY_IDS.every((id) => FAMILIES[id].rows[o] === undefined));
  return pointed.length === 0 || unknown ? FAMILY_IDS.filter((id) => id === "engine" || pointed.includes(id)) : pointed;
}
