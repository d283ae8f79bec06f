/** Minutes to confirm a suspect by hand, by trait. */
export const CONFIRM_MINUTES = {
  "filter-loaded": 20,
  "filter-broken": 25,
  "filter-pipe": 8,
  "filter-sensor": 10,
} as const;
