import { toSi } from "../units";
import type { FittedSystem, VehicleFacts } from "./facts";

/** A stretch that one smoke fill reaches. */
export interface Zone {
  readonly id: ZoneId;
  readonly name: string;
  /** Typical gas volume, m³: for fill times and order of magnitude only. */
  readonly volume: number;
}

export type ZoneId =
  | "filter-box"
  | "metered-duct"
  | "hot-pipe"
  | "cooler"
  | "cold-pipe"
  | "manifold"
  | "booster-branch"
  | "crankcase"
  | "breather"
  | "purge-line"
  | "canister"
  | "vent-hose"
  | "tank"
  | "neck"
  | "vacuum-supply"
  | "flap-actuator"
  | "cylinders"
  | "exhaust-manifold"
  | "front-pipe"
  | "tail";

/** Zones that make up the vapour system. */
export const EVAP_ZONES: readonly ZoneId[] = ["purge-line", "canister", "vent-hose", "tank", "neck"];

/** How gas passes a joint when nobody acts on it, engine standing; one-way from its `to` to its `from`. */
export type JointRest = "open" | "closed" | "one-way";

/** What ties two zones, or a zone to the outside. A joint to the outside is a place that can leak or be sealed. */
export interface Joint {
  readonly id: string;
  readonly name: string;
  readonly from: ZoneId;
  readonly to: ZoneId | "outside";
  /** `seal` can only leak; `opening` is open to the outside on purpose; the rest tie two zones. */
  readonly kind: "seal" | "opening" | "pipe" | "meter" | "compressor" | "throttle" | "valve" | "engine";
  readonly rest: JointRest;
  /** Smoke can be let in here. */
  readonly entry?: Entry;
  /** Passes some gas by design, so a flow through it is no finding by itself */
  readonly weeps?: true;
  /** A hose that can be pinched or capped without taking anything apart */
  readonly pinchable?: true;
  /** Zone that a pinchable hose leads to */
  readonly feeds?: ZoneId;
}

/** The gas path that an entry is for: the engine's own, or the one that keeps fuel vapour in. */
export type Circuit = "intake" | "evap";

/** A place to let smoke in. */
export interface Entry {
  readonly circuit: Circuit;
  /** What is taken off to get in */
  readonly removes: string;
  /** What setting up and reading a run from here takes */
  readonly minutes: number;
  /** Joint that falls apart with it, so that the fill does not pass it */
  readonly severs?: string;
  /** Joint that the adapter pushes open */
  readonly opens?: string;
  /** Joints that the adapter stands in place of, beside the entry itself */
  readonly hides?: readonly string[];
}

export interface Layout {
  readonly zones: readonly Zone[];
  readonly joints: readonly Joint[];
}

type When = (facts: VehicleFacts) => boolean;
const always: When = () => true;
const turbo: When = (f) => f.induction === "turbo";
const natural: When = (f) => f.induction === "natural";
const metered: When = (f) => f.metering === "maf";
const speedDensity: When = (f) => f.metering === "map";
const fitted =
  (system: FittedSystem): When =>
  (f) =>
    f.fitted.includes(system);
const twoBanks: When = (f) => f.banks === 2;
const oneBank: When = (f) => f.banks === 1;
const evap = fitted("evap");
const evapWhere =
  (is: (facts: NonNullable<VehicleFacts["evap"]>) => boolean): When =>
  (f) =>
    evap(f) && f.evap !== undefined && is(f.evap);
const not =
  (when: When): When =>
  (f) =>
    evap(f) && !when(f);
const capless = evapWhere((e) => e.neck === "capless");
const neckFlap = evapWhere((e) => e.neckFlap);
const tankOneWay = evapWhere((e) => e.tankOneWay);
const servicePort = evapWhere((e) => e.servicePort);
const canisterPump = evapWhere((e) => e.monitor === "canister-pump");
const litre = 1e-3;
/** Gas space of a tank that is about half full; of a tank nobody described, 50 L. */
const tankGas = (f: VehicleFacts) => 0.6 * (f.evap ? toSi(f.evap.tank) : 50 * litre);

const ZONES: readonly (readonly [When, ZoneId, string, number | ((facts: VehicleFacts) => number)])[] = [
  [always, "filter-box", "Filter box", 8 * litre],
  [metered, "metered-duct", "Metered duct", 2 * litre],
  [speedDensity, "metered-duct", "Intake duct", 2 * litre],
  [turbo, "hot-pipe", "Hot pipe", 1.5 * litre],
  [turbo, "cooler", "Cooler", 4 * litre],
  [turbo, "cold-pipe", "Cold pipe", 2 * litre],
  [always, "manifold", "Manifold", 5 * litre],
  [fitted("booster"), "booster-branch", "Booster branch", 3 * litre],
  [fitted("pcv"), "crankcase", "Crankcase", 12 * litre],
  [fitted("pcv"), "breather", "Breather hose", 0.3 * litre],
  [evap, "purge-line", "Purge line", 0.2 * litre],
  [evap, "canister", "Canister", 2.5 * litre],
  [evap, "vent-hose", "Vent hose", 0.3 * litre],
  [evap, "tank", "Tank vapour space", tankGas],
  [evap, "neck", "Filler neck", 1 * litre],
  [fitted("runner-flaps"), "vacuum-supply", "Vacuum supply", 0.6 * litre],
  [fitted("runner-flaps"), "flap-actuator", "Flap actuator", 0.05 * litre],
  [always, "cylinders", "Cylinders", 0.5 * litre],
  [always, "exhaust-manifold", "Exhaust manifold", 2 * litre],
  [always, "front-pipe", "Front pipe", 3 * litre],
  [always, "tail", "Tail", 20 * litre],
];

type JointRow = readonly [When, Joint];
const seal = (when: When, id: string, name: string, from: ZoneId, entry?: Entry): JointRow => [
  when,
  { id, name, from, to: "outside", kind: "seal", rest: "closed", ...(entry ? { entry } : {}) },
];
const tie = (
  when: When,
  id: string,
  name: string,
  from: ZoneId,
  to: ZoneId | "outside",
  kind: Joint["kind"],
  rest: JointRest = "open",
  entry?: Entry,
): JointRow => [when, { id, name, from, to, kind, rest, ...(entry ? { entry } : {}) }];
const takes = (removes: string, minutes: number, severs?: string): Entry => ({
  circuit: "intake",
  removes,
  minutes,
  ...(severs ? { severs } : {}),
});
const evapTakes = (removes: string, minutes: number, more: Pick<Entry, "severs" | "opens" | "hides"> = {}): Entry => ({
  circuit: "evap",
  removes,
  minutes,
  ...more,
});
/** An adapter in the neck pushes the flap open. */
const AT_NECK = evapTakes("filler cap off, adapter in the neck", 24, { opens: "neck-flap", hides: ["cap-seat"] });

/** A hose to a branch: it can leak, and it can be pinched. */
const hose = (when: When, id: string, name: string, feeds?: ZoneId, entry?: Entry): JointRow => {
  const [, joint] = seal(when, id, name, "manifold", entry);
  return [when, { ...joint, pinchable: true, ...(feeds ? { feeds } : {}) }];
};

/** Where the duct leaves the filter box; with an air meter, at the meter. */
const AT_FILTER_BOX = takes("duct off where it leaves the filter box", 28, "air-meter");

const JOINTS: readonly JointRow[] = [
  tie(always, "snorkel", "Snorkel", "filter-box", "outside", "opening"),
  seal(always, "filter-lid", "Filter box lid", "filter-box"),
  tie(metered, "air-meter", "Air meter", "filter-box", "metered-duct", "meter", "open", AT_FILTER_BOX),
  tie(speedDensity, "air-meter", "Duct at the filter box", "filter-box", "metered-duct", "pipe", "open", AT_FILTER_BOX),
  seal(always, "duct-split", "Duct, split or bend", "metered-duct"),
  seal(always, "duct-clamp", "Duct clamp", "metered-duct"),
  tie(natural, "throttle", "Throttle", "metered-duct", "manifold", "throttle", "closed"),
  tie(turbo, "compressor", "Compressor", "metered-duct", "hot-pipe", "compressor"),
  seal(turbo, "hot-pipe-clamp", "Hot pipe clamp", "hot-pipe", takes("hot pipe off the compressor", 32, "compressor")),
  tie(turbo, "cooler-inlet", "Cooler inlet", "hot-pipe", "cooler", "pipe"),
  seal(turbo, "cooler-tank", "Cooler end tank", "cooler"),
  tie(turbo, "cooler-outlet", "Cooler outlet", "cooler", "cold-pipe", "pipe"),
  seal(turbo, "cold-pipe-split", "Cold pipe, split or clamp", "cold-pipe"),
  tie(turbo, "bypass-valve", "Bypass valve", "cold-pipe", "metered-duct", "valve", "closed"),
  tie(turbo, "throttle", "Throttle", "cold-pipe", "manifold", "throttle", "closed"),
  seal(always, "throttle-gasket", "Throttle body gasket", "manifold"),
  seal(always, "plenum-crack", "Plenum, crack or seam", "manifold"),
  seal(oneBank, "manifold-gasket", "Manifold gasket", "manifold"),
  seal(twoBanks, "manifold-gasket-1", "Manifold gasket, bank 1", "manifold"),
  seal(twoBanks, "manifold-gasket-2", "Manifold gasket, bank 2", "manifold"),
  seal(always, "injector-seals", "Injector seals", "manifold"),
  hose(always, "vacuum-branch", "Small vacuum branch"),
  seal(always, "gauge-port", "Vacuum port or cap", "manifold", takes("cap off a manifold vacuum port", 24)),
  seal(fitted("runner-flaps"), "flap-spindle", "Runner-flap spindle", "manifold"),
  tie(fitted("booster"), "booster-check-valve", "Booster check valve", "manifold", "booster-branch", "valve", "one-way"),
  hose(
    fitted("booster"),
    "booster-hose",
    "Booster hose",
    "booster-branch",
    takes("booster hose off the manifold", 26, "booster-check-valve"),
  ),
  seal(fitted("booster"), "booster-diaphragm", "Booster diaphragm", "booster-branch"),
  tie(fitted("pcv"), "pcv-valve", "PCV valve", "crankcase", "manifold", "valve", "open"),
  hose(fitted("pcv"), "pcv-hose", "PCV hose", "crankcase"),
  tie(fitted("pcv"), "breather-port", "Breather at the crankcase", "crankcase", "breather", "pipe"),
  tie(fitted("pcv"), "breather-duct", "Breather at the duct", "breather", "metered-duct", "pipe"),
  seal(fitted("pcv"), "pcv-diaphragm", "PCV diaphragm", "crankcase"),
  seal(fitted("pcv"), "oil-cap", "Oil cap", "crankcase"),
  seal(fitted("pcv"), "dipstick", "Dipstick seal", "crankcase", takes("dipstick out of its tube", 26)),
  seal(fitted("pcv"), "cover-gasket", "Valve-cover or shaft seal", "crankcase"),
  tie(evap, "purge-valve", "Purge valve", "manifold", "purge-line", "valve", "closed"),
  hose(evap, "purge-hose", "Purge hose at the manifold", "purge-line"),
  seal(
    evap,
    "purge-line-joint",
    "Purge line, split or connector",
    "purge-line",
    evapTakes("purge line off at the purge valve", 30, { severs: "purge-valve" }),
  ),
  seal(
    servicePort,
    "service-port",
    "Service port",
    "purge-line",
    evapTakes("valve core out of the service port, adapter on", 22),
  ),
  tie(evap, "purge-canister", "Purge line at the canister", "purge-line", "canister", "pipe"),
  seal(evap, "canister-joint", "Canister, joint or crack", "canister"),
  tie(not(canisterPump), "vent-valve", "Vent valve", "canister", "vent-hose", "valve"),
  tie(canisterPump, "vent-valve", "Leak-check pump and vent", "canister", "vent-hose", "valve"),
  tie(evap, "vent-filter", "Vent filter", "vent-hose", "outside", "opening"),
  tie(not(tankOneWay), "fill-limit-valve", "Fill-limit valve", "canister", "tank", "valve"),
  tie(tankOneWay, "fill-limit-valve", "Fill-limit valve, one way", "canister", "tank", "valve", "one-way"),
  seal(evap, "tank-line", "Vapour line at the tank", "tank"),
  seal(evap, "tank-flange", "Pump or sender flange", "tank"),
  seal(evap, "rollover-grommet", "Rollover-valve grommet", "tank"),
  tie(neckFlap, "neck-flap", "Neck flap", "neck", "tank", "valve", "closed"),
  tie(not(neckFlap), "neck-tank", "Neck at the tank", "neck", "tank", "pipe"),
  seal(evap, "neck-hose", "Filler neck, rust or hose", "neck"),
  seal(not(capless), "filler-cap", "Filler cap", "neck", AT_NECK),
  seal(not(capless), "cap-seat", "Cap's seat in the neck", "neck"),
  seal(capless, "filler-cap", "Capless seal", "neck", { ...AT_NECK, removes: "capless seal pushed open by the adapter" }),
  tie(fitted("runner-flaps"), "flap-check-valve", "Vacuum check valve", "manifold", "vacuum-supply", "valve", "one-way"),
  seal(fitted("runner-flaps"), "flap-line", "Vacuum line or reservoir", "vacuum-supply"),
  tie(fitted("runner-flaps"), "flap-solenoid", "Flap solenoid", "vacuum-supply", "flap-actuator", "valve", "closed"),
  seal(fitted("runner-flaps"), "flap-pipe", "Actuator pipe", "flap-actuator"),
  seal(fitted("runner-flaps"), "flap-diaphragm", "Actuator diaphragm", "flap-actuator"),
  [
    fitted("idle-air"),
    {
      id: "idle-air",
      name: "Idle-air bypass",
      from: "metered-duct",
      to: "manifold",
      kind: "valve",
      rest: "open",
      weeps: true,
    },
  ],
  tie(fitted("egr"), "egr-valve", "EGR valve", "exhaust-manifold", "manifold", "valve", "closed"),
  tie(always, "intake-valves", "Intake valves", "manifold", "cylinders", "engine"),
  tie(always, "exhaust-valves", "Exhaust valves", "cylinders", "exhaust-manifold", "engine"),
  seal(always, "exhaust-gasket", "Exhaust gasket before the sensor", "exhaust-manifold"),
  tie(always, "front-joint", "Front pipe joint", "exhaust-manifold", "front-pipe", "pipe"),
  tie(always, "catalyst", "Catalyst", "front-pipe", "tail", "pipe"),
  tie(always, "tailpipe", "Tailpipe", "tail", "outside", "opening", "open", takes("cone into the tailpipe", 22)),
];

/** The gas paths of this vehicle: what its facts say is fitted, and no more. */
export function layoutOf(facts: VehicleFacts): Layout {
  const known = layouts.get(facts);
  if (known) return known;
  const layout = {
    zones: ZONES.filter(([when]) => when(facts)).map(([, id, name, volume]) => ({
      id,
      name,
      volume: typeof volume === "number" ? volume : volume(facts),
    })),
    joints: JOINTS.filter(([when]) => when(facts)).map(([, joint]) => joint),
  };
  layouts.set(facts, layout);
  return layout;
}

/** One layout for one set of facts, so that what is worked out from it can be kept beside it. */
const layouts = new WeakMap<VehicleFacts, Layout>();
