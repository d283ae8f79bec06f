import { fields, text } from "../../form";
import { entryKind } from "./entry-kind";

/** A suspect that was tried by hand, and is not it: capped off, wiggled, looked at, or swapped, and nothing changed. */
const triedFields = fields({
  cause: text({ name: "The suspect", missing: "Say which suspect was tried", max: 60 }),
  name: text({ name: "Its name", missing: "Say what it is called", max: 200 }),
});

export const tried = entryKind(triedFields, { words: (b) => `Tried by hand, and not it: ${b.name}` });
