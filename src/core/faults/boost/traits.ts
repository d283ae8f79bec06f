/** What going straight to a suspect takes, minutes. */
export const CONFIRM_MINUTES = {
  "boost-lazy": 15,
  "boost-over": 15,
  "boost-sensor": 10,
  "supply-weak": 8,
} as const;
