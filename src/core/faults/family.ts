import type { VehicleFacts, ZoneId } from "../vehicle";
import type { Cause } from "./cause";
import type { Rows } from "./row";
import type { Trait } from "./trait";

/** Our own short wording for a generic code; any other code is accepted as typed. */
export interface CodeText {
  readonly code: string;
  readonly text: string;
  /** Observation that is weighed */
  readonly observation?: `code:${string}`;
  /** Only cold starts without it prove that it is gone */
  readonly coldStarts?: true;
  /** Joints that set it where something is off or unplugged there: then it is probably the workshop's own */
  readonly ours?: readonly string[];
}

/** A family of faults: what can be wrong, and what its codes and its owners say before any check. */
export interface FaultFamily {
  /** Whether a vehicle can have its faults */
  fitted(vehicle: VehicleFacts): boolean;
  causes(vehicle: VehicleFacts): readonly Cause[];
  /** Name of a leak at a joint by the zone it lets into; zones whose leaks nothing is weighed for are left out */
  readonly leaksInto: Partial<Readonly<Record<ZoneId, Trait>>>;
  /**
   * Time that going straight to a suspect takes, minutes by trait: uncover it, cap it off, put a gauge or a known good part on.
   * A gasket or a mechanical fault is not confirmed in passing.
   */
  readonly confirmMinutes: Partial<Readonly<Record<Trait, number>>>;
  /** The engine's own readings do not show its faults: to them such a car is sound */
  readonly apart?: true;
  /** Observations of other families that point at this one as well */
  readonly alsoOn?: readonly string[];
  /** Joints that a scan tool commands and whose faults these are */
  readonly commanded: readonly string[];
  readonly codes: readonly CodeText[];
  readonly symptoms: readonly (readonly [id: string, text: string])[];
  /** Rows of its codes and symptoms */
  readonly rows: Rows;
}
