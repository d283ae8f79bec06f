import type { CheckContext, CheckId, CheckKind, Verdict } from "./check";
import { look } from "./look";
import { smoke } from "./smoke";
import { trims } from "./trims";

export * from "./check";

/** Every kind of check. Adding one adds its folder, its screen and its line here. */
export const CHECKS = { look, trims, smoke } as const satisfies Record<CheckId, CheckKind<never, never>>;

export const CHECK_IDS = Object.keys(CHECKS) as CheckId[];

/** Judges a record of any kind; the record has passed its kind's schema at the door. */
export function judgeCheck(kind: CheckId, record: object, context: CheckContext): Verdict {
  return (CHECKS[kind] as unknown as CheckKind).judge(record, context);
}
