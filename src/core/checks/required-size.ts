import { group, quantity, text } from "../form";

/** The leak that a check of the vapour system is held against, and who says so. */
export const requiredSize = group({
  size: quantity("hole", { missing: "State the leak to be caught" }),
  source: text({ name: "The source", missing: "Say who names this size" }),
});
export type RequiredSize = (typeof requiredSize)["value"];
