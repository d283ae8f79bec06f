import { atomOf, type CheckId, type Claim, isUnder } from "../../checks";
import type { Bodies } from "../entries";
import type { Evidence } from "./evidence";
import { isAfter, type Line, seemsAfter } from "./order";
import type { Asker, Missing, Obligation, ProofFacts, Requirement } from "./requirement";
import { waysOf } from "./step";
import { type Taken, type Touch, touchInTheWay } from "./touches";

type Saying = { readonly of: Evidence; readonly claim: Claim };

/** Whether a reading was taken while an old part was back in to learn the cause: what fails then is diagnosis, and asks for nothing. */
const whileSwapped = (of: Evidence, touches: readonly Touch[]) =>
  touches.some(
    (t) =>
      t.work && t.began.kind === "displaced" && isAfter(of.line, t.began) && (!t.ended || of.line.own.to <= t.ended.own.from),
  );

/** Obligations from failing records: every atom they called bad, and what they left open beside it. */
export function requirementsOf({ evidence, touches, aside }: ProofFacts): Requirement[] {
  const requirements = new Map<string, { claim: Claim; by: Asker; bads: Evidence[] }>();
  for (const of of evidence) {
    const names = of.claims.some((a) => a.says === "bad");
    // One that failed and could not say where leaves everything open that it put to the test.
    const failing = names || (of.verdict.outcome === "fail" && of.claims.length > 0);
    if (!failing || aside.has(of.line.id) || whileSwapped(of, touches)) continue;
    for (const claim of of.claims) {
      if (claim.says === "good") continue;
      const known = requirements.get(claim.atom);
      const by = { check: of.check, ...(of.part ? { part: of.part } : {}), entry: of.line.id };
      const requirement = known ?? { claim, by, bads: [] };
      if (claim.says === "bad" || !names) requirement.bads.push(of);
      requirements.set(
        claim.atom,
        claim.says === "bad" && known && (known.bads.length === 0 || known.by.check === of.check)
          ? { ...requirement, ...(known.bads.length === 0 ? { claim } : {}), by }
          : requirement,
      );
    }
  }
  return [...requirements.values()];
}

/** Looks for what answers each requirement. Good counts that began after every touch that matters and after every bad. */
export function settle(requirements: readonly Requirement[], facts: ProofFacts): Obligation[] {
  const says = new Map<string, { good: Saying[]; bad: Saying[]; open: Saying[] }>();
  for (const of of facts.evidence) {
    for (const claim of of.claims) {
      if (claim.says !== "bad" && !of.stands) continue;
      const list = says.get(claim.atom) ?? { good: [], bad: [], open: [] };
      list[claim.says].push({ of, claim });
      says.set(claim.atom, list);
    }
  }
  const ofAtom = (atom: string) => says.get(atom) ?? { good: [], bad: [], open: [] };
  const ordered = new Map(facts.orders.map((o) => [o.body.entry, o.body.before]));
  // A failing record that was put before a repair by hand is before all that surely came after that repair.
  const isPast = (good: Taken, bad: Taken) => {
    if (isAfter(good.line, bad.line)) return true;
    const repair = ordered.get(bad.line.id);
    return repair !== undefined && facts.touches.some((t) => t.began.id === repair && t.ended && isAfter(good.line, t.ended));
  };
  type Answer =
    | { readonly ok: true }
    | {
        readonly ok: false;
        readonly missing: Missing;
        readonly because?: string;
        readonly saidBy?: CheckId;
        readonly unordered?: string;
      };
  const answer = (atom: string, requirement: Requirement): Answer => {
    const { good, bad, open } = ofAtom(atom);
    const bads = [
      ...requirement.bads,
      ...bad.filter((b) => !facts.aside.has(b.of.line.id) && !whileSwapped(b.of, facts.touches)).map((b) => b.of),
    ];
    // The conditions that it failed under, each as large as the fault was: of the same question alone.
    const conditions = [
      ...bad.filter((b) => bads.includes(b.of)).map((b) => ({ by: b.of.check, windows: b.claim.under ?? [] })),
      // What a failing record left open beside it, and what a code asks for, whoever shows it.
      { by: requirement.by?.check, windows: requirement.claim.under ?? [] },
    ].filter((c) => c.windows.length > 0);
    const shown: Saying[] = [];
    // Seen at a place, it is answered by looking there again, or by work there since: a reading from afar passes above it.
    const atPlace = bad.filter((b) => b.claim.byEye && bads.includes(b.of));
    const worked = (b: Saying) =>
      facts.touches.some(
        (t) => t.work && isAfter(t.began, b.of.line) && (t.places === undefined || t.places.includes(b.claim.place)),
      );
    const looked = (g: Saying) =>
      (g.claim.byEye === true || atPlace.every(worked)) &&
      (!g.claim.afterWork || bad.filter((b) => bads.includes(b.of)).every(worked));
    let touched: Touch | undefined;
    let lateBad: Taken | undefined;
    let unordered = false;
    for (const g of good.toReversed()) {
      const behind = bads.filter((b) => !isPast(g.of, b));
      const inTheWay =
        touchInTheWay(g.of, g.claim, facts.touches, facts.joints) ??
        touchInTheWay(g.of, requirement.claim, facts.touches, facts.joints);
      if (behind.length === 0 && !inTheWay && looked(g)) shown.push(g);
      if (behind.length > 0 && !inTheWay && behind.every((b) => seemsAfter(g.of.line, b.line))) lateBad ??= behind[0];
      // A reading that only seems to come after a touch: its device had not seen it, or its time was changed across it.
      if (inTheWay?.ended && seemsAfter(g.of.line, inTheWay.ended)) unordered = true;
      else if (inTheWay && behind.length === 0) touched ??= inTheWay;
    }
    // Another check has conditions of its own.
    const answers = (s: Saying, { by, windows }: (typeof conditions)[number]) =>
      (by !== undefined && s.of.check !== by) || isUnder(s.claim.at ?? [], windows);
    const elsewhere = conditions.find((c) => !shown.some((s) => answers(s, c)));
    if (shown.length > 0 && !elsewhere) return { ok: true };
    const since = (t: Taken) => !facts.lastWork || seemsAfter(t.line, facts.lastWork);
    const worst = bad.findLast((b) => b.of.stands && since(b.of) && !ordered.has(b.of.line.id));
    if (worst) return { ok: false, missing: "still-bad", because: worst.of.verdict.headline, saidBy: worst.of.check };
    if (lateBad) return { ok: false, missing: "late-bad", unordered: lateBad.line.id };
    if (unordered) return { ok: false, missing: "order-unknown" };
    if (touched) return { ok: false, missing: "touched", because: touched.words };
    if (shown.length > 0 && elsewhere)
      return { ok: false, missing: "elsewhere", because: elsewhere.windows.map((w) => w.words).join(", ") };
    const unsure = open.findLast((o) => since(o.of) && o.of.verdict.outcome !== "fail");
    if (unsure) {
      const { outcome, reasons, headline } = unsure.of.verdict;
      // What a passing record left open it did not get to: its reasons are of what it cleared.
      const because = outcome === "pass" ? "it passed, and did not get there" : (reasons[0] ?? headline);
      return { ok: false, missing: "not-sure", because, saidBy: unsure.of.check };
    }
    const isVoid = facts.evidence.findLast(
      (e) =>
        e.stands &&
        since(e) &&
        e.verdict.outcome === "void" &&
        e.check === requirement.by?.check &&
        e.part === requirement.by.part,
    );
    const why = isVoid?.verdict.reasons[0];
    return isVoid
      ? { ok: false, missing: "void", ...(why ? { because: why } : {}), saidBy: isVoid.check }
      : { ok: false, missing: "never" };
  };
  return requirements.map((asked): Obligation => {
    const requirement = { ...asked, claim: onThisCar(asked.claim, facts) };
    const { question, place, state, words, about } = requirement.claim;
    const base = {
      ...atomOf(question, place, state),
      words,
      ...(about ? { about } : {}),
      ...(requirement.answeredBy ? { answeredBy: requirement.answeredBy } : {}),
      ...(requirement.by ? { askedBy: requirement.by } : {}),
    };
    let first: Answer | undefined;
    for (const set of requirement.claim.metBy ?? [[requirement.claim]]) {
      const lacking = set.map(({ atom }) => answer(atom, requirement)).filter((a) => !a.ok);
      if (lacking.length === 0) return { ...base, ways: [] };
      first ??= lacking[0];
    }
    if (!first || first.ok) return { ...base, ways: [] };
    const { missing, because, saidBy, unordered } = first;
    const ways = waysOf(requirement, facts, missing, ({ atom }) => !answer(atom, requirement).ok);
    return {
      ...base,
      ways,
      missing,
      ...(because ? { because } : {}),
      ...(saidBy ? { saidBy } : {}),
      ...(unordered ? { unordered } : {}),
    };
  });
}

/**
 * A question about a joint that the car, as it is described now, has under another name: one gasket is one of each bank, and the
 * other way round. What this car has not got at all stays as it was asked: described otherwise, a fault is not gone.
 */
function onThisCar(claim: Claim, { joints, banks }: Pick<ProofFacts, "joints" | "banks">): Claim {
  const { question, place, state } = claim;
  // The second bank of an engine that is known to have one is that one.
  if (banks === 1 && place === "bank2") return { ...claim, metBy: [[atomOf(question, "bank1", state)]] };
  if (joints.size === 0 || joints.has(place)) return claim;
  const names = [`${place}-1`, `${place}-2`, place.replace(/-[12]$/, "")].filter((id) => joints.has(id));
  return names.length === 0 ? claim : { ...claim, metBy: [names.map((id) => atomOf(question, id, state))] };
}

/** Places that were taken off or plugged and put back: each must be seen seated, or shown by a reading since. */
export function disturbed(lines: readonly Line[], touches: readonly Touch[], claim: (joint: string) => Claim): Requirement[] {
  const seen = new Set(
    (lines.filter((l) => l.kind === "restored") as unknown as (Line & { readonly body: Bodies["restored"] })[])
      .filter((l) => l.body.seated)
      .map((l) => l.body.item),
  );
  const last = new Map<string, Touch>();
  for (const touch of touches) {
    const [place] = touch.places ?? [];
    if (touch.off && place && touch.ended) last.set(place, touch);
  }
  return [...last].flatMap(([place, touch]) => (seen.has(touch.began.id) ? [] : [{ claim: claim(place), bads: [] }]));
}
