/** Minutes to confirm a suspect by hand, by trait. */
export const CONFIRM_MINUTES = {
  "air-leak": 8,
  "air-pump-dead": 10,
  "air-valve-stuck": 12,
  "air-valve-back": 10,
  "air-ports": 25,
} as const;
