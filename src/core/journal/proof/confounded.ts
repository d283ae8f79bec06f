import type { Bodies } from "../entries";
import type { At } from "../envelope";
import type { Evidence } from "./evidence";
import { isAfter, type Line } from "./order";

/** A repair, when it was done, and whether it was taken back. */
interface Done {
  readonly at: At;
  readonly body: Bodies["repair"];
  readonly undone: boolean;
}

/**
 * What changed between the last failing and the first good reading of the same question, when it was more than one thing:
 * the fault is cured, its cause unproved. A change taken back for a check settles it: bad again, it was the cure; still
 * good, it was not.
 */
export function confoundedChanges(evidence: readonly Evidence[], repairs: readonly Done[], lines: readonly Line[]): string[] {
  const last = lines.findLast((l) => l.kind === "repair");
  if (!last) return [];
  const standing = evidence.filter((e) => e.stands);
  const says = (e: Evidence, what: "good" | "bad") => e.claims.filter((a) => a.says === what).map((a) => a.atom);
  const good = standing.find((e) => isAfter(e.line, last) && e.verdict.outcome === "pass" && says(e, "good").length > 0);
  if (!good) return [];
  const atoms = new Set(good.claims.map((a) => a.atom));
  const same = standing.filter((e) => e.claims.some((a) => atoms.has(a.atom) || a.metBy?.flat().some((m) => atoms.has(m))));
  const began = (line: Line) => line.own.from;
  const bad = same.filter((e) => says(e, "bad").length > 0 && began(e.line) < began(good.line)).at(-1);
  if (!bad) return [];
  const ms = (r: Done) => Date.parse(typeof r.at === "string" ? r.at : r.at.from);
  const changes = repairs
    .filter((r) => !r.undone && ms(r) >= began(bad.line) && ms(r) <= began(good.line))
    .flatMap((r) => [r.body.what, ...r.body.otherChanges]);
  let open = [...changes];
  const displaced = lines.filter((l) => l.kind === "displaced") as unknown as (Line & { readonly body: Bodies["displaced"] })[];
  for (const item of displaced) {
    const { swappedBack } = item.body;
    if (!swappedBack || !changes.includes(swappedBack)) continue;
    const back = lines.find((l) => l.kind === "restored" && (l.body as Bodies["restored"]).item === item.id);
    const until = back?.own.from ?? Number.POSITIVE_INFINITY;
    const tried = same.find((e) => began(e.line) >= item.own.from && began(e.line) <= until && e.verdict.outcome !== "void");
    if (tried?.verdict.outcome === "fail") return [];
    if (tried?.verdict.outcome === "pass") open = open.filter((c) => c !== swappedBack);
  }
  return open.length > 1 ? open : [];
}
