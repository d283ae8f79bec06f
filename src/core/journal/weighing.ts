import { CHECKS, type CheckContext } from "../checks";
import { causesOf, codeObservations } from "../faults";
import {
  CODES_STAY_AWAY,
  COMPLAINT_SEEN,
  type Evidence,
  familiesOf,
  nextSteps,
  type Tally,
  triedNot,
  weighSuspects,
  weighTogether,
  withExperience,
} from "../suspects";
import type { CheckState, JobState } from "./state";

/** What the customer and the codes say, before anything was measured. */
export function told(
  { vehicle }: Pick<CheckContext, "vehicle">,
  { codes, ownCodes, story }: Pick<JobState, "codes" | "ownCodes" | "story">,
): Evidence[] {
  const chased = codes.filter((c) => !c.asideReason && !ownCodes.some((own) => own.code === c.code.toUpperCase()));
  return [
    ...codeObservations(
      chased.map((c) => c.code),
      vehicle.banks,
    ).map((observation) => ({ observation, entry: "codes" })),
    ...(story?.symptoms ?? []).map((s) => ({ observation: `symptom:${s}`, entry: "story" })),
  ];
}

/**
 * Weighs the suspects and ranks what to do next. After a repair that checks have answered, what the repaired cause
 * explained is retired; what it did not explain, and all that came since, is weighed anew, so a second cause shows.
 */
export function judgeSuspects(
  context: CheckContext,
  state: Pick<
    JobState,
    | "codes"
    | "ownCodes"
    | "checks"
    | "story"
    | "repairs"
    | "findings"
    | "sections"
    | "offCar"
    | "conditions"
    | "complaint"
    | "tried"
    | "proof"
  >,
  experience: Tally | undefined,
): Pick<JobState, "suspects" | "next" | "byHand" | "retired"> {
  const { vehicle, layout } = context;
  const telling = (list: readonly CheckState[]) =>
    list.filter((c) => c.verdict.outcome !== "void" && c.verdict.observation !== undefined);
  // A reading of the whole engine taken again says the same once; of another place it is its own.
  const once = (list: readonly CheckState[]) =>
    list.filter(
      (c, i) =>
        c.tested.length > 0 ||
        !list.some((d, k) => k > i && d.check === c.check && d.verdict.observation === c.verdict.observation),
    );
  const fromChecks = (list: readonly CheckState[]): Evidence[] =>
    once(telling(list)).flatMap((c) =>
      [c.verdict.observation as string, ...(c.verdict.also ?? [])].map((observation) => ({
        observation,
        entry: c.entry,
        tested: c.tested,
      })),
    );
  const sinceRepair = state.checks.filter((c) => c.afterRepair === "after");
  const answered =
    state.repairs.some((r) => !r.undone) && sinceRepair.some((c) => c.verdict.outcome === "pass" || c.verdict.outcome === "fail");
  const story = told(context, state);
  const families = familiesOf(
    story.map((e) => e.observation),
    state.checks.map((c) => c.check),
  );
  const causes = withExperience(causesOf(layout, vehicle, families), experience);
  const sections: Evidence[] = state.sections?.within.length
    ? [{ observation: state.sections.observation, entry: "sections", tested: state.sections.within }]
    : [];
  const before = [...story, ...fromChecks(state.checks.filter((c) => c.afterRepair !== "after"))];
  const repaired = new Set(state.findings.filter((f) => f.repairedBy).map((f) => f.body.joint));
  const isRepaired = (c: { readonly id: string; readonly joint?: string }) => repaired.has(c.id) || repaired.has(c.joint ?? "");

  // With nothing repaired, what became of complaint and codes says whether anything is there at all.
  const untouched: Evidence[] = state.repairs.some((r) => !r.undone)
    ? []
    : [
        ...(state.complaint ? [{ observation: COMPLAINT_SEEN[state.complaint.result], entry: "complaint" }] : []),
        ...(state.proof.codes.length > 0 && state.proof.codes.every((c) => c.quiet)
          ? [{ observation: CODES_STAY_AWAY, entry: "codes" }]
          : []),
      ];
  const byHand = state.tried.map(({ entry, cause }): Evidence => ({ observation: triedNot({ id: cause }), entry }));
  let evidence = [...before, ...sections, ...untouched, ...byHand];
  const retired: string[] = [];
  let open = causes;
  if (answered) {
    // What a repaired cause made likelier than the average suspect did is explained by it.
    const explained = new Set(
      weighSuspects(causes, before)
        .filter((s) => isRepaired(s.cause))
        .flatMap((s) => s.because.filter((b) => b.factor >= 1).map((b) => `${b.entry} ${b.observation}`)),
    );
    // A complaint that remains is not explained by what was repaired.
    const remains = state.complaint?.afterRepair === "after" && state.complaint.result === "remains";
    const stays = (e: Evidence) =>
      (remains && e.observation.startsWith("symptom:")) || !explained.has(`${e.entry} ${e.observation}`);
    retired.push(...before.filter((e) => !stays(e)).map((e) => e.observation));
    evidence = [...before.filter(stays), ...fromChecks(sinceRepair), ...sections, ...byHand];
    open = causes.map((c) => (isRepaired(c) ? { ...c, repaired: true as const } : c));
  }
  const entries = new Set(state.checks.map((c) => c.entry));
  const suspects = weighTogether(open, evidence, (e) => entries.has(e.entry));
  const done = (answered ? sinceRepair : state.checks)
    .filter((c) => !CHECKS[c.check].repeats?.(c.verdict))
    .map((c) => ({
      check: c.check,
      tested: c.tested,
      ...(c.place ? { place: c.place } : {}),
      ...(c.verdict.outcome === "void" || c.verdict.observation === undefined ? { void: true as const } : {}),
    }));
  const standing = state.offCar.filter((i) => i.open && i.commanded).map((i) => i.what);
  const engine = state.conditions?.engine;
  const rich =
    telling(state.checks)
      .findLast((c) => c.tested.length === 0)
      ?.verdict.observation?.startsWith("rich-") ?? false;
  const now = { standing, rich, tried: state.tried.filter((t) => t.just).map((t) => t.cause), ...(engine ? { engine } : {}) };
  const steps = nextSteps(suspects, context, done, now, families);
  return {
    // Where nothing was told, read or measured there is nothing to explain: what cars mostly have is no suspicion of this one.
    suspects: evidence.length === 0 && retired.length === 0 ? [] : suspects,
    next: steps.checks,
    ...(steps.byHand && evidence.length > 0 ? { byHand: steps.byHand } : {}),
    retired,
  };
}
