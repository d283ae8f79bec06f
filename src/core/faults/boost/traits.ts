/** Minutes to confirm a suspect by hand, by trait. */
export const CONFIRM_MINUTES = {
  "boost-lazy": 15,
  "boost-over": 15,
  "boost-sensor": 10,
  "supply-weak": 8,
} as const;
