import { choice, fields, group, list, quantity, type RecordOf, text } from "../../form";
import { checkForm } from "../check-form";
import { percent, pictures, place } from "../fields";

/** Names that mean one port: written as one hand or another writes it. */
export const portKey = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[/@\s]+/g, " ")
    .trim();

/** One port or passage, graded by eye. */
const port = group({
  name: text({ name: "The port", missing: "Name the port", max: 40 }),
  /** Share open, percent, looking straight in */
  straight: percent("Share open, straight", 0, 100, {
    missing: "Grade every port, straight at least",
    column: "{name}, straight",
  }),
  /** How far the tool went in until it stood at the port: the next one need not be felt for */
  depth: quantity("toolDepth", { column: "{name}, tool in" }).optional(),
  /** The share open from the side, past the first bend */
  side: percent("Share open, from the side", 0, 100, { column: "{name}, from the side" }).optional(),
});
export type Port = (typeof port)["value"];

/** Ports graded by the share of them that stands open. */
export const borescopeFields = fields({
  /** Passage that was looked into */
  joint: place("Passage"),
  when: choice({ "as-found": "As found", "after-cleaning": "After cleaning" }, { label: "When", defaultValue: "as-found" }),
  ports: list(port, { label: "Ports", min: [1, "Grade at least one port"], max: 32, empty: [] }).rule(
    "once",
    "Two ports have one name: number them, so that each is found again after cleaning",
    (ports) => {
      const names = (ports as readonly Partial<Port>[]).flatMap((p) => (typeof p?.name === "string" ? [portKey(p.name)] : []));
      return new Set(names).size === names.length;
    },
  ),
  pictures: pictures(50, []),
});
export type BorescopeRecord = RecordOf<typeof borescopeFields>;

export const borescopeForm = checkForm(borescopeFields);
