import { CAUTION_TEXTS } from "../checks";
import { findingPlaces } from "../faults";
import { type Draft, formOf, linesOf, type Option } from "../form";
import type { Layout, VehicleFacts } from "../vehicle";
import { disabledBy } from "./emission";
import {
  ANYWHERE,
  type Bodies,
  CLEANED,
  CULPRITS,
  isVictim,
  METHODS,
  type Method,
  type Permanence,
  repairSchema,
} from "./entries";
import { ELSEWHERE, placeName } from "./places";
import type { JobState } from "./state";
import { onlyCleaned, partLine, partOf, torqueLine, torqueOf } from "./typed";

type Repair = Bodies["repair"];

export const PERMANENCE: Readonly<Record<Permanence, string>> = {
  permanent: "Permanent",
  temporary: "Temporary",
  bypass: "Diagnostic bypass",
};

interface Known {
  /** Findings that nothing repairs yet, with where each is */
  readonly open: readonly { readonly entry: string; readonly name: string; readonly place: string }[];
  /** Every place that may be worked on */
  readonly places: readonly Option[];
  /** Hoses, caps and plugs that may stay off or in */
  readonly joints: readonly Option[];
  /** What a bypass at these places disables, and what comes of it */
  readonly disables: (places: readonly string[]) => string;
}

/** What a repair need not ask: what is found and not repaired yet, and where. */
export function knownOfRepair(
  { findings }: Pick<JobState, "findings">,
  car: { readonly layout: Layout; readonly vehicle: VehicleFacts } | undefined,
): Known {
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

type Holding = { holds: (name: string) => unknown };
const methodOf = ({ holds }: Holding) => holds("method") as Method | undefined;
const victim = (given: Holding) => {
  const method = methodOf(given);
  const places = given.holds("places");
  return method !== undefined && isVictim({ method, places: Array.isArray(places) ? places : [] });
};
const burned = (given: Holding) => methodOf(given) === "regenerated";
const temporary = ({ holds }: Holding) => holds("permanence") === "temporary";
const substituted = ({ holds }: Holding) => String(holds("substitute.what") ?? "").trim() !== "";
const GO_AHEAD = "The customer agreed";

/** The repair: what, where, how lasting, with what parts, time and go-ahead; what else was changed and what is still off. */
export const repairForm = formOf<Repair, Known>()({
  schema: repairSchema,
  fields: {
    finding: {
      type: "choice",
      list: true,
      label: "Repairs which finding",
      options: ({ known }) => [...known.open.map((f): Option => [f.entry, f.name]), ["", "No finding recorded"]],
      silent: "",
      holds: ({ known }) => known.open[0]?.entry ?? "",
    },
    what: { type: "text", long: true, label: "What was done", example: "Manifold gasket renewed, bolts in sequence" },
    places: {
      type: "marks",
      list: true,
      label: "Worked on, every place",
      options: ({ known }) => known.places,
      holds: ({ known, holds }) => known.open.filter((f) => f.entry === holds("finding")).map((f) => f.place),
    },
    method: {
      type: "choice",
      label: "The part was",
      options: Object.entries(METHODS),
      hint: (given) =>
        methodOf(given) === "cleaned" && victim(given)
          ? `${CAUTION_TEXTS["filter-cleaner"]} Unplugged for it, a sensor sets a code of our own: clear and read again`
          : burned(given)
            ? `${CAUTION_TEXTS.regeneration} Before it: cause cured, sensor at zero and pipes sound, oil level and its dilution, fuel enough`
            : undefined,
    },
    culprit: {
      type: "choice",
      label: "What loaded it",
      options: Object.entries(CULPRITS),
      when: victim,
      needed: () => "Say what loaded it, or that it was not found yet: cleaned alone, it loads again",
    },
    "regeneration.by": {
      type: "choice",
      label: "Regeneration",
      options: [
        ["commanded", "Commanded"],
        ["driven", "Driven"],
      ],
      when: burned,
      needed: () => "Say whether it was commanded or driven",
    },
    "regeneration.hottest": {
      type: "quantity",
      label: "Hottest before the filter",
      band: "exhaustTemperature",
      unit: "°C",
      units: ["°C", "°F"],
      example: "620",
      when: burned,
    },
    "regeneration.sootBefore": { type: "number", label: "Soot before, g", example: "28", when: burned },
    "regeneration.sootAfter": { type: "number", label: "Soot after, g", example: "4", when: burned },
    permanence: {
      type: "choice",
      label: "How lasting",
      options: Object.entries(PERMANENCE),
      holds: () => "permanent",
      hint: ({ known, holds }) =>
        holds("permanence") === "bypass"
          ? known.disables(Array.isArray(holds("places")) ? (holds("places") as string[]) : [])
          : holds("permanence") === "permanent" &&
              onlyCleaned({
                method: methodOf({ holds }),
                what: String(holds("what") ?? ""),
                parts: linesOf(String(holds("parts") ?? "")),
              })
            ? CLEANED
            : undefined,
    },
    recheck: {
      type: "text",
      time: "day",
      label: "Re-check on",
      when: temporary,
      needed: () => "A temporary repair needs a re-check date",
    },
    limit: {
      type: "text",
      label: "Its limit",
      example: "two weeks, no motorway",
      when: temporary,
      needed: () => "A temporary repair needs a limit: how far, how long, until what",
    },
    labour: { type: "number", at: "labourMinutes", label: "Labour, minutes", bare: "min", example: "45", free: true },
    parts: {
      type: "lines",
      label: "Parts, one a line",
      read: partOf,
      write: partLine,
      example: "1 manifold gasket\n6 bolts",
    },
    otherChanges: { type: "lines", label: "Also changed along the way, one a line", example: "air filter renewed" },
    off: {
      type: "marks",
      list: true,
      label: "Hoses, caps and plugs still off or in",
      options: ({ known }) => known.joints,
      aside: true,
    },
    displaced: { type: "lines", label: "Covers and panels not yet back, one a line", example: "engine cover", aside: true },
    "substitute.what": {
      type: "text",
      label: "Substitute hose, sealant or glue, if one was used",
      example: "fuel hose by the metre",
    },
    "substitute.medium": { type: "text", label: "What it may touch", example: "fuel vapour", when: substituted },
    "substitute.temperature": {
      type: "quantity",
      label: "Heat it bears",
      band: "bearable",
      unit: "°C",
      units: ["°C", "°F"],
      example: "120",
      when: substituted,
    },
    "substitute.suction": {
      type: "quantity",
      label: "Suction it bears",
      hint: "What is not known of a substitute makes the repair a temporary one",
      band: "vacuum",
      unit: "inHg",
      units: ["inHg", "kPa", "mmHg"],
      example: "25",
      when: substituted,
    },
    torques: {
      type: "lines",
      label: "Torques, one a line",
      read: torqueOf,
      write: torqueLine,
      optional: true,
      example: "manifold nuts 20 N·m\nthrottle body 9 N·m",
    },
    fasteners: {
      type: "text",
      long: true,
      label: "Fasteners: clamps moved over, seals oiled, latches tugged, bolts renewed",
    },
    goAhead: { type: "tick", label: "The customer gave the go-ahead", aside: true },
    pictures: { type: "taken", label: "Pictures" },
  },
  also: (read, { holds }) => ({
    labourMinutes: read.labourMinutes ?? 0,
    ...(holds("goAhead") === true ? { goAhead: GO_AHEAD } : {}),
  }),
});

/** What stays off or in for now, as a repair's form holds it: each is owed until it is back. */
export function stillOff(draft: Draft, { joints }: Pick<Known, "joints">): Bodies["displaced"][] {
  const off = Array.isArray(draft.off) ? draft.off : [];
  return [
    ...joints.filter(([id]) => off.includes(id)).map(([joint, name]) => ({ what: `${name} off`, joint })),
    ...linesOf(typeof draft.displaced === "string" ? draft.displaced : "").map((what) => ({ what, elsewhere: true as const })),
  ];
}
