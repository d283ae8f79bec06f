import { at, type Cause, named } from "../cause";

/** How often the trade meets each on a car with a filter code; own estimates. */
export const CAUSES: readonly Cause[] = [
  named("filter-loaded", "filter-core", "Particulate filter loaded with soot or ash", "filter-loaded", 14),
  named("filter-broken", "filter-core", "Filter core melted or cracked", "filter-broken", 2),
  at("filter-pipe-front", "Filter's front pressure pipe split or blocked", "filter-pipe", 4),
  at("filter-pipe-rear", "Filter's rear pressure pipe split or blocked", "filter-pipe", 2),
  { id: "filter-sensor", name: "Filter pressure sensor reads wrong", trait: "filter-sensor", prior: 4 },
];
