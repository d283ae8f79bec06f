/** What going straight to a suspect takes, minutes. */
export const CONFIRM_MINUTES = {
  "egr-blocked": 20,
  "egr-cooler-leak": 25,
} as const;
