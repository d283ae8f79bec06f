import { formOf } from "../form";
import { type Joint, type Layout, placeGroups } from "../vehicle";
import { type Bodies, displacedSchema } from "./entries";

type Displaced = Bodies["displaced"];

interface Known {
  /** Places of the car's gas paths that something can come off */
  readonly places: readonly Joint[];
}

/** What a thing taken off need not ask; a car that nobody described has no places yet. */
export const knownOfDisplaced = (layout: Layout | undefined): Known => ({ places: layout?.joints ?? [] });

const nameOf = ({ places }: Known, id: unknown) => places.find((j) => j.id === id)?.name;

/** Something that came off or went in, besides what a check takes off for itself, and where its bolts and clips lie. */
export const displacedForm = formOf<Displaced, Known>()({
  schema: displacedSchema,
  fields: {
    joint: {
      type: "choice",
      list: true,
      label: "Where",
      options: ({ known }) => [["", "No part of a gas path"], ...known.places.map((j) => [j.id, j.name] as const)],
      groups: ({ known }) => placeGroups(known.places, 0),
      silent: "",
      holds: () => "",
    },
    what: {
      type: "text",
      label: "What came off, or went in",
      example: "engine cover",
      holds: ({ known, holds }) => {
        const name = nameOf(known, holds("joint"));
        return name && `${name} off`;
      },
    },
    kept: { type: "text", label: "Its bolts and clips: how many, kept where", example: "6 bolts, 2 clips, tray 2" },
  },
  also: (read) => (read.joint === undefined ? { elsewhere: true } : {}),
});
