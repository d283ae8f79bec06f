import { fields, formOf, group, number, only, type RecordOf, text } from "../../form";
import { type Joint, placeGroups } from "../../vehicle";
import { entryKind } from "./entry-kind";

/** Something that came off or went in, besides what a check takes off for itself, and where its bolts and clips lie. */
const displacedFields = fields({
  joint: text({ name: "Joint", max: 60 }).asked({ type: "choice", list: true, label: "Where", silent: "" }).optional(),
  what: text({
    name: "What",
    label: "What was removed or fitted",
    example: "engine cover",
    missing: "Say what was taken off or put in",
  }),
  /** Its bolts and clips: how many, and where they are kept */
  kept: text({
    name: "Where its bolts and clips are kept",
    label: "Its bolts and clips: how many, kept where",
    example: "6 bolts, 2 clips, tray 2",
  }).optional(),
  /** A scan-tool command that stands until it is released; s after which the tool lets go by itself */
  commanded: group({
    seconds: number({
      name: "The tool's time",
      min: [1, "A command holds for a second at least"],
      max: [3600, "A command holds for an hour at most"],
    }),
  }).optional(),
  /** A change taken back to learn whether it was the cure: the old part in again */
  swappedBack: text({ name: "The change", max: 1000 }).optional(),
  /** No part of a gas path: a cover, a panel, a bolt */
  elsewhere: only(),
});
export type Displaced = RecordOf<typeof displacedFields>;

export interface DisplacedFacts {
  /** Places of the car's gas paths that something can come off */
  readonly places: readonly Joint[];
}

const nameOf = ({ places }: DisplacedFacts, id: unknown) => places.find((j) => j.id === id)?.name;

export const displacedForm = formOf<DisplacedFacts>()(displacedFields, {
  only: ["joint", "what", "kept"],
  ask: {
    joint: {
      options: ({ known }) => [["", "No part of a gas path"], ...known.places.map((j) => [j.id, j.name] as const)],
      groups: ({ known }) => placeGroups(known.places, 0),
      defaultValue: () => "",
    },
    what: {
      defaultValue: ({ known, value }) => {
        const name = nameOf(known, value("joint"));
        return name && `${name} off`;
      },
    },
  },
  computed: { elsewhere: ({ joint }) => (joint === undefined ? true : undefined) },
});

export const displaced = entryKind(displacedFields, {
  words: (b) => (b.commanded ? `Commanded: ${b.what}` : b.swappedBack ? `Swapped back: ${b.what}` : `Off the car: ${b.what}`),
});
