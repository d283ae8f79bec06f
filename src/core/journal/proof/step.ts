import type { Atom, CheckId } from "../../checks";
import { chargeEntries } from "../../checks/pressure-test/entries";
import { EVAP_ZONES, entriesFor, type Layout, thatTest } from "../../vehicle";
import { seemsAfter } from "./order";
import type { Missing, Obligation, ProofFacts, ProofStep, Requirement } from "./requirement";

const CHARGE: readonly string[] = ["hot-pipe", "cooler", "cold-pipe"];

/** The check that answers a set of questions, by what the first of them asks. */
function checkOf({ question, place }: Atom, layout: Layout): CheckId {
  if (question === "trim") return "trims";
  if (question === "seated") return "look";
  const from = layout.joints.find((j) => j.id === place)?.from ?? "manifold";
  return EVAP_ZONES.includes(from) ? "evap-smoke" : CHARGE.includes(from) ? "pressure-test" : "smoke";
}

/** A check of these places from a way in that gets at them: none is tested by what is let in there. */
function from(places: readonly Pick<Atom, "place">[], check: CheckId, layout: Layout): ProofStep {
  const asked = places.map((o) => o.place);
  const [entry] =
    check === "pressure-test"
      ? thatTest(layout, chargeEntries(layout), asked)
      : check === "smoke" || check === "evap-smoke"
        ? entriesFor(layout, check === "smoke" ? "intake" : "evap", asked)
        : [];
  return { check, ...(entry ? { place: entry.id } : {}) };
}

/**
 * Checks that can answer a requirement, the one to take next first: the one that failed, with its set-up, unless it was made since the
 * last work without answering; then whatever else its question may be met by.
 */
export function waysOf(
  { claim, by, answeredBy }: Requirement,
  facts: ProofFacts,
  missing: Missing,
  lacks: (atom: Atom) => boolean,
): readonly ProofStep[] {
  const { layout, evidence, lastWork } = facts;
  const own: readonly ProofStep[] = by
    ? [{ check: by.check, ...(by.part ? { place: by.part } : {}), ...(by.entry ? { again: by.entry } : {}) }]
    : answeredBy
      ? [{ check: answeredBy }]
      : claim.question === "seated"
        ? [{ check: "look" }]
        : [];
  const sets = (claim.metBy ?? []).filter((set) => set.every(({ atom }) => atom !== claim.atom) && set.length > 0);
  const others = layout ? sets.map((set): ProofStep => from(set.filter(lacks), checkOf(set[0] as Atom, layout), layout)) : [];
  const rest = others.filter((o) => !own.some((w) => w.check === o.check));
  const since = evidence.findLast((e) => e.stands && e.check === own[0]?.check && (!lastWork || seemsAfter(e.line, lastWork)));
  const inVain = missing !== "still-bad" && since !== undefined && since.verdict.outcome !== "void";
  return inVain && rest.length > 0 ? [...rest, ...own] : [...own, ...rest];
}

/** Advice on what to do next about questions that stand unanswered alike: from the way in that gets furthest, where it has one. */
export function stepFor(
  [first, ...more]: readonly [Obligation, ...Obligation[]],
  layout: Layout | undefined,
): ProofStep | undefined {
  const [way] = first.ways;
  return !way || !layout || way.place || way.again ? way : from([first, ...more], way.check, layout);
}
