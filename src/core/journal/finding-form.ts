import { findingPlaces } from "../faults";
import { formOf, type Option } from "../form";
import { type Layout, type VehicleFacts, ZONE_NAMES } from "../vehicle";
import { type Bodies, CONFIRMATIONS, FAILURE_CAUSES, findingSchema, RESIDUES } from "./entries";
import { ELSEWHERE } from "./places";
import type { JobState } from "./state";

type Finding = Bodies["finding"];

/** Where something may be found, in groups: what is likely now, then circuit by circuit. */
export interface PlaceGroup {
  readonly name: string;
  readonly places: readonly Option[];
}

interface Known {
  readonly groups: readonly PlaceGroup[];
  /** Where it is taken to be until another place is chosen, and why */
  readonly place?: { readonly id: string; readonly because: string };
  /** Checks that showed the fault */
  readonly evidence: readonly string[];
}

/** How many suspects are offered before the circuits. */
const LIKELY = 4;

/** What a finding need not ask: the place that a check pointed at last, or that is suspected most. */
export function knownOfFinding(
  state: Pick<JobState, "checks" | "suspects">,
  { layout, vehicle }: { readonly layout: Layout; readonly vehicle: VehicleFacts },
): Known {
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

/** Pinned to one place: what was found there, how sure that is, and why it failed. */
export const findingForm = formOf<Finding, Known>()({
  schema: findingSchema,
  fields: {
    joint: {
      type: "choice",
      label: "Where",
      list: true,
      options: ({ known }) => known.groups.flatMap((g) => g.places),
      groups: ({ known }) => known.groups.map((g) => [g.name, g.places]),
      holds: ({ known }) => known.place?.id,
      hint: ({ known, holds }) => (known.place && holds("joint") === known.place.id ? known.place.because : undefined),
    },
    what: {
      type: "text",
      long: true,
      label: "What was found",
      example: "Gasket squeezed out at runner 2, 30 mm of it missing",
    },
    size: {
      type: "quantity",
      label: "Size, if measured (sharp-edged hole)",
      band: "hole",
      unit: "mm",
      units: ["mm", "in", "thou"],
      example: "2.0",
    },
    residue: {
      type: "choice",
      list: true,
      label: "Dye or residue at a seal",
      options: [["", "None seen, or no seal"], ...Object.entries(RESIDUES)],
      silent: "",
      holds: () => "",
    },
    confirmedBy: {
      type: "choice",
      list: true,
      label: "Confirmed",
      options: [["", "Not yet"], ...Object.entries(CONFIRMATIONS)],
      silent: "",
      holds: () => "",
    },
    "failed.why": {
      type: "choice",
      list: true,
      label: "Why it failed",
      options: Object.entries(FAILURE_CAUSES),
      holds: () => "unknown",
    },
    "failed.against": { type: "text", label: "What is done against it", example: "hose routed clear of the bracket" },
    pictures: { type: "taken", label: "Pictures" },
  },
  also: (read, { known }) => ({
    evidence: known.evidence,
    confirmed: read.confirmedBy !== undefined,
  }),
});
