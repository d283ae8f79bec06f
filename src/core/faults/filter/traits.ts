/** What going straight to a suspect takes, minutes. */
export const CONFIRM_MINUTES = {
  "filter-loaded": 20,
  "filter-broken": 25,
  "filter-pipe": 8,
  "filter-sensor": 10,
} as const;
