import { canonicalJson } from "../canonical";
import { type CheckContext, judgeCheck, type Verdict, voidVerdict } from "../checks";
import type { Bodies } from "./entries";

const keys = new WeakMap<CheckContext, string>();

/** Key of all that a verdict rests on besides its record, as a text to tell contexts apart by. */
export function verdictKey(context: CheckContext): string {
  const known = keys.get(context);
  if (known !== undefined) return known;
  const key = canonicalJson([
    context.vehicle,
    context.limits,
    context.house,
    context.practice ?? false,
    context.required ?? null,
  ]);
  keys.set(context, key);
  return key;
}

/** Verdicts by record object and context: a fit is made once, however often the job is folded. */
const memo = new WeakMap<object, { readonly key: string; readonly verdict: Verdict }[]>();
/** Contexts a record is judged under at a time: the vehicle as it is described now, and as it was. */
const KEPT = 3;

/** The verdict on a record; one that cannot be judged on this vehicle is void and says why. */
export function judged(body: Bodies["check"], context: CheckContext): Verdict {
  const key = verdictKey(context);
  const known = memo.get(body.record) ?? [];
  const hit = known.find((k) => k.key === key);
  if (hit) return hit.verdict;
  let verdict: Verdict;
  try {
    verdict = judgeCheck(body.check, body.record, context);
  } catch (error) {
    // A record from elsewhere may name what this vehicle has not: it is kept, and proves nothing.
    verdict = voidVerdict("This record cannot be judged", error instanceof Error ? error.message : String(error));
  }
  memo.set(body.record, [{ key, verdict }, ...known].slice(0, KEPT));
  return verdict;
}
