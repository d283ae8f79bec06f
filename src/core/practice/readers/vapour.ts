import type { CheckId } from "../../checks";
import { requiredOf } from "../../checks/evap-fields";
import { VENT_PARTS, type VentPart } from "../../checks/vent-path";
import type { Trait } from "../../faults";
import { decayTrace, pulldownTrace, type Tank } from "../../gas/network/tank";
import { holeArea, SHARP_EDGED } from "../../gas/orifice";
import { fromSi, toSi } from "../../units";
import { entriesOf, type FillSetup, reachOf, requiredLeakOf, usualSetup } from "../../vehicle";
import { type Car, hasTrait, holeOf, stateAt } from "../car";
import { gasSpaceOf, PURGE, VENT, WALLS } from "../monitors";
import { type Bay, chosen, faultsThere, gaugeIn, leftIn, percent, type Reader, type Setup, shown } from "./bay";
import { smokeRecord } from "./standing";

/** A part that is blocked still passes so much as one hole, m. */
const CHOKED_TO = 0.6e-3;

/** What the vent still passes when it is told to shut, m. */
const ventShut = (car: Car): number => {
  const open = hasTrait(car, "vent-open") ?? car.faults.find((f) => f.cause.id === "vent-circuit");
  return open ? (open.cause.id === "vent-circuit" ? VENT : holeOf(open, car.context.vehicle)) : 0;
};

/** Holes of the vapour system that a setup puts to the test, as one of their area, m. */
function leakOf(car: Car, setup: FillSetup | undefined, byCommand: boolean): number {
  const tested = setup && reachOf(car.context.layout, setup).tested.map((j) => j.id);
  const VAPOUR: readonly Trait[] = ["vapour-leak", "purge-leak"];
  const own = car.faults
    .filter(
      (f) =>
        VAPOUR.includes(f.cause.trait) && (f.cause.trait === "purge-leak" || (tested?.includes(f.cause.joint ?? "") ?? true)),
    )
    .map((f) => holeOf(f, car.context.vehicle));
  return Math.hypot(...own, byCommand ? ventShut(car) : 0);
}

interface VapourSetup extends FillSetup {
  readonly vent: { readonly by: "plug" } | { readonly by: "command"; readonly at: number; readonly seconds: number };
}
function setupOf({ car }: Bay, setup: Setup): VapourSetup {
  const { layout } = car.context;
  const entry = chosen<string | undefined>(setup, "entry", undefined) ?? entriesOf(layout, "evap")[0]?.id ?? "purge-line-joint";
  const vent = chosen<VapourSetup["vent"]>(setup, "vent", { by: "plug" });
  return {
    ...usualSetup(layout, entry),
    blocked: [...chosen<readonly string[]>(setup, "blocked", vent.by === "plug" ? ["vent-filter"] : [])],
    vent,
  };
}
const common = (car: Car) => {
  const leak = requiredLeakOf(car.context.vehicle, []);
  return {
    fuelLevel: Math.round(car.fuelLevel),
    ...(leak ? { required: requiredOf(leak) } : {}),
    touchedBefore: [],
    adapterLeaks: false,
    ambient: shown(car.ambient, "hPa", 1, "absolute"),
    temperature: shown(car.temperature, "°C", 1),
  };
};

const evapSmoke: Reader = (bay, setup) => {
  const fill = setupOf(bay, setup);
  return {
    ...smokeRecord(bay, fill, chosen(setup, "machine", undefined), chosen(setup, "lookedAt", undefined)),
    ...common(bay.car),
    vent: fill.vent,
    gas: "inert",
    capOffs: [],
  };
};

const PUSHED = 2490;
const HELD = 120;
const WATCHED = 150;

const tankOf = (car: Car, leak: number): Tank => ({
  volume: gasSpaceOf(car),
  leak,
  wallTime: WALLS,
  ambient: car.ambient,
  temperature: car.temperature,
});

/** A shut system filled, held, and left alone: its pressure every five seconds. The bay warms or cools a little meanwhile. */
const decayed = ({ car, noise }: Bay, leak: number): [number, number][] =>
  decayTrace(tankOf(car, leak), {
    pressure: PUSHED,
    held: HELD,
    duration: WATCHED,
    every: 5,
    drift: noise.uniform(-0.08, 0.08),
  }).map(([t, gauge]) => [t, percent(fromSi(Math.max(0, gauge), "inH2O").value + noise.normal(0.006), 0.01)]);
const decay: Reader = (bay, setup) => {
  const fill = setupOf(bay, setup);
  const leak = leakOf(bay.car, fill, fill.vent.by === "command");
  return {
    ...fill,
    ...common(bay.car),
    source: { kind: "typed" },
    unit: "inH2O",
    held: HELD,
    samples: decayed(bay, leak),
    instrument: gaugeIn("inH2O", 0.01, "Low-pressure gauge", 20),
  };
};

const VENT_SHUT = 8;
const PURGE_OPENS = 20;
/** Purge is shut once this much was pulled, Pa, or after so long, s; then it is held, and let go. */
const DEEP = 2200;
const PULLS = 22;
const HOLDS = 40;
const RELIEVES = 20;
/** The idling engine pulls the shut system down through its purge valve. */
const pulldown: Reader = (bay, setup) => {
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

/** Blown through, from outside in, by a steady flow. */
const BLOWN = 1.7e-4;
const ventPath: Reader = (bay) => {
  const { car, noise } = bay;
  const blocked = (part: VentPart) =>
    car.faults.some((f) => f.cause.trait === "vent-blocked" && (f.cause.joint === part || f.cause.device === part));
  return {
    nozzle: hasTrait(car, "vent-blocked") ? "clicks-off" : "fills",
    parts: VENT_PARTS.filter((part) => car.context.layout.joints.some((j) => j.id === part)).map((part) => {
      const opening = blocked(part) ? 2.5e-3 : VENT + noise.normal(3e-4);
      const back = 0.5 * 1.2 * (BLOWN / (SHARP_EDGED * holeArea(opening))) ** 2;
      return { part, flow: { value: 10, unit: "L/min" }, back: shown(back, "inH2O", 0.01, "gauge") };
    }),
    ambient: shown(car.ambient, "hPa", 1, "absolute"),
    temperature: shown(car.temperature, "°C", 1),
  };
};

/** Gas space of a cap on its tester, m³. */
const TESTER = 1e-3;
const cap: Reader = (bay) => {
  const { car } = bay;
  const leak = faultsThere(bay, "filler-cap", "vapour-leak")[0];
  const left = leak ? leftIn(car, TESTER, holeOf(leak, car.context.vehicle), 7500, 10) : 7480;
  return {
    part: "fitted",
    start: 30,
    end: percent(Math.max(0, fromSi(left, "inH2O").value), 0.1),
    seconds: 10,
    unit: "inH2O",
    testerProved: true,
    seal: leak && leak.size > 0.6 ? "cracked" : "whole",
    instrument: gaugeIn("inH2O", 0.1),
  };
};

const tankSensor: Reader = (bay) => {
  const { car, noise } = bay;
  const curve = car.context.vehicle.evap?.sensor;
  const lies = hasTrait(car, "tank-sensor");
  const zero = (curve ? toSi(curve.zero) : 2.5) + (lies ? 0.5 + 0.6 * lies.size : 0) + noise.normal(0.02);
  const known = { value: -10, unit: "inH2O", kind: "gauge" } as const;
  const perPa = curve ? curve.perUnit / toSi({ value: 1, unit: curve.unit }) : 2e-4;
  return {
    keyOn: true,
    capOff: true,
    zero: shown(zero, "V", 0.01),
    second: { pressure: known, signal: shown(zero + perPa * toSi(known) * (lies ? 0.3 : 1), "V", 0.01) },
    instrument: gaugeIn("V", 0.01),
  };
};

/** Checks of what keeps fuel vapour in. */
export const VAPOUR: Partial<Record<CheckId, Reader>> = {
  "evap-smoke": evapSmoke,
  decay,
  pulldown,
  "vent-path": ventPath,
  cap,
  "tank-sensor": tankSensor,
};
