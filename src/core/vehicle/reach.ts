import type { Circuit, Joint, Layout, ZoneId } from "./layout";

export interface FillSetup {
  /** Joint where smoke is let in. */
  readonly entry: string;
  /** Joints sealed by a plug, bladder, cone or clamp. */
  readonly blocked: readonly string[];
  /** Joints held open by a command, the pedal or by hand (throttle, valves). */
  readonly heldOpen: readonly string[];
}

export interface Reach {
  readonly zones: readonly ZoneId[];
  /** Zones reached only through the open valves of the standing engine: no part of an intake's proof. */
  readonly behindEngine: readonly ZoneId[];
  /** Gas volume of the reached zones, m³ */
  readonly volume: number;
  /** Of it what lies before the engine's valves, m³: what smoke has to sweep */
  readonly intakeVolume: number;
  /** Ends open to the outside that the fill would escape by: seal them. */
  readonly openEnds: readonly Joint[];
  /** Seals and pipe joints before the engine's valves that the fill puts to the test; the hose hides the entry itself. */
  readonly tested: readonly Joint[];
  /** Zones the fill does not reach, each with the joint that stops it or what lies before it. */
  readonly stopped: readonly { readonly zone: ZoneId; readonly by: Joint }[];
}

/** Whether gas at low pressure passes `joint` out of `zone`, engine standing. */
function passes(joint: Joint, zone: ZoneId, setup: FillSetup): boolean {
  if (setup.blocked.includes(joint.id)) return false;
  if (setup.heldOpen.includes(joint.id)) return true;
  if (joint.rest === "one-way") return joint.to === zone;
  return joint.rest === "open";
}

/**
 * What a low-pressure smoke fill reaches from an entry, engine standing: a walk over open joints.
 * A one-way valve passes towards the manifold only, so smoke from the manifold does not enter its branch.
 * Throws RangeError when the entry is not a joint of the layout.
 */
export function reachOf(layout: Layout, setup: FillSetup): Reach {
  const entry = layout.joints.find((joint) => joint.id === setup.entry);
  if (!entry) throw new RangeError(`There is no entry "${setup.entry}" on this vehicle`);
  const start = entryZone(entry);
  const reached = walk(layout, setup, start, [entry.entry?.severs]);
  const engine = layout.joints.filter((joint) => joint.kind === "engine").map((joint) => joint.id);
  const before = walk(layout, setup, start, [entry.entry?.severs, ...engine]);
  const volumeOf = (zones: ReadonlySet<ZoneId>) =>
    layout.zones.filter((z) => zones.has(z.id)).reduce((sum, z) => sum + z.volume, 0);
  const isBefore = (zone: Joint["to"]) => zone !== "outside" && before.has(zone);
  const outside = layout.joints.filter((j) => j.to === "outside" && reached.has(j.from) && j.id !== entry.id);
  const stopped = stops(layout, reached);
  return {
    zones: layout.zones.filter((z) => reached.has(z.id)).map((z) => z.id),
    behindEngine: layout.zones.filter((z) => reached.has(z.id) && !before.has(z.id)).map((z) => z.id),
    volume: volumeOf(reached),
    intakeVolume: volumeOf(before),
    openEnds: outside.filter((j) => j.kind === "opening" && !setup.blocked.includes(j.id)),
    tested: layout.joints.filter((j) => {
      if (j.id === entry.id || j.id === entry.entry?.severs || setup.blocked.includes(j.id)) return false;
      if (entry.entry?.hides?.includes(j.id)) return false;
      return j.kind === "seal" ? before.has(j.from) : j.kind === "pipe" && (before.has(j.from) || isBefore(j.to));
    }),
    stopped,
  };
}

/** Zones not reached, each with the joint that stops the fill on the way to it; what lies behind one stops with it. */
function stops(layout: Layout, reached: ReadonlySet<ZoneId>): Reach["stopped"] {
  const by = new Map<ZoneId, Joint>();
  const ties = layout.joints.filter((j): j is Joint & { to: ZoneId } => j.to !== "outside");
  for (const joint of ties) {
    if (reached.has(joint.from) !== reached.has(joint.to)) by.set(reached.has(joint.from) ? joint.to : joint.from, joint);
  }
  for (let before = -1; before !== by.size; ) {
    before = by.size;
    for (const { from, to } of ties) {
      const [known, beyond] = by.has(from) ? [from, to] : [to, from];
      if (by.has(known) && !by.has(beyond) && !reached.has(beyond)) by.set(beyond, by.get(known) as Joint);
    }
  }
  return layout.zones.flatMap(({ id }) => {
    const joint = by.get(id);
    return joint ? [{ zone: id, by: joint }] : [];
  });
}

/** The zone that smoke let in at a joint enters first. */
export const entryZone = (entry: Joint): ZoneId => (entry.to === "outside" ? entry.from : entry.to);

/** Every zone that gas passes to from `start` over open joints, those of `apart` left out. */
function walk(layout: Layout, setup: FillSetup, start: ZoneId, apart: readonly (string | undefined)[]): Set<ZoneId> {
  const reached = new Set<ZoneId>([start]);
  const queue: ZoneId[] = [start];
  for (let zone = queue.shift(); zone; zone = queue.shift()) {
    for (const joint of layout.joints) {
      if (apart.includes(joint.id) || joint.to === "outside") continue;
      if (joint.from !== zone && joint.to !== zone) continue;
      const other = joint.from === zone ? joint.to : joint.from;
      if (!reached.has(other) && passes(joint, zone, setup)) {
        reached.add(other);
        queue.push(other);
      }
    }
  }
  return reached;
}

/**
 * The usual setup from an entry, every opening the fill would escape by sealed: on the intake the throttle held open; on
 * EVAP the vent shut, and what the adapter pushes open.
 */
export function usualSetup(layout: Layout, entry: string): FillSetup {
  const at = layout.joints.find((joint) => joint.id === entry)?.entry;
  const has = (id: string) => layout.joints.some((joint) => joint.id === id);
  const vapour = at?.circuit === "evap";
  const open = {
    entry,
    blocked: vapour ? ["vent-valve"] : [],
    heldOpen: vapour
      ? [at.opens ?? ""].filter(has)
      : layout.joints.filter((joint) => joint.kind === "throttle").map((joint) => joint.id),
  };
  return { ...open, blocked: [...open.blocked, ...reachOf(layout, open).openEnds.map((joint) => joint.id)] };
}

/** The joints smoke can be let in by, of one circuit. */
export const entriesOf = (layout: Layout, circuit: Circuit = "intake"): Joint[] =>
  layout.joints.filter((joint) => joint.entry?.circuit === circuit);

/** Entries whose usual setup puts joints to the test that others left out or hid, most first; quickest first among equals. */
export function entriesFor(layout: Layout, circuit: Circuit, untested: readonly string[]): Joint[] {
  const gain = (entry: Joint) => {
    const tested = new Set(reachOf(layout, usualSetup(layout, entry.id)).tested.map((j) => j.id));
    return untested.filter((id) => tested.has(id)).length;
  };
  return entriesOf(layout, circuit)
    .filter((e) => gain(e) > 0)
    .toSorted((a, b) => gain(b) - gain(a) || (a.entry?.minutes ?? 0) - (b.entry?.minutes ?? 0));
}
