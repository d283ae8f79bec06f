import { airflow } from "./airflow";
import { borescope } from "./borescope";
import { chain } from "./chain";
import type { CheckContext, CheckId, CheckKind, Verdict } from "./check";
import { circuit } from "./circuit";
import { crankcase } from "./crankcase";
import { hold } from "./hold";
import { look } from "./look";
import { output } from "./output";
import { pinch } from "./pinch";
import { probe } from "./probe";
import { smoke } from "./smoke";
import { trims } from "./trims";
import { vacuum } from "./vacuum";
import { valve } from "./valve";

export * from "./check";

/** Every kind of check. Adding one adds its folder, its screen and its line here. */
export const CHECKS = {
  look,
  trims,
  probe,
  vacuum,
  airflow,
  crankcase,
  smoke,
  pinch,
  hold,
  valve,
  output,
  circuit,
  chain,
  borescope,
} as const satisfies Record<CheckId, CheckKind<never, never>>;

export const CHECK_IDS = Object.keys(CHECKS) as CheckId[];

/** Judges a record of any kind; the record has passed its kind's schema at the door. */
export function judgeCheck(kind: CheckId, record: object, context: CheckContext): Verdict {
  return (CHECKS[kind] as unknown as CheckKind).judge(record, context);
}
