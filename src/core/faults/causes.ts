import type { Layout, VehicleFacts } from "../vehicle";
import type { Cause } from "./cause";
import { FAMILIES, FAMILY_IDS, type Family } from "./families";
import type { Trait } from "./trait";

/** How often, `priors` says: it is met among the cars of every family alike. */
const HEALTHY: Cause = { id: "healthy", name: "Nothing wrong now", trait: "healthy", prior: 0 };

/** How often the trade meets a leak at a joint that no cause names by itself. */
const UNNAMED = 0.7;

/** A joint that can leak is a suspect, even where nobody thought of naming it. */
const unnamedLeaks = (layout: Layout, known: ReadonlyMap<string, Cause>, families: readonly Family[]): Cause[] =>
  layout.joints
    .filter((j) => !known.has(j.id) && (j.kind === "seal" || j.kind === "pipe"))
    .flatMap((j) => {
      const trait = families.map((f) => FAMILIES[f].leaksInto[j.from]).find((t) => t !== undefined);
      return trait ? [{ id: j.id, name: `${j.name} leaks`, trait, joint: j.id, prior: UNNAMED }] : [];
    });

/** The causes this vehicle can have, of the families a job is weighed over. */
export function causesOf(layout: Layout, vehicle: VehicleFacts, families: readonly Family[] = ["engine"]): Cause[] {
  const joints = new Set(layout.joints.map((j) => j.id));
  const fitted = FAMILY_IDS.filter((id) => families.includes(id) && FAMILIES[id].fitted(vehicle));
  const causes = new Map<string, Cause>();
  for (const cause of [...fitted.flatMap((id) => FAMILIES[id].causes(vehicle)), HEALTHY]) {
    const known = causes.get(cause.id);
    // A cause of two families is one cause, as likely as where it is met most.
    if (!cause.joint || joints.has(cause.joint)) causes.set(cause.id, known && known.prior > cause.prior ? known : cause);
  }
  for (const cause of unnamedLeaks(layout, causes, fitted)) causes.set(cause.id, cause);
  return [...causes.values()];
}

/** A seal of the cabin: no gas path of the engine ends there. */
export const CABIN_SEAL = { id: "cabin-seal", name: "Door, window or tailgate seal" } as const;

/** Places a finding can be at: the joints of the map, and causes that are no joint by themselves. */
export function findingPlaces(layout: Layout, vehicle: VehicleFacts): { readonly id: string; readonly name: string }[] {
  const joints = new Set(layout.joints.map((j) => j.id));
  const others = causesOf(layout, vehicle, FAMILY_IDS).filter((c) => !joints.has(c.id) && c.trait !== "healthy");
  return [...layout.joints, ...others, CABIN_SEAL].map(({ id, name }) => ({ id, name }));
}

/** Minutes to confirm a suspect by hand, by trait. */
export const CONFIRM_MINUTES = Object.assign({ healthy: 0 }, ...Object.values(FAMILIES).map((f) => f.confirmMinutes)) as Readonly<
  Record<Trait, number>
>;

/** Traits that the engine's own readings do not show. */
export const APART: readonly Trait[] = Object.values(FAMILIES)
  .filter((f) => f.apart)
  .flatMap((f) => Object.keys(f.confirmMinutes) as Trait[]);
