import { CHECKS, type CheckId } from "../../checks";
import { simulate as airflow } from "../../checks/airflow/simulate";
import { simulate as backPressure } from "../../checks/back-pressure/simulate";
import { simulate as boost } from "../../checks/boost/simulate";
import { simulate as borescope } from "../../checks/borescope/simulate";
import { simulate as cap } from "../../checks/cap/simulate";
import { simulate as chain } from "../../checks/chain/simulate";
import { simulate as circuit } from "../../checks/circuit/simulate";
import { simulate as crankcase } from "../../checks/crankcase/simulate";
import { simulate as decay } from "../../checks/decay/simulate";
import { simulate as egr } from "../../checks/egr/simulate";
import { simulate as evapSmoke } from "../../checks/evap-smoke/simulate";
import { simulate as exhaustGas } from "../../checks/exhaust-gas/simulate";
import type { InstrumentUse } from "../../checks/fields";
import { simulate as filter } from "../../checks/filter/simulate";
import { simulate as hold } from "../../checks/hold/simulate";
import { simulate as look } from "../../checks/look/simulate";
import { simulate as output } from "../../checks/output/simulate";
import { simulate as pinch } from "../../checks/pinch/simulate";
import { simulate as pressureTest } from "../../checks/pressure-test/simulate";
import { simulate as probe } from "../../checks/probe/simulate";
import { simulate as pulldown } from "../../checks/pulldown/simulate";
import { simulate as secondaryAir } from "../../checks/secondary-air/simulate";
import { simulate as smoke } from "../../checks/smoke/simulate";
import { simulate as tankSensor } from "../../checks/tank-sensor/simulate";
import { simulate as trims } from "../../checks/trims/simulate";
import { simulate as vacuum } from "../../checks/vacuum/simulate";
import { simulate as valve } from "../../checks/valve/simulate";
import { simulate as ventPath } from "../../checks/vent-path/simulate";
import type { Bay, Reader, Setup } from "./bay";
import { metered, shownOn } from "./instrument";

export * from "./bay";

/** How each check reads a simulated car; what is not about the car has none. */
export const READERS: Readonly<Record<CheckId, Reader | undefined>> = {
  trims,
  probe,
  vacuum,
  airflow,
  crankcase,
  pinch,
  boost,
  "back-pressure": backPressure,
  "exhaust-gas": exhaustGas,
  egr,
  filter,
  "secondary-air": secondaryAir,
  look,
  smoke,
  "pressure-test": pressureTest,
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
  "bench-part": undefined,
  cabin: undefined,
};

/** Reads a check off a car, on the instruments that lie in its bay and the gauge that was chosen; undefined where no reader knows it. */
export function readCheck(check: CheckId, bay: Bay, setup: Setup): object | undefined {
  const record = READERS[check]?.(bay, setup);
  if (!record) return undefined;
  const { instruments = {} } = bay;
  const fields = CHECKS[check].fields.members;
  const volts = metered(fields, record, instruments.meter);
  const own = (record as { readonly instrument?: InstrumentUse }).instrument;
  if (!own) return volts;
  const used = (setup.instrument as InstrumentUse | undefined) ?? own;
  const fault = used.division.unit === "V" ? undefined : instruments.gauge;
  return shownOn(fields, volts, used, fault);
}
