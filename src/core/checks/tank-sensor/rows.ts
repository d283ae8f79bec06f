import type { Rows, Saying } from "../../faults";

/** Likelihood rows of the tank-pressure sensor against its curve. */
export const rows = {
  "sensor-off": {
    says: "the tank-pressure sensor misses its curve",
    given: { "tank-sensor": 0.9, other: 0.02 },
    reason: "it was compared with its own curve",
  },
  "sensor-zero-right": {
    says: "the tank-pressure sensor's zero is right",
    given: { "tank-sensor": 0.35, other: 0.93 },
    reason: "its slope is not shown",
  },
  "sensor-good": {
    says: "the tank-pressure sensor keeps to its curve",
    given: { "tank-sensor": 0.06, other: 0.93 },
    reason: "right at zero and under pressure",
  },
} as const satisfies Rows;
export type Seen = Saying<typeof rows>;
