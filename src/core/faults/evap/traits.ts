/** Minutes to confirm a suspect by hand, by trait. */
export const CONFIRM_MINUTES = {
  "vapour-leak": 12,
  "vent-open": 10,
  "vent-blocked": 12,
  "purge-blocked": 12,
  "tank-sensor": 8,
} as const;
