import { pulldownTrace } from "../../gas/network/tank";
import { hasTrait, holeOf, stateAt } from "../../practice/car";
import { PURGE, VENT } from "../../practice/monitors";
import { type Bay, chosen, type Setup } from "../../practice/readers/bay";
import { common, tankOf, type VapourSetup, ventShut } from "../../practice/readers/vapour";
import type { PulldownRecord } from "./fields";

/** A part that is blocked still passes so much as one hole, m. */
const CHOKED_TO = 0.6e-3;

const VENT_SHUT = 8;

const PURGE_OPENS = 20;

/** Purge is shut once this much was pulled, Pa, or after so long, s; then it is held, and let go. */
const DEEP = 2200;

const PULLS = 22;

const HOLDS = 40;

const RELIEVES = 20;

/** The idling engine pulls the shut system down through its purge valve. */
export const simulate = (bay: Bay, setup: Setup): PulldownRecord => {
  const { car, noise } = bay;
  const vent = chosen<VapourSetup["vent"]>(setup, "vent", { by: "command", at: VENT_SHUT, seconds: 90 });
  const blocked = hasTrait(car, "purge-blocked") ?? car.faults.find((f) => f.cause.id === "purge-circuit");
  const leaks = hasTrait(car, "purge-leak");
  const ventBlocked = hasTrait(car, "vent-blocked");
  const shutVent = vent.by === "command" ? ventShut(car) : 0;
  const seat = leaks ? holeOf(leaks, car.context.vehicle) : 0;
  const own = hasTrait(car, "vapour-leak");
  const sensor = hasTrait(car, "tank-sensor");
  const ventOpen = ventBlocked ? CHOKED_TO : VENT;
  const { points, purgeShutAt } = pulldownTrace(
    tankOf(car, own ? holeOf(own, car.context.vehicle) : 0),
    {
      manifold: stateAt(car, {}).map,
      purgeOpen: blocked ? seat : Math.hypot(PURGE, seat),
      purgeShut: seat,
      ventOpen,
      ventShut: Math.min(ventOpen, shutVent),
    },
    {
      ventShutAt: VENT_SHUT,
      purgeOpenAt: PURGE_OPENS,
      purgeShutAt: PURGE_OPENS + PULLS,
      holds: HOLDS,
      relieves: RELIEVES,
      deep: DEEP,
    },
  );
  const told = (real: number) => (sensor ? 700 + 900 * sensor.size + real * 0.3 : real);
  const { ambient: air, temperature: warmth, fuelLevel, ...rest } = common(car);
  const required = "required" in rest ? { required: rest.required } : {};
  return {
    source: { kind: "typed" },
    unit: "Pa",
    points: points.map(([t, real]): [number, number] => [t, Math.round(told(real) + noise.normal(5))]),
    ventShutAt: VENT_SHUT,
    purgeOpenAt: PURGE_OPENS,
    purgeShutAt,
    ventOpenAt: purgeShutAt + HOLDS,
    vent,
    fuelLevel,
    ...required,
    idled: true,
    ambient: air,
    temperature: warmth,
  };
};
