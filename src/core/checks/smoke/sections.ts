import { holeArea } from "../../gas/orifice";
import { formatNumber } from "../../units";
import { entryZone, type FillSetup, type Joint, type Layout, reachOf, type ZoneId } from "../../vehicle";
import type { Together } from "../contract";
import { jointName, type Verdict } from "../verdict";
import type { SmokeRun } from "./fields";
import { arrivalsOf } from "./judge";
import { readSmoke } from "./reading";

/** One way to cut the circuit in two: what to shut, what that takes out of the fill, and how well it splits. */
export interface Section {
  /** Joints to pinch, plug or close */
  readonly cuts: readonly string[];
  /** Joints it takes out of the fill */
  readonly takesOut: readonly string[];
  /** Share of the suspicion that lies in what it takes out, 0…1 */
  readonly share: number;
  /** Expected information of the run, bits */
  readonly bits: number;
  readonly minutes: number;
}

/** Minutes of one more run, and of each pinch or plug it needs. */
const RUN_MINUTES = 4;
const CUT_MINUTES = 3;
/** Largest stretch that is cut off as one. */
const LARGEST = 3;

/** Ties that gas passes in a setup, between two zones. */
const ties = (layout: Layout, zones: ReadonlySet<ZoneId>): Joint[] =>
  layout.joints.filter((j) => j.kind !== "engine" && j.to !== "outside" && zones.has(j.from) && zones.has(j.to as ZoneId));

/**
 * Cuts that split the suspect joints of a fill best: connected stretches of up to three zones, away from the entry, shut
 * off at every tie that gas passes; best is most information (binary entropy of the share) per minute.
 * @param odds suspicion of each joint, any scale.
 */
export function proposeSections(layout: Layout, setup: FillSetup, odds: ReadonlyMap<string, number>): Section[] {
  const whole = reachOf(layout, setup);
  const intake = new Set(whole.zones.filter((z) => !whole.behindEngine.includes(z)));
  const all = ties(layout, intake).filter((j) => !setup.blocked.includes(j.id));
  const start = entryZone(layout, setup);
  const total = whole.tested.reduce((sum, j) => sum + (odds.get(j.id) ?? 0), 0);
  if (!(total > 0)) return [];
  const stretches = new Map<string, ZoneId[]>();
  const grow = (zones: ZoneId[]) => {
    const key = [...zones].sort().join();
    if (stretches.has(key)) return;
    stretches.set(key, zones);
    if (zones.length >= LARGEST) return;
    for (const tie of all) {
      const [a, b] = [tie.from, tie.to as ZoneId];
      const next = zones.includes(a) && !zones.includes(b) ? b : zones.includes(b) && !zones.includes(a) ? a : undefined;
      if (next && next !== start) grow([...zones, next]);
    }
  };
  for (const zone of intake) if (zone !== start) grow([zone]);
  const sections = [...stretches.values()].flatMap((zones): Section[] => {
    const cuts = all.filter((j) => zones.includes(j.from) !== zones.includes(j.to as ZoneId)).map((j) => j.id);
    if (cuts.length === 0 || cuts.length > 3) return [];
    const rest = new Set(reachOf(layout, { ...setup, blocked: [...setup.blocked, ...cuts] }).tested.map((j) => j.id));
    const takesOut = whole.tested.filter((j) => !rest.has(j.id) && !cuts.includes(j.id)).map((j) => j.id);
    const share = takesOut.reduce((sum, id) => sum + (odds.get(id) ?? 0), 0) / total;
    if (takesOut.length === 0 || !(share > 0.01 && share < 0.99)) return [];
    const bits = -(share * Math.log2(share) + (1 - share) * Math.log2(1 - share));
    return [{ cuts, takesOut, share, bits, minutes: RUN_MINUTES + CUT_MINUTES * cuts.length }];
  });
  return sections.sort((a, b) => b.bits / b.minutes - a.bits / a.minutes).slice(0, 4);
}

/** A fall of the reading counts when it is beyond its own interval and more than this share of the whole. */
const TELLING = 0.12;

/**
 * Reads smoke runs of different sections together. Each pair of which one tested a part of what the other did is a
 * comparison: the opening (area of the equivalent hole) that went away lies in the part that was shut off; one that stays
 * lies in what was still smoked. A part that passes gas by design is named as such and is no finding.
 * @param runs not void, oldest first. @returns undefined while no two runs can be compared.
 */
export function readSections(
  runs: readonly { readonly run: SmokeRun; readonly verdict: Verdict }[],
  layout: Layout,
): Together | undefined {
  const read = runs.flatMap(({ run, verdict }) => {
    if (verdict.outcome === "void") return [];
    const reach = reachOf(layout, run);
    // Smoke where this set-up sends none: what was filled is not what is written down.
    if (arrivalsOf(run, reach, layout).astray) return [];
    const { hole, flow } = readSmoke(run, reach);
    if (!hole || !flow?.settled) return [];
    const area = (d: number) => holeArea(d) * 1e6;
    return [
      {
        // Another way in, throttle or crank is another opening: only runs alike in these can be held against each other.
        setup: [run.entry, run.into ?? "", [...run.heldOpen].sort().join(), run.crank ?? ""].join("|"),
        tested: new Set(reach.tested.map((j) => j.id)),
        blocked: run.blocked,
        area: area(hole.diameter),
        sd: (area(hole.high) - area(hole.low)) / 3.92,
      },
    ];
  });
  const says: string[] = [];
  let within: string[] | undefined;
  const cleared = new Set<string>();
  const name = (id: string) => jointName(layout, id);
  for (const [i, wide] of read.entries()) {
    for (const [k, narrow] of read.entries()) {
      if (i === k || narrow.setup !== wide.setup) continue;
      const shut = narrow.blocked.filter((id) => !wide.blocked.includes(id));
      if (shut.length === 0 || wide.blocked.some((id) => !narrow.blocked.includes(id))) continue;
      const out = [...wide.tested].filter((id) => !narrow.tested.has(id) && !shut.includes(id));
      const fall = wide.area - narrow.area;
      const sd = Math.hypot(wide.sd, narrow.sd);
      const fell = fall > 1.96 * sd && fall > TELLING * wide.area;
      const cut = shut.map(name).join(" and ");
      const size = (area: number) => `${formatNumber(Math.sqrt((4 * Math.max(0, area)) / Math.PI), 1)} mm`;
      const weep = shut.find((id) => layout.joints.find((j) => j.id === id)?.weeps);
      // A fall through a part that passes gas by design is that part's until its far side is smoked by itself.
      if (weep && shut.length === 1) {
        says.push(
          fell
            ? `${name(weep)} weeps by design: ${size(fall)} of the opening; ${size(narrow.area)} is left without it`
            : `${name(weep)} plugged changes nothing: the opening is elsewhere`,
        );
        continue;
      }
      if (out.length === 0) continue;
      const part = fell ? [...out, ...shut] : [...narrow.tested];
      for (const id of fell ? narrow.tested : out) cleared.add(id);
      within = within ? within.filter((id) => part.includes(id)) : part;
      says.push(
        fell
          ? `With ${cut} shut the opening falls by ${size(fall)}: it lies in ${out.map(name).join(", ")}`
          : `With ${cut} shut the opening stays: it lies in what is still smoked, not in ${out.map(name).join(", ")}`,
      );
    }
  }
  if (says.length === 0) return undefined;
  // Two falls that do not meet are two leaks: neither clears the other's part.
  const found = within && within.length > 0 ? within : [];
  return { observation: "section-within", within: found, cleared: [...cleared].filter((id) => !found.includes(id)), says };
}
