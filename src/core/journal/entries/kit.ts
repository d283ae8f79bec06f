import { choice, fields, group, list, text, tick } from "../../form";
import { KIT_KINDS } from "../../vehicle";
import { entryKind } from "./entry-kind";

/** Supplies for the teardown, worked out beforehand; the newest list counts. */
const kitFields = fields({
  items: list(
    group({
      kind: choice(KIT_KINDS, { name: "The item's kind" }),
      what: text({ name: "The item", missing: "Say what is needed" }),
      ready: tick(),
    }),
    { max: 60 },
  ),
});

export const kit = entryKind(kitFields, {
  words: (b) => `Teardown kit: ${b.items.length} items, ${b.items.filter((i) => i.ready).length} ready`,
});
