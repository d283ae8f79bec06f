import { airflow } from "./airflow";
import { borescope } from "./borescope";
import { cap } from "./cap";
import { chain } from "./chain";
import type { CheckContext, CheckId, CheckKind, Verdict } from "./check";
import { circuit } from "./circuit";
import { crankcase } from "./crankcase";
import { decay } from "./decay";
import { evapSmoke } from "./evap-smoke";
import { hold } from "./hold";
import { look } from "./look";
import { output } from "./output";
import { pinch } from "./pinch";
import { probe } from "./probe";
import { pulldown } from "./pulldown";
import { smoke } from "./smoke";
import { tankSensor } from "./tank-sensor";
import { trims } from "./trims";
import { vacuum } from "./vacuum";
import { valve } from "./valve";
import { ventPath } from "./vent-path";

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
  "evap-smoke": evapSmoke,
  decay,
  pulldown,
  "vent-path": ventPath,
  cap,
  "tank-sensor": tankSensor,
} as const satisfies Record<CheckId, CheckKind<never, never>>;

export const CHECK_IDS = Object.keys(CHECKS) as CheckId[];

/** Judges a record of any kind; the record has passed its kind's schema at the door. */
export function judgeCheck(kind: CheckId, record: object, context: CheckContext): Verdict {
  return (CHECKS[kind] as unknown as CheckKind).judge(record, context);
}
