import { CHECKS, type CheckContext, type CheckId } from "../checks";
import type { CheckFacts } from "../checks/check-form";
import { requiredOf } from "../checks/evap-fields";
import { inSentence } from "../sentence";
import type { Shop } from "../shop/settings";
import type { Joint } from "../vehicle";
import type { JobState } from "./state";

/** Whether the engine is warm, as the conditions have it; undefined where nobody said. */
const warmNow = (conditions: JobState["conditions"]): boolean | undefined =>
  conditions?.engine && (conditions.engine === "warm" || conditions.engine === "hot-exhaust");

/** Joints that a check can be done at on this vehicle, the most suspect first; ways in as the trade takes them. */
function likelyPlaces(kind: CheckId, { suspects }: Pick<JobState, "suspects">, context: CheckContext): readonly Joint[] {
  const places = CHECKS[kind].places?.(context) ?? [];
  // A way in hides what it is let in at: nobody goes in where the leak is thought to be.
  if (CHECKS[kind].sweeps) return places.flatMap((id) => context.layout.joints.find((j) => j.id === id) ?? []);
  const odds = (id: string) =>
    suspects.filter((s) => s.cause.joint === id || s.cause.device === id).reduce((sum, s) => sum + s.odds, 0);
  return context.layout.joints.filter((j) => places.includes(j.id)).toSorted((a, b) => odds(b.id) - odds(a.id));
}

/**
 * Where a check is proposed to be done, and why: what still has to be proved, then the best next check, then the likeliest.
 * Where that is another part than the one tested last, it is said.
 */
function proposedPlace(kind: CheckId, state: JobState, places: readonly Joint[]): CheckFacts["place"] {
  const fits = (id: string | undefined) => places.find((j) => j.id === id);
  const owed = state.proof.owed.find((o) => o.missing && o.askedBy?.check === kind && fits(o.askedBy.part));
  const next = state.next.find((n) => n.check === kind && fits(n.place));
  const before = state.checks.findLast((c) => c.check === kind && !c.onBench)?.place;
  // What a fill from one way in showed is answered from the same one.
  const again = CHECKS[kind].sweeps && fits(before) && state.proof.owed.some((o) => o.missing && o.askedBy?.check === kind);
  const [id, why] = again
    ? [before, "As it was when it failed"]
    : owed
      ? [owed.askedBy?.part, "Still to be proved"]
      : next
        ? [next.place, "The best next place for it"]
        : [places[0]?.id, state.suspects.length > 0 && !CHECKS[kind].sweeps ? "The most suspect" : ""];
  if (!id) return undefined;
  const other = before !== undefined && before !== id ? fits(before) : undefined;
  const because = [why, ...(other ? [`the last one was at the ${inSentence(other.name)}`] : [])].filter(Boolean).join("; ");
  return { id, because };
}

/** Records of a kind that failed and must be shown good yet, the oldest first. */
export function stillOwed(kind: CheckId, { checks, proof }: Pick<JobState, "checks" | "proof">): readonly object[] {
  const entries = new Set(proof.owed.flatMap((o) => (o.missing && o.askedBy?.check === kind ? [o.askedBy.entry] : [])));
  return checks.filter((c) => entries.has(c.entry)).map((c) => c.record);
}

/** The fuel level as a check stated it last, percent of the tank; none once the car was driven since. */
export function fuelLevelNow({ checks, drives }: Pick<JobState, "checks" | "drives">): number | undefined {
  const last = checks.findLast((c) => levelOf(c) !== undefined);
  if (!last) return undefined;
  const read = Date.parse(typeof last.at === "string" ? last.at : last.at.from);
  return drives.some(({ at }) => Date.parse(at) > read) ? undefined : levelOf(last);
}
const levelOf = ({ record }: { readonly record: object }) => (record as { readonly fuelLevel?: number }).fuelLevel;

/** Facts that the form of a check is not asked for, as the job stands. @param wanted the place that it was opened for, where it was. */
export function checkFacts(kind: CheckId, state: JobState, shop: Shop, context: CheckContext, wanted?: string): CheckFacts {
  const { conditions } = state;
  const places = likelyPlaces(kind, state, context);
  const asked = places.find((j) => j.id === wanted);
  const place = asked
    ? { id: asked.id, because: "Still to be proved", wanted: true as const }
    : proposedPlace(kind, state, places);
  const warm = warmNow(conditions);
  const leak = state.requiredLeak;
  const again = stillOwed(kind, state);
  const level = fuelLevelNow(state);
  return {
    context,
    instruments: shop.instruments,
    ...(conditions ? { ambient: conditions.ambient, temperature: conditions.bayTemperature } : {}),
    ...(warm === undefined ? {} : { warm }),
    ...(leak ? { required: requiredOf(leak) } : {}),
    ...(level === undefined ? {} : { fuelLevel: level }),
    places,
    ...(place ? { place } : {}),
    ...(again.length > 0 ? { again } : {}),
  };
}
