import type { CheckId } from "../../checks";
import type { InstrumentUse } from "../../checks/fields";
import type { Bay, Reader, Setup } from "./bay";
import { metered, shownOn } from "./instrument";
import { RUNNING } from "./running";
import { STANDING } from "./standing";
import { VAPOUR } from "./vapour";

export * from "./bay";

/** How each check reads a simulated car; what is not about the car has none. */
export const READERS: Readonly<Partial<Record<CheckId, Reader>>> = { ...RUNNING, ...STANDING, ...VAPOUR };

/** Reads a check off a car, on the instruments that lie in its bay and the gauge that was chosen; undefined where no reader knows it. */
export function readCheck(check: CheckId, bay: Bay, setup: Setup): object | undefined {
  const record = READERS[check]?.(bay, setup);
  if (!record) return undefined;
  const { instruments = {} } = bay;
  const volts = metered(record, instruments.meter);
  const own = (record as { readonly instrument?: InstrumentUse }).instrument;
  if (!own) return volts;
  const used = (setup.instrument as InstrumentUse | undefined) ?? own;
  const fault = used.division.unit === "V" ? undefined : instruments.gauge;
  return shownOn(volts, used, fault);
}
