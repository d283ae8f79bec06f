/** What going straight to a suspect takes, minutes. */
export const CONFIRM_MINUTES = {
  "vapour-leak": 12,
  "vent-open": 10,
  "vent-blocked": 12,
  "purge-blocked": 12,
  "tank-sensor": 8,
} as const;
