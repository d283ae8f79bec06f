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
 * Changes between the last failing and the first good reading of the same question, when it was more than one thing:
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
  const same = standing.filter((e) => e.claims.some((a) => atoms.has(a.atom) || a.metBy?.flat().some((m) => atoms.has(m.atom))));
  const began = (line: Line) => line.own.from;
  const bad = same.filter((e) => says(e, "bad").length > 0 && began(e.line) < began(good.line)).at(-1);
  if (!bad) return [];
  const ms = (r: Done) => Date.parse(typeof r.at === "string" ? r.at : r.at.from);
  const between = repairs.filter((r) => !r.undone && ms(r) >= began(bad.line) && ms(r) <= began(good.line));
  const changes = between.flatMap((r) => [r.body.what, ...r.body.otherChanges]);
  if (eachOfItsOwn(between, standing, lines)) return [];
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

/**
 * Whether several repairs are each the cure of their own: every one of a confirmed finding of its own, with nothing else changed, and
 * as many kinds of reading that were bad before and good after.
 */
function eachOfItsOwn(repairs: readonly Done[], evidence: readonly Evidence[], lines: readonly Line[]): boolean {
  const findings = lines.filter((l) => l.kind === "finding") as unknown as (Line & { readonly body: Bodies["finding"] })[];
  const own = repairs.flatMap((r) => findings.find((f) => f.id === r.body.finding && f.body.confirmed)?.id ?? []);
  if (repairs.length < 2 || new Set(own).size < repairs.length || repairs.some((r) => r.body.otherChanges.length > 0))
    return false;
  const last = lines.findLast((l) => l.kind === "repair") as Line;
  const says = (e: Evidence, what: "good" | "bad") => e.claims.some((c) => c.says === what);
  const paired = [...new Set(evidence.map((e) => e.check))].filter((check) => {
    const of = evidence.filter((e) => e.check === check);
    return of.some((e) => says(e, "bad") && !isAfter(e.line, last)) && of.some((e) => says(e, "good") && isAfter(e.line, last));
  });
  return paired.length >= repairs.length;
}
