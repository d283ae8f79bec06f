import type { CheckId } from "../../checks";
import type { Reader } from "./bay";
import { RUNNING } from "./running";
import { STANDING } from "./standing";
import { VAPOUR } from "./vapour";

export * from "./bay";

/** How each check reads a simulated car; what is not about the car has none. */
export const READERS: Readonly<Partial<Record<CheckId, Reader>>> = { ...RUNNING, ...STANDING, ...VAPOUR };
