/** Everybody's PIN in the demo shop. */
export const DEMO_PIN = "4310";
