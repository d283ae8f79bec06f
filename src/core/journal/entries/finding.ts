import { choice, fields, formOf, group, list, type Option, quantity, text, tick } from "../../form";
import { entryKind } from "./entry-kind";
import { entryId, pictures } from "./shared";

/** How a finding was confirmed. */
export const CONFIRMATIONS = {
  "capped-off": "Capped off, and the reading recovered",
  seen: "Seen: smoke, bubbles or the damage itself",
  measured: "Measured at the part by itself",
  swapped: "Swapped, and the reading recovered",
} as const;

/** Why a part failed: what was not answered comes again. */
export const FAILURE_CAUSES = {
  rub: "Rubbed through",
  heat: "Heat",
  oil: "Oil or fuel",
  age: "Age",
  "earlier-work": "Earlier work",
  unknown: "Not known",
} as const;
export type FailureCause = keyof typeof FAILURE_CAUSES;

/** Where residue sits at nested seals tells them apart: dye inside a seal only, the seal works. */
export const RESIDUES = {
  inside: "Inside the seal only: the seal works",
  outside: "Outside the seal: it lets by",
  both: "On both sides",
} as const;

/** Pinned to one place: what was found there, how sure that is, and why it failed. */
const findingFields = fields({
  joint: text({ name: "The place", missing: "Say where it is" }).asked({ type: "choice", list: true, label: "Where" }),
  what: text({
    name: "The finding",
    label: "What was found",
    long: true,
    max: 1000,
    example: "Gasket squeezed out at runner 2, 30 mm of it missing",
    missing: "Say what was found",
  }),
  size: quantity("hole", {
    label: "Size, if measured (sharp-edged hole)",
    units: ["mm", "in", "thou"],
    example: "2.0",
  }).optional(),
  /** Where dye or residue sat at a seal */
  residue: choice(RESIDUES, {
    label: "Dye or residue at a seal",
    list: true,
    silent: ["", "None seen, or no seal"],
  }).optional(),
  confirmedBy: choice(CONFIRMATIONS, { label: "Confirmed", list: true, silent: ["", "Not yet"] }).optional(),
  /** Why it failed, and what was done against it */
  failed: group({
    why: choice(FAILURE_CAUSES, {
      label: "Why it failed",
      list: true,
      missing: "Say why it failed, or that nobody knows",
      defaultValue: "unknown",
    }),
    against: text({
      name: "What was done against it",
      label: "What is done against it",
      example: "hose routed clear of the bracket",
      max: 500,
    }).optional(),
  }).optional(),
  evidence: list(entryId(), { max: 50 }),
  confirmed: tick(),
  pictures: pictures(),
});

/** Fields that the first version could leave open. */
const today = findingFields
  .rule(
    "confirmedBy",
    "Say how it was confirmed: capped off, seen, measured or swapped",
    ({ confirmed, confirmedBy }) => confirmed !== true || confirmedBy !== undefined,
  )
  .rule("failed", "Say why it failed, or that nobody knows", ({ failed }) => failed !== undefined);

/** Where something may be found, in groups: what is likely now, then circuit by circuit. */
export interface PlaceGroup {
  readonly name: string;
  readonly places: readonly Option[];
}

export interface FindingFacts {
  readonly groups: readonly PlaceGroup[];
  /** Where it is taken to be until another place is chosen, and why */
  readonly place?: { readonly id: string; readonly because: string };
  /** Checks that showed the fault */
  readonly evidence: readonly string[];
}

export const findingForm = formOf<FindingFacts>()(today, {
  ask: {
    joint: {
      options: ({ known }) => known.groups.flatMap((g) => g.places),
      groups: ({ known }) => known.groups.map((g) => [g.name, g.places] as const),
      defaultValue: ({ known }) => known.place?.id,
      hint: ({ known, value }) => (known.place && value("joint") === known.place.id ? known.place.because : undefined),
    },
  },
  computed: {
    evidence: (_, { known }) => known.evidence,
    confirmed: ({ confirmedBy }) => confirmedBy !== undefined,
  },
});

export const finding = entryKind(findingFields, { version: 2, today, words: (b) => `Found: ${b.what}` });
