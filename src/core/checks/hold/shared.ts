import { inSentence } from "../../sentence";
import type { Layout } from "../../vehicle";
import type { Together } from "../contract";
import { jointName, type Verdict } from "../verdict";
import type { HoldRecord } from "./fields";

type Held = { readonly record: HoldRecord; readonly verdict: Verdict };

/** Branches of a supply, by the joint that they are shut off at: what leaks in one, and what ties it on. */
const branchOf = (layout: Layout, joint: string): string[] => {
  const tie = layout.joints.find((j) => j.id === joint);
  const zone = tie && tie.to !== "outside" ? tie.to : undefined;
  return zone ? [joint, ...layout.joints.filter((j) => j.from === zone).map((j) => j.id)] : [];
};

/**
 * Combined verdict of holds on one shared supply, branches shut off one at a time: it holds with a branch off that it lost its
 * vacuum with, so that branch leaks; it still loses it, so that one is cleared.
 * @param runs not void, oldest first. @returns undefined while no two can be compared.
 */
export function sharedSupply(runs: readonly Held[], layout: Layout): Together | undefined {
  const leaks = ({ verdict }: Held) => verdict.outcome === "fail";
  const off = ({ record }: Held) => record.isolated ?? [];
  const supply = runs.filter((r) => layout.joints.some((j) => j.id === r.record.joint && j.from === "vacuum-supply"));
  const whole = supply.find((r) => off(r).length === 0 && leaks(r));
  const apart = supply.filter((r) => off(r).length > 0);
  if (!whole || apart.length === 0) return undefined;
  const names = (ids: readonly string[]) => ids.map((id) => inSentence(jointName(layout, id))).join(" and ");
  const cleared = apart.filter(leaks).flatMap((r) => off(r).flatMap((id) => branchOf(layout, id)));
  const within = apart.filter((r) => r.verdict.outcome === "pass").flatMap((r) => off(r).flatMap((id) => branchOf(layout, id)));
  return {
    observation: "section-within",
    within: [...new Set(within)].filter((id) => !cleared.includes(id)),
    cleared: [...new Set(cleared)],
    says: apart.map((r) =>
      leaks(r)
        ? `it loses its vacuum with the ${names(off(r))} shut off as well: not that branch`
        : `it holds with the ${names(off(r))} shut off: that branch lets it in`,
    ),
  };
}
