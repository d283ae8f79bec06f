import { fields, only } from "../../form";
import { entryKind } from "./entry-kind";
import { entryId } from "./shared";

const restoredFields = fields({
  /** The entry of what came off */
  item: entryId(),
  /** Looked at as it went back on, and it sits as it must */
  seated: only(),
});

export const restored = entryKind(restoredFields, { words: (b, names) => `Refitted: ${names.offCar(b.item)}` });
