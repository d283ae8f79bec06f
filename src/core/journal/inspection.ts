import { CHECK_IDS, CHECKS, type CheckContext } from "../checks";
import type { NextCheck } from "../suspects";
import type { CheckState, Inspection, InspectionStep } from "./state";

/** Every circuit that an inspection may cover, those that are read on a standing engine first. */
const STEPS = CHECK_IDS.flatMap((check) => {
  const { inspects, engine } = CHECKS[check];
  return inspects ? [{ check, engine, ...inspects }] : [];
}).toSorted((a, b) => Number(a.engine !== "standing") - Number(b.engine !== "standing"));

/** The routine of an inspection on this vehicle: what the shop offers and the car has, read already or not yet. */
export function inspectionOf(
  context: CheckContext,
  checks: readonly Pick<CheckState, "check" | "verdict" | "onBench">[],
): Inspection {
  const { inspection } = context.house;
  const steps = STEPS.filter((s) => s.by.includes(inspection) && !CHECKS[s.check].unfit?.(context));
  const read = (s: InspectionStep) => checks.some((c) => c.check === s.check && !c.onBench && c.verdict.outcome !== "void");
  const bare = ({ circuit, check }: InspectionStep) => ({ circuit, check });
  return { done: steps.filter(read).map(bare), left: steps.filter((s) => !read(s)).map(bare) };
}

/** What comes next in an inspection: its routine first, then what the evidence asks for. */
export function inspectNext({ done, left }: Inspection, ranked: readonly NextCheck[]): NextCheck[] {
  const all = done.length + left.length;
  const routine = left.map((step, i): NextCheck => {
    const known = ranked.find((n) => n.check === step.check);
    const { minutes } = STEPS.find((s) => s.check === step.check) as (typeof STEPS)[number];
    return {
      bits: 0,
      minutes,
      toCause: 0,
      ...known,
      check: step.check,
      name: CHECKS[step.check].name,
      why: `${step.circuit}, ${done.length + i + 1} of ${all} circuits of the inspection, about ${minutes} min`,
    };
  });
  return [...routine, ...ranked.filter((n) => !left.some((s) => s.check === n.check))];
}
