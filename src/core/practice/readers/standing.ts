import type { Trait } from "../../faults";
import { fromSi } from "../../units";
import { type Fault, holeOf } from "../car";
import { type Bay, faultsThere, leftIn, percent } from "./bay";

/** Traits that let a held vacuum go, and gas space between a hand pump and a part, m³. */
const LETS_GO: readonly Trait[] = ["actuator-leak", "booster-leak", "supply-weak"];

export const SPACE = 4e-5;

const RESERVOIR = 6e-4;

export const PULLED = -67.7e3;

export const inHg = (pa: number) => percent(-fromSi(pa, "inHg").value, 0.1);

/** Vacuum that a part still holds after so many s, Pa gauge. */
export const heldAt = (bay: Bay, place: string, seconds: number): number => {
  const leak = faultsThere(bay, place, ...LETS_GO)[0];
  const space = place === "flap-line" || place.startsWith("booster") ? RESERVOIR : SPACE;
  return leak ? leftIn(bay.car, space, holeOf(leak, bay.car.context.vehicle), PULLED, seconds) : PULLED * 0.995;
};

/** It is the passage that is blocked, and the valve in it moves: a purge line, and every other EGR that is coked. */
export const passageBlocked = ({ cause, size }: Fault): boolean =>
  cause.id === "purge-line-blocked" || (cause.trait === "egr-blocked" && size < 0.45);

/** Traits by which a commanded part does not answer. */
export const DEAD: readonly Trait[] = [
  "valve-stuck",
  "circuit-dead",
  "device-stuck",
  "air-pump-dead",
  "egr-blocked",
  "idle-control",
  "vent-open",
  "purge-blocked",
];

export const COKED: readonly Trait[] = ["ports-coked", "restriction", "exhaust-restriction", "air-ports", "egr-blocked"];
