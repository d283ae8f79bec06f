import type { CheckContext } from "../checks";
import { isImported } from "./origin";
import { isAfter, type Line, type Touch } from "./proof";
import type { CheckState, JobState } from "./state";

/**
 * Verdict on each zone: the newest word of a check that is not void, as long as nothing of the zone was touched since.
 * A leak found before the work is repaired, not proved; "not reached" never wipes out what an earlier check did prove.
 */
export function zoneKnowledge(
  checks: readonly CheckState[],
  lines: readonly Line[],
  touches: readonly Touch[],
  lastWork: Line | undefined,
  context: CheckContext | undefined,
): JobState["zones"] {
  const known = new Map<string, JobState["zones"][number]>();
  const byId = new Map(lines.map((l) => [l.id, l]));
  for (const check of checks) {
    for (const zone of check.verdict.zones) {
      if (zone.state === "not-reached" && known.has(zone.zone)) continue;
      known.set(zone.zone, { ...zone, entry: check.entry });
    }
  }
  const joints = new Map(context?.layout.joints.map((j) => [j.id, j]) ?? []);
  for (const [zone, knowledge] of known) {
    const line = byId.get(knowledge.entry);
    if (!line || knowledge.state === "not-reached") continue;
    if (knowledge.state === "leaking") {
      const repaired = lastWork && !isAfter(line, lastWork) && checks.find((c) => c.entry === line.id)?.afterRepair !== "after";
      if (repaired)
        known.set(zone, { ...knowledge, state: "not-reached", why: `${knowledge.why}; repaired since, not proved yet` });
      continue;
    }
    if (knowledge.state !== "tight") continue;
    if (isImported(line)) {
      known.set(zone, { ...knowledge, state: "not-reached", why: `${knowledge.why}; in another shop, not proved here` });
      continue;
    }
    const touch = touches.find((t) => {
      if (t.own || (t.ended && isAfter(line, t.ended))) return false;
      return !t.places || t.places.some((p) => joints.get(p)?.from === zone || joints.get(p)?.to === zone);
    });
    if (touch) known.set(zone, { ...knowledge, state: "not-reached", why: `${knowledge.why}; touched since: ${touch.words}` });
  }
  return [...known.values()];
}
