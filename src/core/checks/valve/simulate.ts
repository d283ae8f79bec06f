import { holeOf } from "../../practice/car";
import { type Bay, chosen, faultsThere, gaugeIn, leftIn, placeOf, type Setup } from "../../practice/readers/bay";
import { inHg, PULLED, passageBlocked, SPACE } from "../../practice/readers/standing";
import type { ValveRecord } from "./fields";

/** A valve's seat and stroke, each held for a minute. */
export const simulate = (bay: Bay, setup: Setup): ValveRecord => {
  const { car } = bay;
  const place = placeOf(setup);
  const rests = car.context.layout.joints.find((j) => j.id === place)?.rest === "open" ? "open" : "closed";
  const leak = faultsThere(bay, place, "purge-leak", "inside-leak", "vent-open")[0];
  const dead = faultsThere(bay, place, "circuit-dead").length > 0;
  const power = chosen<ValveRecord["power"]>(setup, "power", "scan-tool");
  const stuck = faultsThere(bay, place, "valve-stuck", "idle-control", "purge-blocked", "egr-blocked").some(
    (f) => f.cause.joint === place && !passageBlocked(f),
  );
  const stuckShut = faultsThere(bay, place, "vent-blocked").length > 0;
  const works = !stuck && !(dead && power !== "12v");
  const shutLoses = leak ? Math.max(0, inHg(leftIn(car, SPACE, holeOf(leak, car.context.vehicle), PULLED, 60))) : 19.8;
  const shut = { start: 20, end: shutLoses, seconds: 60 };
  const open = { start: 20, end: 0, seconds: 60 };
  const asked =
    rests === "closed"
      ? { rest: shut, energised: works ? open : { start: 20, end: 19.8, seconds: 60 } }
      : { rest: stuckShut ? { start: 20, end: 19.8, seconds: 60 } : open, energised: works ? shut : stuckShut ? shut : open };
  return {
    joint: place,
    rests,
    power,
    unplugged: chosen(setup, "unplugged", false),
    clicked: works || (stuck && !dead),
    part: "fitted",
    temperature: chosen(setup, "temperature", "cold"),
    unit: "inHg",
    ...asked,
    instrument: gaugeIn("inHg", 0.1),
  };
};
