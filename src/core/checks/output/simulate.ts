import { type Bay, chosen, faultsThere, placeOf, type Setup } from "../../practice/readers/bay";
import { DEAD, passageBlocked } from "../../practice/readers/standing";
import type { OutputRecord } from "./fields";

export const simulate = (bay: Bay, setup: Setup): OutputRecord => {
  const { car } = bay;
  const place = placeOf(setup);
  // A diaphragm that leaks does not move what its solenoid commands; a vent that does not shut is not heard to fail.
  const unworked =
    place.endsWith("-solenoid") &&
    car.faults.some((f) => f.cause.device === place || (f.cause.trait === "supply-weak" && f.size > 0.5));
  const dead = faultsThere(bay, place, ...DEAD).some((f) => !passageBlocked(f) && f.cause.id !== "vent-open") || unworked;
  return {
    joint: place,
    output: chosen(setup, "output", place),
    command: chosen(setup, "command", "on"),
    limit: chosen(setup, "limit", 30),
    rearmed: chosen(setup, "rearmed", true),
    expected: chosen(setup, "expected", "it answers"),
    seen: dead ? "nothing" : "as-expected",
    seenAfter: 5,
  };
};
