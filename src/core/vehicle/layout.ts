import { inSentence } from "../sentence";
import * as charge from "./circuits/charge";
import * as crankcase from "./circuits/crankcase";
import * as egr from "./circuits/egr";
import * as exhaust from "./circuits/exhaust";
import * as intake from "./circuits/intake";
import * as manifold from "./circuits/manifold";
import { always, type JointRow, seal, usual } from "./circuits/parts";
import * as secondaryAir from "./circuits/secondary-air";
import * as vacuum from "./circuits/vacuum";
import * as vapour from "./circuits/vapour";
import { TAPPABLE, type VehicleFacts } from "./facts";

/** Every circuit of gas paths. Adding one adds its file and its line here. */
const CIRCUITS = [intake, charge, manifold, vacuum, crankcase, vapour, egr, exhaust, secondaryAir];
export type ZoneId = (typeof CIRCUITS)[number]["ZONES"][number]["id"];

/** Zones by their id, each as it is called on most vehicles. */
export const ZONE_NAMES = Object.fromEntries(
  CIRCUITS.flatMap((c) => c.ZONES.map((z): [ZoneId, string] => [z.id, z.name])).toReversed(),
) as Readonly<Record<ZoneId, string>>;
export const ZONE_IDS = Object.keys(ZONE_NAMES) as ZoneId[];

/** A stretch that one smoke fill reaches. */
export interface Zone {
  readonly id: ZoneId;
  readonly name: string;
  /** Typical gas volume, m³: for fill times and order of magnitude only. */
  readonly volume: number;
}

/** Zones that make up the vapour system. */
export const EVAP_ZONES: readonly ZoneId[] = vapour.ZONES.map((z) => z.id);

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
  /** A hose, pipe or cap that comes off here: smoke can be let in */
  readonly end?: HoseEnd;
  /** Joint whose adapter stands on it: hidden with that one */
  readonly seatOf?: string;
  /** Joint whose adapter pushes it open */
  readonly pushedBy?: string;
  /** Passes some gas by design, so a flow through it is no finding by itself */
  readonly weeps?: true;
  /** A hose that can be pinched or capped without taking anything apart */
  readonly pinchable?: true;
  /** Zone that a pinchable hose leads to */
  readonly feeds?: ZoneId;
}

/** What comes off at the end of a hose, pipe or line. */
export interface HoseEnd {
  readonly removes: string;
  /** What setting up and reading a run from here takes */
  readonly minutes: number;
  /** The trade goes in here first; the rest are ways in where those do not do */
  readonly usual?: true;
  /** Joint that it slides on to, where it is no joint of two zones itself: what lies beyond falls off with it */
  readonly at?: string;
}

export interface Layout {
  readonly zones: readonly Zone[];
  readonly joints: readonly Joint[];
}

/** The joint of a port tapped into a zone. */
export const tappedPort = (zone: ZoneId): string => `tapped-${zone}`;

/** Every joint that some vehicle has; a record that names any other names nothing. */
export const JOINT_IDS: ReadonlySet<string> = new Set([
  ...CIRCUITS.flatMap((circuit) => circuit.JOINTS.map(({ joint }) => joint.id)),
  ...TAPPABLE.map(tappedPort),
]);

/** Ports that were tapped into this vehicle: each stays, can leak, and is a way in. */
const tapped = (facts: VehicleFacts, zones: readonly Zone[]): JointRow[] =>
  zones
    .filter(({ id }) => facts.tapped?.some((zone) => zone === id))
    .map(({ id, name }) =>
      seal(always, tappedPort(id), `Tapped port, ${inSentence(name)}`, id, { end: usual("plug out of the tapped port", 22) }),
    );

/** The gas paths of this vehicle: what its facts say is fitted, and no more. */
export function layoutOf(facts: VehicleFacts): Layout {
  const known = layouts.get(facts);
  if (known) return known;
  const zones = CIRCUITS.flatMap((circuit): Zone[] =>
    circuit.ZONES.filter(({ when }) => when(facts)).map(({ id, name, volume }) => ({
      id,
      name,
      volume: typeof volume === "number" ? volume : volume(facts),
    })),
  );
  const joints = [...CIRCUITS.flatMap((circuit) => circuit.JOINTS), ...tapped(facts, zones)];
  const layout = { zones, joints: joints.filter(({ when }) => when(facts)).map(({ joint }) => joint) };
  layouts.set(facts, layout);
  return layout;
}

/** One layout for one set of facts, so that what is worked out from it can be kept beside it. */
const layouts = new WeakMap<VehicleFacts, Layout>();
