/** Minutes to confirm a suspect by hand, by trait. */
export const CONFIRM_MINUTES = {
  "egr-blocked": 20,
  "egr-cooler-leak": 25,
} as const;
