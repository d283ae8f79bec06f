import { airflow } from "./airflow";
import { backPressure } from "./back-pressure";
import { benchPart } from "./bench-part";
import { boost } from "./boost";
import { borescope } from "./borescope";
import { cabin } from "./cabin";
import { cap } from "./cap";
import { chain } from "./chain";
import { circuit } from "./circuit";
import type { CheckKind } from "./contract";
import { crankcase } from "./crankcase";
import { decay } from "./decay";
import { egr } from "./egr";
import { evapSmoke } from "./evap-smoke";
import { exhaustGas } from "./exhaust-gas";
import { filter } from "./filter";
import { hold } from "./hold";
import type { CheckId } from "./ids";
import { look } from "./look";
import { output } from "./output";
import { pinch } from "./pinch";
import { pressureTest } from "./pressure-test";
import { probe } from "./probe";
import { pulldown } from "./pulldown";
import { secondaryAir } from "./secondary-air";
import { smoke } from "./smoke";
import { tankSensor } from "./tank-sensor";
import { trims } from "./trims";
import { vacuum } from "./vacuum";
import { valve } from "./valve";
import { ventPath } from "./vent-path";

/** Every kind of check by its id: one that is left out does not compile. */
const KINDS = {
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
  "pressure-test": pressureTest,
  filter: filter,
  "secondary-air": secondaryAir,
  boost: boost,
  "exhaust-gas": exhaustGas,
  egr: egr,
  "back-pressure": backPressure,
  "bench-part": benchPart,
  cabin: cabin,
} satisfies Readonly<Record<CheckId, CheckKind<never, never>>>;
/** The same without their records' types: a record has passed its kind's schema at the door. */
export const CHECKS = KINDS as unknown as Readonly<Record<CheckId, CheckKind>>;
