import { engineTruth, holesOf, stateAt } from "../../practice/car";
import type { OperatingState } from "../../practice/engine";
import type { EngineTruth } from "../../practice/engine-truth";
import { type Bay, chosen, percent, placeOf, type Setup, shown } from "../../practice/readers/bay";
import { IDLE, trimOf } from "../../practice/readers/running";
import { behind } from ".";
import type { PinchRecord } from "./fields";

/** A branch shut off while total trim is watched: what lies behind it lets nothing in. */
export const simulate = (bay: Bay, setup: Setup): PinchRecord => {
  const { car, noise } = bay;
  const place = placeOf(setup);
  const hidden = behind(car.context.layout, place);
  const holes = holesOf(car).filter((h) => !hidden.includes(h.joint) && car.context.layout.joints.some((j) => j.id === h.joint));
  const faults = car.faults.filter((f) => !f.cause.joint || !hidden.includes(f.cause.joint));
  const before = stateAt(car, IDLE);
  const mended = faults.length === car.faults.length ? undefined : engineTruth({ ...car, faults });
  const plugged = mended && place === "idle-air";
  const without: Partial<EngineTruth> = mended ? (plugged ? mended : { hole: mended.hole }) : {};
  const shut = holes.length === holesOf(car).length && !plugged ? before : stateAt(car, IDLE, without);
  const watched = chosen<PinchRecord["reads"]>(setup, "reads", "trim");
  const read = (state: OperatingState) =>
    watched === "rpm"
      ? Math.round(state.rpm + noise.normal(6))
      : watched === "vacuum"
        ? shown(car.ambient - state.map + noise.normal(500), "inHg", 0.1).value
        : percent(trimOf(state) + noise.normal(0.6));
  return {
    joint: place,
    how: chosen(setup, "how", "pinch"),
    blankProved: chosen(setup, "blankProved", true),
    reads: watched,
    ...(watched === "vacuum" ? { unit: "inHg" } : {}),
    before: read(before),
    shut: read(shut),
    released: read(before),
  };
};
