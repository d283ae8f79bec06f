import type { CodeText } from "../family";

const HOSE = ["air-hose-joint", "air-pump"];

export const CODES = [
  { code: "P0410", text: "Secondary air at fault", observation: "code:air-flow", coldStarts: true },
  { code: "P0411", text: "Secondary air flow incorrect", observation: "code:air-flow", coldStarts: true, ours: HOSE },
  { code: "P0412", text: "Secondary air switching valve circuit", observation: "code:air-circuit" },
  { code: "P0413", text: "Secondary air switching valve circuit open", observation: "code:air-circuit" },
  { code: "P0414", text: "Secondary air switching valve circuit shorted", observation: "code:air-circuit" },
  { code: "P0418", text: "Secondary air pump relay circuit", observation: "code:air-circuit", ours: ["air-pump"] },
  { code: "P0491", text: "Secondary air too little, bank 1", observation: "code:air-flow", coldStarts: true, ours: HOSE },
  { code: "P0492", text: "Secondary air too little, bank 2", observation: "code:air-flow", coldStarts: true, ours: HOSE },
  { code: "P2440", text: "Secondary air valve stuck open, bank 1", observation: "code:air-open", coldStarts: true },
  { code: "P2441", text: "Secondary air valve stuck shut, bank 1", observation: "code:air-flow", coldStarts: true },
] as const satisfies readonly CodeText[];
