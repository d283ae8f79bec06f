import type { CodeText } from "../family";

const VALVE = ["egr-valve", "egr-solenoid", "egr-pipe"];

export const CODES = [
  { code: "P0400", text: "EGR flow not as commanded", observation: "code:egr-flow", ours: VALVE },
  { code: "P0401", text: "EGR flow too low", observation: "code:egr-little", ours: VALVE },
  { code: "P0402", text: "EGR flow too high", observation: "code:egr-much" },
  { code: "P0403", text: "EGR valve circuit", observation: "code:egr-circuit", ours: VALVE },
  { code: "P0404", text: "EGR valve does not follow", observation: "code:egr-flow" },
  { code: "P0405", text: "EGR position signal low", observation: "code:egr-circuit", ours: VALVE },
  { code: "P0406", text: "EGR position signal high", observation: "code:egr-circuit", ours: VALVE },
  { code: "P2457", text: "EGR cooler performance", observation: "code:egr-cooler" },
] as const satisfies readonly CodeText[];
