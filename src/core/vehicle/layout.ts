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
import type { JointIn } from "./joint";

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

/** A joint of some vehicle's gas paths. */
export type Joint = JointIn<ZoneId>;

export interface Layout {
  readonly zones: readonly Zone[];
  readonly joints: readonly Joint[];
}

/** Every joint of every circuit; one that ties a zone of no circuit does not compile. */
const JOINTS: readonly JointRow<ZoneId>[] = CIRCUITS.flatMap((circuit): readonly JointRow<ZoneId>[] => circuit.JOINTS);

/** The joint of a port tapped into a zone. */
export const tappedPort = (zone: ZoneId): string => `tapped-${zone}`;

/** Every joint that some vehicle has; a record that names any other names nothing. */
export const JOINT_IDS: ReadonlySet<string> = new Set([...JOINTS.map(({ joint }) => joint.id), ...TAPPABLE.map(tappedPort)]);

/** Ports that were tapped into this vehicle: each stays, can leak, and is a way in. */
const tapped = (facts: VehicleFacts, zones: readonly Zone[]): JointRow<ZoneId>[] =>
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
  const joints = [...JOINTS, ...tapped(facts, zones)];
  const layout = { zones, joints: joints.filter(({ when }) => when(facts)).map(({ joint }) => joint) };
  layouts.set(facts, layout);
  return layout;
}

/** One layout for one set of facts, so that what is worked out from it can be kept beside it. */
const layouts = new WeakMap<VehicleFacts, Layout>();
