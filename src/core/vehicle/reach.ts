import { inSentence } from "../sentence";
import { EVAP_ZONES, type Joint, type Layout, type ZoneId } from "./layout";

/** The gas path that an entry is for: the engine's own, or the one that keeps fuel vapour in. */
export type Circuit = "intake" | "evap";

export interface FillSetup {
  /** Joint where smoke is let in. */
  readonly entry: string;
  /** Which side of it, where it is not the usual one: into the pipe or into what the pipe came off */
  readonly into?: ZoneId | undefined;
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

/** Joint that a hose end slides on to: its own, the one it is named for, or what ties its zone to the one it feeds. */
function tieAt({ joints }: Layout, joint: Joint): Joint | undefined {
  if (joint.to !== "outside") return joint;
  const { from, feeds, end } = joint;
  if (end?.at) return joints.find((j) => j.id === end.at);
  return joints.find((j) => (j.from === from && j.to === feeds) || (j.from === feeds && j.to === from));
}

/** The zones that smoke can be let into at a hose's end, the usual one first. */
export function sidesOf(layout: Layout, entry: Joint): ZoneId[] {
  if (entry.to !== "outside") return [entry.to, entry.from];
  const tie = tieAt(layout, entry);
  const beyond = tie && (tie.from === entry.from ? tie.to : tie.from);
  return beyond && beyond !== "outside" ? [entry.from, beyond] : [entry.from];
}

/** Joints that letting smoke in there keeps out of the test: the end itself, its seat, and what falls apart with it. */
export function hiddenAt(layout: Layout, entry: Joint): string[] {
  const tie = entry.end && tieAt(layout, entry);
  return layout.joints.filter((j) => j === entry || j === tie || j.seatOf === entry.id).map((j) => j.id);
}

/** Start of a fill: its zone, and the joint that falls apart there. None where it is shut off right there. */
function startOf(layout: Layout, setup: FillSetup, entry: Joint): { zone?: ZoneId; apart?: Joint } {
  const tie = entry.end ? tieAt(layout, entry) : undefined;
  const [usual] = sidesOf(layout, entry);
  const zone = setup.into ?? usual;
  // The far side of a valve or compressor is reached through it.
  const through = tie && tie.id !== entry.id && zone !== usual && !passes(tie, entry.from, setup);
  return { ...(zone && !through ? { zone } : {}), ...(tie ? { apart: tie } : {}) };
}

/** Why nothing can be let in there; undefined where it can. */
export function noWayIn(layout: Layout, setup: FillSetup): string | undefined {
  const entry = layout.joints.find((j) => j.id === setup.entry);
  if (!entry) return "this vehicle has no such entry point";
  const name = inSentence(entry.name);
  if (!entry.end) return `no hose, pipe or cap ends at the ${name}: nothing can be let in there`;
  const by = entryZone(layout, setup) === undefined && tieAt(layout, entry);
  return by ? `the ${inSentence(by.name)} shuts it off right there, so nothing is filled. Try its other end` : undefined;
}

/**
 * Joints that a low-pressure smoke fill reaches from any hose's end, engine standing: a walk over open joints. What the hose
 * came off, or what came off with it, is not part of the fill.
 * A one-way valve passes towards the manifold only, so smoke from the manifold does not enter its branch.
 * Throws RangeError when the entry is not a joint of the layout, or has no such side.
 */
export function reachOf(layout: Layout, setup: FillSetup): Reach {
  const entry = layout.joints.find((joint) => joint.id === setup.entry);
  if (!entry) throw new RangeError(`There is no entry "${setup.entry}" on this vehicle`);
  if (setup.into && !sidesOf(layout, entry).includes(setup.into))
    throw new RangeError(`Nothing lets smoke into "${setup.into}" at "${entry.id}"`);
  const { zone: start, apart } = startOf(layout, setup, entry);
  const hidden = hiddenAt(layout, entry);
  const reached = walk(layout, setup, start, [apart?.id]);
  const engine = layout.joints.filter((joint) => joint.kind === "engine").map((joint) => joint.id);
  const before = walk(layout, setup, start, [apart?.id, ...engine]);
  const volumeOf = (zones: ReadonlySet<ZoneId>) =>
    layout.zones.filter((z) => zones.has(z.id)).reduce((sum, z) => sum + z.volume, 0);
  const isBefore = (zone: Joint["to"]) => zone !== "outside" && before.has(zone);
  const outside = layout.joints.filter((j) => j.to === "outside" && reached.has(j.from) && j.id !== entry.id);
  return {
    zones: layout.zones.filter((z) => reached.has(z.id)).map((z) => z.id),
    behindEngine: layout.zones.filter((z) => reached.has(z.id) && !before.has(z.id)).map((z) => z.id),
    volume: volumeOf(reached),
    intakeVolume: volumeOf(before),
    openEnds: outside.filter((j) => j.kind === "opening" && !setup.blocked.includes(j.id)),
    tested: layout.joints.filter((j) => {
      if (hidden.includes(j.id) || setup.blocked.includes(j.id)) return false;
      return j.kind === "seal" ? before.has(j.from) : j.kind === "pipe" && (before.has(j.from) || isBefore(j.to));
    }),
    stopped: stops(layout, reached, start === undefined ? apart : undefined),
  };
}

/**
 * Where smoke of a fill may be seen: the joints that it puts to the test, and whatever else it gets to: plugs, open ends,
 * what passes some by design or between two zones. The hose hides its own way in. Throws RangeError as `reachOf` does.
 */
export function markable(
  layout: Layout,
  setup: FillSetup,
  circuit: Circuit,
): { readonly tested: readonly Joint[]; readonly rest: readonly Joint[] } {
  const reach = reachOf(layout, setup);
  const tested = circuit === "evap" ? reach.tested.filter((j) => EVAP_ZONES.includes(j.from)) : reach.tested;
  const hidden = hiddenAt(layout, layout.joints.find((j) => j.id === setup.entry) as Joint);
  const rest = layout.joints.filter(
    (j) =>
      !tested.includes(j) &&
      !hidden.includes(j.id) &&
      EVAP_ZONES.includes(j.from) === (circuit === "evap") &&
      [j.from, j.to].some((z) => reach.zones.includes(z as ZoneId)) &&
      // Nobody looks into the engine.
      ![j.from, j.to].some((z) => reach.behindEngine.includes(z as ZoneId)),
  );
  return { tested, rest };
}

/** Zones not reached, each with the joint that stops the fill on the way to it; what lies behind one stops with it. */
function stops(layout: Layout, reached: ReadonlySet<ZoneId>, atOnce: Joint | undefined): Reach["stopped"] {
  if (atOnce) return layout.zones.map(({ id }) => ({ zone: id, by: atOnce }));
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

/** The zone that smoke let in at a joint enters first; undefined where it is shut off right there. */
export function entryZone(layout: Layout, setup: FillSetup): ZoneId | undefined {
  const entry = layout.joints.find((j) => j.id === setup.entry);
  return entry && startOf(layout, setup, entry).zone;
}

/** Every zone that gas passes to from `start` over open joints, those of `apart` left out. */
function walk(layout: Layout, setup: FillSetup, start: ZoneId | undefined, apart: readonly (string | undefined)[]): Set<ZoneId> {
  const queue: ZoneId[] = start ? [start] : [];
  const reached = new Set<ZoneId>(queue);
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
 * EVAP the vent shut, and what the adapter pushes open. Nothing where the vehicle has no such entry.
 */
export function usualSetup(layout: Layout, entry: string, into?: ZoneId): FillSetup {
  const at = layout.joints.find((joint) => joint.id === entry);
  // A draft may have come to a car that has no such way in: nothing is set up there.
  if (!at) return { entry, blocked: [], heldOpen: [] };
  const vapour = circuitOf(at) === "evap";
  const open = {
    entry,
    ...(into ? { into } : {}),
    blocked: vapour ? ["vent-valve"] : [],
    heldOpen: layout.joints
      .filter((j) => (vapour ? j.pushedBy === entry : j.kind === "throttle" && j.rest !== "open"))
      .map((j) => j.id),
  };
  return { ...open, blocked: [...open.blocked, ...reachOf(layout, open).openEnds.map((joint) => joint.id)] };
}

/** The circuit that an entry is for. */
const circuitOf = ({ from }: Joint): Circuit => (EVAP_ZONES.includes(from) ? "evap" : "intake");

/** Every hose's end that smoke can be let in at, of one circuit: the usual ways in first. */
export const hoseEnds = (layout: Layout, circuit: Circuit = "intake"): Joint[] =>
  layout.joints
    .filter((joint) => joint.end && !joint.end.former && circuitOf(joint) === circuit)
    .toSorted((a, b) => Number(b.end?.usual ?? false) - Number(a.end?.usual ?? false));

/** The usual ways in of one circuit. */
export const entriesOf = (layout: Layout, circuit: Circuit = "intake"): Joint[] =>
  hoseEnds(layout, circuit).filter((joint) => joint.end?.usual);

/** Those of some entries whose usual setup puts joints to the test that others left out or hid, most first; quickest first among equals. */
export function thatTest(layout: Layout, entries: readonly Joint[], untested: readonly string[]): Joint[] {
  const gains = entries.map((entry) => {
    const tested = new Set(reachOf(layout, usualSetup(layout, entry.id)).tested.map((j) => j.id));
    return { entry, gain: untested.filter((id) => tested.has(id)).length };
  });
  return gains
    .filter(({ gain }) => gain > 0)
    .toSorted((a, b) => b.gain - a.gain || (a.entry.end?.minutes ?? 0) - (b.entry.end?.minutes ?? 0))
    .map(({ entry }) => entry);
}

/** The same among the ways into a circuit: its usual ones, or another hose's end where none of them gets there. */
export function entriesFor(layout: Layout, circuit: Circuit, untested: readonly string[]): Joint[] {
  const usual = thatTest(layout, entriesOf(layout, circuit), untested);
  return usual.length > 0 ? usual : thatTest(layout, hoseEnds(layout, circuit), untested);
}
