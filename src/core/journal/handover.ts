import { CHECK_IDS, CHECKS, type CheckId, type Measure, type Verdict, verdictWord } from "../checks";
import type { CheckState, JobState } from "./state";

/** One check before and after the repair, as the customer reads it. */
export interface Comparison {
  readonly check: CheckId;
  readonly name: string;
  /** One comparison of a page from another */
  readonly key: string;
  readonly before?: Summary;
  readonly after?: Summary;
}
export interface Summary {
  readonly word: string;
  readonly headline: string;
  readonly at: string;
  readonly measures: readonly Measure[];
}

/** What the handover page says, worked out once for screen, print and PDF. */
export interface Handover {
  readonly comparisons: readonly Comparison[];
  readonly unproved: readonly string[];
  readonly temporary: readonly { readonly what: string; readonly recheck: string }[];
  readonly setAside: readonly { readonly code: string; readonly reason: string }[];
  readonly untested: readonly string[];
}

const summary = (c: CheckState): Summary => ({
  word: verdictWord(CHECKS[c.check], c.verdict),
  headline: c.verdict.headline,
  at: typeof c.at === "string" ? c.at : c.at.from,
  measures: c.verdict.measures,
});

const MERE_PLACES: readonly CheckId[] = ["pinch", "look"];
/** Kinds that judge one part: each part is compared with itself. */
const ONE_PART: readonly CheckId[] = ["hold", "valve", "output", "circuit", "borescope", "pinch", "cap"];

const telling = (v: Verdict) => v.outcome === "fail" || v.outcome === "pass";

/** The page's contents from a job's state: before and after by check, what is unproved, temporary, set aside, untested. */
export function handoverOf(job: JobState): Handover {
  // What was measured comes before what was only seen or shut off.
  const kinds = CHECK_IDS.toSorted((a, b) => Number(MERE_PLACES.includes(a)) - Number(MERE_PLACES.includes(b)));
  const comparisons = kinds.flatMap((check): Comparison[] => {
    const ofKind = job.checks.filter((c) => c.check === check && !c.onBench && telling(c.verdict));
    const parts = ONE_PART.includes(check) ? [...new Set(ofKind.map((c) => c.place ?? ""))] : [""];
    return parts.flatMap((part): Comparison[] => {
      const all = part ? ofKind.filter((c) => c.place === part) : ofKind;
      const before = all.filter((c) => c.afterRepair === "before" || c.afterRepair === "no-repair");
      const shown = before.findLast((c) => c.verdict.outcome === "fail") ?? before.at(-1);
      const after = all.findLast((c) => c.afterRepair === "after");
      // A clean look tells the customer nothing.
      if (check === "look" && shown?.verdict.outcome !== "fail") return [];
      if (!shown && !after) return [];
      return [
        {
          check,
          name: CHECKS[check].name,
          key: `${check} ${part}`,
          ...(shown ? { before: summary(shown) } : {}),
          ...(after ? { after: summary(after) } : {}),
        },
      ];
    });
  });
  return {
    comparisons,
    unproved: [
      ...job.blocks.close.filter((b) => b.station === "prove").map((b) => b.reason),
      ...(job.confounded.length > 0 ? [`Cured, cause unproved: changed together were ${job.confounded.join("; ")}`] : []),
    ],
    temporary: job.repairs
      .filter((r) => !r.undone && r.body.permanence === "temporary")
      .map((r) => ({ what: r.body.what, recheck: r.body.recheck ?? "" })),
    setAside: job.codes.flatMap((c) => (c.asideReason ? [{ code: c.code, reason: c.asideReason }] : [])),
    untested: [...new Set(job.zones.filter((z) => z.state === "not-reached").map((z) => z.zone))],
  };
}
