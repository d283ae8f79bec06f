import type { CheckId } from "../../checks";
import type { InstrumentUse } from "../../checks/fields";
import type { Bay, Reader, Setup } from "./bay";
import { shownOn } from "./instrument";
import { RUNNING } from "./running";
import { STANDING } from "./standing";
import { VAPOUR } from "./vapour";

export * from "./bay";

/** How each check reads a simulated car; what is not about the car has none. */
export const READERS: Readonly<Partial<Record<CheckId, Reader>>> = { ...RUNNING, ...STANDING, ...VAPOUR };

/** Reads a check off a car, on the gauge that was chosen for it; undefined where no reader knows the check. */
export function readCheck(check: CheckId, bay: Bay, setup: Setup): object | undefined {
  const record = READERS[check]?.(bay, setup);
  const instrument = setup.instrument as InstrumentUse | undefined;
  return record && instrument && "instrument" in record ? shownOn(record, instrument) : record;
}
