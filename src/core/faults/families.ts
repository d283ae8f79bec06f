import { boost } from "./boost";
import { egr } from "./egr";
import { engine } from "./engine";
import { evap } from "./evap";
import type { FaultFamily } from "./family";
import { filter } from "./filter";
import { secondaryAir } from "./secondary-air";

/** Every family of faults. Adding one adds its folder and its line here, and its traits to `trait`. */
const KINDS = { engine, boost, egr, evap, filter, "secondary-air": secondaryAir } as const satisfies Record<string, FaultFamily>;
/** A job is weighed over the families that its story and its checks point at. */
export type Family = keyof typeof KINDS;
export type SymptomId = (typeof KINDS)[Family]["symptoms"][number][0];

/** The same without their own words' types. */
export const FAMILIES = KINDS as Readonly<Record<Family, FaultFamily>>;
export const FAMILY_IDS = Object.keys(FAMILIES) as Family[];

export const SYMPTOMS = Object.values(FAMILIES).flatMap((f) => f.symptoms as readonly (readonly [SymptomId, string])[]);
