import type { Tool } from "./tool";
import { decayTool } from "./tools/decay";
import { driveTool } from "./tools/drive";
import { fillTool } from "./tools/fill";
import { heldTool, seenTool } from "./tools/held";
import { flowTool, holeTool } from "./tools/hole";
import { lambdaTool } from "./tools/lambda";
import { stageTool } from "./tools/stage";
import { unitsTool } from "./tools/units";

export type { Answer, Reckoned, Tool } from "./tool";

/** Everything that is reckoned outside a job, in the order it stands on its page. */
export const TOOLS = [
  holeTool,
  flowTool,
  fillTool,
  decayTool,
  seenTool,
  heldTool,
  stageTool,
  lambdaTool,
  driveTool,
  unitsTool,
] as unknown as readonly Tool[];

export const toolOf = (id: string): Tool | undefined => TOOLS.find((t) => t.id === id);
