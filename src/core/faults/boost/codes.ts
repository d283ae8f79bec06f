import type { CodeText } from "../family";

const CHARGE = [
  "hot-pipe-clamp",
  "hot-pipe-split",
  "cooler-inlet",
  "cooler-outlet",
  "cold-pipe-split",
  "cold-pipe-clamp",
  "boost-pipe",
  "boost-solenoid",
  "wastegate-pipe",
];

export const CODES = [
  { code: "P0234", text: "Overboost", observation: "code:over-boost", ours: CHARGE },
  { code: "P0299", text: "Underboost", observation: "code:low-boost", ours: CHARGE },
  { code: "P2263", text: "Boost control performance", observation: "code:low-boost" },
  { code: "P0045", text: "Boost actuator circuit open", observation: "code:boost-circuit", ours: ["boost-solenoid"] },
  { code: "P0046", text: "Boost actuator out of range", observation: "code:boost-actuator" },
  { code: "P0243", text: "Boost solenoid circuit", observation: "code:boost-circuit", ours: ["boost-solenoid"] },
  { code: "P0236", text: "Boost sensor out of range", observation: "code:boost-sensor" },
  { code: "P0237", text: "Boost sensor signal low", observation: "code:boost-sensor" },
  { code: "P0238", text: "Boost sensor signal high", observation: "code:boost-sensor" },
  { code: "P2563", text: "Boost actuator's position out of range", observation: "code:boost-actuator" },
  { code: "P007B", text: "Charge air temperature out of range" },
] as const satisfies readonly CodeText[];
