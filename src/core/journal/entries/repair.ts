import { CAUTION_TEXTS, CHECK_IDS, CHECKS } from "../../checks";
import {
  choice,
  type Draft,
  day,
  type FormState,
  fields,
  formOf,
  group,
  linesOf,
  list,
  marks,
  number,
  type Option,
  quantity,
  type RecordOf,
  text,
  tick,
} from "../../form";
import { BadInput, needed } from "../../input";
import { formatNumber, formatQuantity, parseQuantity } from "../../units";
import type { Displaced } from "./displaced";
import { entryKind } from "./entry-kind";
import { entryId, pictures } from "./shared";

/** Work done to the part. */
export const METHODS = {
  renewed: "Renewed",
  repaired: "Repaired or corrected",
  cleaned: "Cleaned",
  regenerated: "Burned free (regeneration)",
} as const;
export type Method = keyof typeof METHODS;

/** Cause that loaded a part that was cleaned or burned free: cleaned alone, it loads again. */
export const CULPRITS = {
  "boost-leak": "Boost leak",
  egr: "EGR",
  injection: "Injection",
  "short-trips": "Short trips",
  oil: "Oil or ash",
  "not-found": "Not found yet",
} as const;

/** How a part that was cleaned off the car was shown to be clean. */
const CLEAN_PROOFS = {
  weight: "Weighed, off the car: as a new one",
  flow: "Its flow measured, off the car: as a new one",
  none: "Not measured, or cleaned on the car",
} as const;

export const PERMANENCE = { permanent: "Permanent", temporary: "Temporary", bypass: "Diagnostic bypass" } as const;
export type Permanence = keyof typeof PERMANENCE;

/** Field that is needed as things stand, and what to do where it is missing. */
const NEEDED = {
  recheck: "A temporary repair needs a re-check date",
  limit: "A temporary repair needs a limit: how far, how long, until what",
  culprit: "Say what loaded it, or that it was not found yet: cleaned alone, it loads again",
  by: "Say whether it was commanded or driven",
} as const;

const part = group({
  name: text({ name: "The part", missing: "Name the part" }),
  count: number({
    name: "The count",
    integer: "Parts are counted: a whole number",
    min: [1, "One part at least"],
    max: [999, "More than 999 parts of one kind"],
  }),
});
type Part = (typeof part)["value"];
const torque = group({
  where: text({ name: "The fastener", missing: "Name the fastener", max: 80 }),
  torque: quantity("torque", { missing: "Type the torque" }),
});
type Torque = (typeof torque)["value"];

/** A part with or without its count: "6 bolts", "6 × bolts", "gasket". */
function partOf(line: string): Part {
  const m = /^(\d+)\s*[×x*]?\s+(.*)$/.exec(line);
  return m ? { count: Number(m[1]), name: m[2] as string } : { count: 1, name: line };
}
const partLine = ({ count, name }: Part): string => `${count} ${name}`;

/** A fastener, then its torque with a unit. Throws BadInput for a line that is not. */
function torqueOf(line: string): Torque {
  const m = /^(.*?)[\s:]+([\d.,]+\s*\S+)$/.exec(line);
  const read = m && parseQuantity(m[2] as string, { dimension: "torque", unit: "N·m" });
  if (!m || !read?.ok)
    throw new BadInput(`"${line}": write the fastener, then its torque, like manifold nuts 20 N·m`, "body.torques");
  return { where: m[1] as string, torque: read.value };
}
const torqueLine = ({ where, torque: { value, unit } }: Torque): string => `${where} ${value} ${unit}`;

const grams = (name: string, example: string) =>
  number({
    name,
    label: `${name}, g`,
    example,
    wrong: `${name} is a number of grams`,
    min: [0, `${name} cannot be negative`],
    max: [500, `${name}: no filter holds so much`],
  }).optional();

/** A filter burned free: by whose command, how hot it got, and the soot before and after, g. */
const regeneration = group({
  by: choice(
    { commanded: "Commanded", driven: "Driven" },
    {
      label: "Regeneration",
      missing: NEEDED.by,
    },
  ),
  hottest: quantity("exhaustTemperature", {
    label: "Hottest before the filter",
    units: ["°C", "°F"],
    example: "620",
  }).optional(),
  sootBefore: grams("Soot before", "28"),
  sootAfter: grams("Soot after", "4"),
});

/** A substitute hose, sealant or glue, and what it can bear. */
const substitute = group({
  what: text({
    name: "The substitute",
    label: "Substitute hose, sealant or glue, if one was used",
    example: "fuel hose by the metre",
    missing: "Say which hose, sealant or glue was used",
  }),
  medium: text({ name: "What it touches", label: "What it may touch", example: "fuel vapour", max: 100 }).optional(),
  temperature: quantity("bearable", { label: "Rated temperature", units: ["°C", "°F"], example: "120" }).optional(),
  suction: quantity(
    { dimension: "pressure" },
    {
      label: "Rated vacuum",
      hint: "What is not known of a substitute makes the repair a temporary one",
      units: ["inHg", "kPa", "mmHg"],
      example: "25",
    },
  )
    .asked({ band: "vacuum" })
    .optional(),
});

/** The repair: what, where, how lasting, with what parts, time and go-ahead; what else was changed along the way. */
const repairFields = fields({
  finding: entryId().asked({ type: "choice", list: true, label: "Repairs which finding", silent: "" }).optional(),
  what: text({
    name: "The repair",
    label: "What was done",
    long: true,
    max: 1000,
    example: "Manifold gasket renewed, bolts in sequence",
    missing: "Say what was done",
  }),
  /** Joints or parts that were worked on; absent where nobody said: then anywhere */
  places: marks<string>(needed("The place", "Name the place", 60), {
    label: "Worked on, every place",
    list: true,
    most: 60,
  }).optional(),
  method: choice(METHODS, { label: "The part was" }).optional(),
  /** Cause that made it necessary, where the part is mostly a victim */
  culprit: choice(CULPRITS, { label: "What loaded it" }).optional(),
  /** Of a part that loads up and was cleaned */
  cleanProof: choice(CLEAN_PROOFS, { label: "How clean it came out", silent: ["none"] }).optional(),
  regeneration: regeneration.optional(),
  permanence: choice(PERMANENCE, { label: "How lasting", defaultValue: "permanent" }),
  recheck: day("The re-check date", { label: "Re-check on" }).optional(),
  /** How far a temporary repair may go: a distance, a speed, a season */
  limit: text({ name: "The limit", label: "Its limit", example: "two weeks, no motorway" }).optional(),
  labourMinutes: number({
    name: "Labour",
    label: "Labour, minutes",
    bare: "min",
    example: "45",
    free: true,
    wrong: "Labour is a number of minutes",
    min: [0, "Labour cannot be negative"],
    max: [10000, "Labour is longer than a week"],
    missing: "Type the labour in minutes",
  }),
  parts: list(part, {
    label: "Parts, one a line",
    example: "1 manifold gasket\n6 bolts",
    max: 50,
    lines: { read: partOf, write: partLine },
  }),
  /** Other things that were was changed along the way: filter, cleaned part, disturbed duct */
  otherChanges: list(text({ name: "The change", missing: "Name the change" }), {
    label: "Also changed along the way, one a line",
    example: "air filter renewed",
    max: 20,
    lines: {},
  }),
  substitute: substitute.optional(),
  torques: list(torque, {
    label: "Torques, one a line",
    example: "manifold nuts 20 N·m\nthrottle body 9 N·m",
    max: 40,
    lines: { read: torqueOf, write: torqueLine },
  }).optional(),
  /** Bolts broken, renewed, glued; clamps moved over, seals oiled, latches tugged */
  fasteners: text({
    name: "Notes on fasteners",
    label: "Fasteners: clamps moved over, seals oiled, latches tugged, bolts renewed",
    long: true,
    max: 1000,
  }).optional(),
  goAhead: text({ name: "The go-ahead" }).asked({ label: undefined }).optional(),
  pictures: pictures().taken("Pictures"),
}).rule("recheck", NEEDED.recheck, ({ permanence, recheck }) => permanence !== "temporary" || recheck !== undefined);
export type Repair = RecordOf<typeof repairFields>;

/** Parts that load up by what is wrong elsewhere: what the ECU models the load of. */
const VICTIMS: readonly string[] = CHECK_IDS.flatMap((check) => CHECKS[check].resets?.places ?? []);

/** A repair that only takes out what loaded a part. */
const isVictim = ({ method, places }: { readonly method?: unknown; readonly places?: unknown }): boolean =>
  (method === "cleaned" || method === "regenerated") && Array.isArray(places) && places.some((place) => VICTIMS.includes(place));

const CLEANING = /\b(clean|wash|rins|decok|scrap|blown? (out|through)|blew|freed?\b|unst[iu]ck)/i;
interface Done {
  readonly what?: unknown;
  readonly parts?: unknown;
  readonly method?: unknown;
}
const withoutParts = ({ parts }: Done): boolean => Array.isArray(parts) && parts.length === 0;
/** Temporary by nature: what was cleaned or freed and went back with no new part is as old as before: a temporary repair. */
const onlyCleaned = (repair: Done): boolean => withoutParts(repair) && repair.method === "cleaned";
/** Words alone do not say what became of a part: they are asked about. */
const perhapsCleaned = (repair: Done): boolean =>
  withoutParts(repair) && repair.method === undefined && CLEANING.test(String(repair.what));
const WHICH = "It reads as if the part was cleaned: say whether it was cleaned, corrected or renewed";

const CLEANED = "What was cleaned or freed, with no new part, is a temporary repair: give it its limit and a re-check date";

/** Fields that the first version could leave open. */
const today = repairFields
  .rule(
    "places",
    "Say where it was worked on, or that it was all over",
    ({ places }) => Array.isArray(places) && places.length > 0,
  )
  .rule("limit", NEEDED.limit, ({ permanence, limit }) => permanence !== "temporary" || Boolean(limit))
  .rule("culprit", NEEDED.culprit, (repair) => !isVictim(repair) || repair.culprit !== undefined)
  .rule("regeneration.by", NEEDED.by, ({ method, regeneration }) => method !== "regenerated" || regeneration !== undefined)
  .rule("permanence", CLEANED, (repair) => repair.permanence !== "permanent" || !onlyCleaned(repair))
  .rule("method", WHICH, (repair) => repair.permanence !== "permanent" || !perhapsCleaned(repair))
  .rule(
    "substitute",
    "A substitute whose medium, temperature and suction are not all known is a temporary repair",
    ({ permanence, substitute }) => {
      const { medium, temperature, suction } = (substitute ?? {}) as Partial<NonNullable<Repair["substitute"]>>;
      return permanence !== "permanent" || !substitute || Boolean(medium && temperature && suction);
    },
  );

/** A regeneration in a line: by whose command, how hot, and the soot before and after. */
export const regenerationLine = ({ by, hottest, sootBefore, sootAfter }: NonNullable<Repair["regeneration"]>): string =>
  [
    `regeneration ${by}`,
    hottest && `${formatQuantity(hottest)} at the hottest`,
    sootBefore !== undefined &&
      sootAfter !== undefined &&
      `soot ${formatNumber(sootBefore, 0)} g before, ${formatNumber(sootAfter, 0)} g after`,
  ]
    .filter(Boolean)
    .join(", ");

export interface RepairFacts {
  /** Findings that nothing repairs yet, with where each is */
  readonly open: readonly { readonly entry: string; readonly name: string; readonly place: string }[];
  /** Every place that may be worked on */
  readonly places: readonly Option[];
  /** Hoses, caps and plugs that may stay off or in */
  readonly joints: readonly Option[];
  /** Functions that a bypass at these places disables, and what comes of it */
  readonly disables: (places: readonly string[]) => string;
}

type State<Name extends string> = FormState<unknown, Name>;
const methodOf = ({ value }: State<"method">) => value("method") as Method | undefined;
const placesOf = ({ value }: State<"places">): readonly string[] => {
  const places = value("places");
  return Array.isArray(places) ? places : [];
};
const doneOf = ({ value }: State<"what" | "parts">): Done => ({
  what: value("what"),
  parts: linesOf(String(value("parts") ?? "")),
});
const victim = (state: State<"method" | "places">) => isVictim({ method: methodOf(state), places: placesOf(state) });
const burned = (state: State<"method">) => methodOf(state) === "regenerated";
const temporary = ({ value }: State<"permanence">) => value("permanence") === "temporary";
const substituted = ({ value }: State<"substitute.what">) => String(value("substitute.what") ?? "").trim() !== "";

export const repairForm = formOf<RepairFacts>()(today, {
  aside: {
    off: marks<string>(needed("The place", "Name the place", 60), {
      label: "Hoses, caps and plugs still off or in",
      list: true,
      most: 60,
    }),
    displaced: list(text({ name: "The cover" }), {
      label: "Covers and panels not yet back, one a line",
      example: "engine cover",
      max: 60,
      lines: {},
    }),
    agreed: tick({ label: "The customer gave the go-ahead" }),
  },
  formerly: { labourMinutes: "labour", agreed: "goAhead" },
  ask: {
    finding: {
      options: ({ known }) => [...known.open.map((f): Option => [f.entry, f.name]), ["", "No finding recorded"]],
      defaultValue: ({ known }) => known.open[0]?.entry ?? "",
    },
    places: {
      options: ({ known }) => known.places,
      defaultValue: ({ known, value }) => known.open.filter((f) => f.entry === value("finding")).map((f) => f.place),
    },
    method: {
      hint: (state) =>
        perhapsCleaned({ ...doneOf(state), method: methodOf(state) }) && state.value("permanence") === "permanent"
          ? WHICH
          : methodOf(state) === "cleaned" && victim(state)
            ? `${CAUTION_TEXTS["filter-cleaner"]} Unplugged for it, a sensor sets a code of our own: clear and read again`
            : burned(state)
              ? `${CAUTION_TEXTS.regeneration} Before it: cause cured, sensor at zero and pipes sound, oil level and its dilution, fuel enough`
              : undefined,
    },
    cleanProof: { when: (state) => methodOf(state) === "cleaned" && victim(state) },
    culprit: { when: victim, needed: () => NEEDED.culprit },
    "regeneration.by": { when: burned, needed: () => NEEDED.by },
    "regeneration.hottest": { when: burned },
    "regeneration.sootBefore": { when: burned },
    "regeneration.sootAfter": { when: burned },
    permanence: {
      hint: (state) => {
        const lasting = state.value("permanence");
        const cleaned = onlyCleaned({ ...doneOf(state), method: methodOf(state) });
        if (lasting === "bypass") return state.known.disables(placesOf(state));
        return lasting === "permanent" && cleaned ? CLEANED : undefined;
      },
    },
    recheck: { when: temporary, needed: () => NEEDED.recheck },
    limit: { when: temporary, needed: () => NEEDED.limit },
    off: { options: ({ known }) => known.joints },
    "substitute.medium": { when: substituted },
    "substitute.temperature": { when: substituted },
    "substitute.suction": { when: substituted },
  },
  computed: {
    labourMinutes: ({ labourMinutes }) => labourMinutes ?? 0,
    goAhead: (_, { value }) => (value("agreed") === true ? "The customer agreed" : undefined),
  },
  laidOut: { agreed: ({ goAhead }) => goAhead !== undefined },
});

/** Parts that stay off or in for now, as a repair's form holds it: each is owed until it is back. */
export function stillOff(draft: Draft, { joints }: Pick<RepairFacts, "joints">): Displaced[] {
  const off = Array.isArray(draft.off) ? draft.off : [];
  return [
    ...joints.filter(([id]) => off.includes(id)).map(([joint, name]) => ({ what: `${name} off`, joint })),
    ...linesOf(typeof draft.displaced === "string" ? draft.displaced : "").map((what) => ({ what, elsewhere: true as const })),
  ];
}

export const repair = entryKind(repairFields, {
  version: 2,
  today,
  ahead: { field: "recheck", message: "The re-check date is in the past: set one ahead" },
  words: (b) => `Repaired: ${b.what}`,
});
