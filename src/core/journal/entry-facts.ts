import { CHECKS } from "../checks";
import { findingPlaces } from "../faults";
import type { Option } from "../form";
import { type Layout, type VehicleFacts, ZONE_NAMES } from "../vehicle";
import { fuelLevelNow } from "./check-facts";
import { disabledBy } from "./emission";
import {
  ANYWHERE,
  type Decided,
  type DisplacedFacts,
  type FindingFacts,
  type ReadinessFormFacts,
  type RepairFacts,
  type SetAsideFacts,
} from "./entries";
import { ELSEWHERE, placeName } from "./places";
import type { JobState } from "./state";

/** Facts that the form of a repair is not asked for: what is found and not repaired yet, and where. */
export function repairFacts(
  { findings }: Pick<JobState, "findings">,
  car: { readonly layout: Layout; readonly vehicle: VehicleFacts } | undefined,
): RepairFacts {
  const places = car ? findingPlaces(car.layout, car.vehicle) : [];
  return {
    open: findings
      .filter((f) => !f.repairedBy)
      .map((f) => ({ entry: f.entry, name: `${placeName(f.body.joint, places)}: ${f.body.what}`, place: f.body.joint })),
    places: [
      ...places.map((p): Option => [p.id, p.name]),
      [ELSEWHERE, "Another place"],
      [ANYWHERE, "All over, or nobody can say"],
    ],
    joints: (car?.layout.joints ?? []).map((j) => [j.id, j.name]),
    disables: (at) => {
      const off = car ? disabledBy(at, car.layout) : [];
      return `It stands on the list until it is undone${off.length > 0 ? `; it disables ${off.join(" and ")}: an emission device is not left so` : ""}`;
    },
  };
}

/** How many suspects are offered before the circuits. */
const LIKELY = 4;

/** Facts that the form of a finding is not asked for: the place that a check pointed at last, or that is suspected most. */
export function findingFacts(
  state: Pick<JobState, "checks" | "suspects">,
  { layout, vehicle }: { readonly layout: Layout; readonly vehicle: VehicleFacts },
): FindingFacts {
  const all = findingPlaces(layout, vehicle);
  const named = (id: string | undefined) => all.find((p) => p.id === id);
  const pointed = state.checks.flatMap((c) =>
    c.verdict.zones.flatMap((z) => (z.state === "leaking" && z.joint ? [z.joint] : [])),
  );
  const suspected = state.suspects.flatMap(({ cause }) => named(cause.joint ?? cause.device ?? cause.id)?.id ?? []);
  const likely = [...new Set([...pointed.toReversed(), ...suspected])].slice(0, LIKELY);
  const zoneOf = (id: string) => layout.joints.find((j) => j.id === id)?.from;
  const option = (id: string): Option => [id, named(id)?.name ?? id];
  const circuits = [...new Set(all.map((p) => zoneOf(p.id)))].map((zone) => ({
    name: zone ? ZONE_NAMES[zone] : "No joint of its own",
    places: all.filter((p) => zoneOf(p.id) === zone).map((p) => option(p.id)),
  }));
  const last = pointed.at(-1);
  const place = named(last)
    ? { id: last as string, because: "Where a check pointed last" }
    : suspected[0]
      ? { id: suspected[0], because: "Suspected most: change it where something else was found" }
      : undefined;
  return {
    groups: [
      ...(likely.length > 0 ? [{ name: "Likely now", places: likely.filter((id) => named(id)).map(option) }] : []),
      ...circuits,
      { name: "Elsewhere", places: [[ELSEWHERE, "Another place"]] },
    ],
    ...(place ? { place } : {}),
    evidence: state.checks.filter((c) => c.verdict.outcome === "fail").map((c) => c.entry),
  };
}

/** Facts that the form of a thing taken off is not asked for; a car that nobody described has no places yet. */
export const displacedFacts = (layout: Layout | undefined): DisplacedFacts => ({ places: layout?.joints ?? [] });

/**
 * Items that could be left as they are: findings that nothing repairs, checks that fail, codes that are not quiet.
 * @param time how a time is said.
 */
export function setAsideFacts(
  { findings, checks, proof, setAside }: Pick<JobState, "findings" | "checks" | "proof" | "setAside">,
  time: (iso: string) => string,
): SetAsideFacts {
  const already = new Set(setAside.map((s) => s.id));
  return {
    left: [
      ...findings
        .filter((f) => !f.repairedBy && !already.has(f.entry))
        .map((f): Option => [`finding ${f.entry}`, `Found: ${f.body.what}`]),
      ...checks
        .filter((c) => c.verdict.outcome === "fail" && !c.onBench && !already.has(c.entry))
        .map(
          (c): Option => [
            `check ${c.entry}`,
            `${CHECKS[c.check].name}, ${time(typeof c.at === "string" ? c.at : c.at.from)}: ${c.verdict.headline}`,
          ],
        ),
      ...proof.codes.filter((c) => !c.quiet).map((c): Option => [`code ${c.code}`, `Code ${c.code}`]),
    ],
  };
}

/** Facts that a handover is decided on. */
export const decidedOf = ({ lastSeq, blocks }: Pick<JobState, "lastSeq" | "blocks">): Decided => ({
  decidedOn: lastSeq,
  conditional: blocks.close.length > 0,
  ...(blocks.close.length > 0 && blocks.close.every((b) => b.onRoad) ? { onRoad: true } : {}),
});

/** Known facts of a car that is parked for its monitor: its fuel, as a check had it last. */
export const readinessFacts = (
  state: Pick<JobState, "checks" | "drives">,
  now: ReadinessFormFacts["now"],
): ReadinessFormFacts => {
  const level = fuelLevelNow(state);
  return { now, ...(level === undefined ? {} : { fuelLevel: level }) };
};
