import { testStage } from "../../checks/pressure-test/stage";
import { fields, type RecordOf } from "../../form";
import { DEFAULT_LIMITS } from "../../shop/settings";
import { fromSi } from "../../units";
import { reading, toolForm } from "../fields";
import type { Tool } from "../tool";

const rating = (label: string, example: string) =>
  reading(label, "the rating", "testPressure", ["bar", "psi", "kPa"], example).optional();
const stageFields = fields({
  maxBoost: reading("Engine's maximum boost, gauge", "the boost", "boost", ["bar", "psi", "kPa"], "1.1").optional(),
  part: rating("Weakest part is rated for, gauge", "1.5"),
  tool: rating("Adapter and hose are rated, gauge", "2"),
  bladder: rating("Bladder is rated, gauge", "0.8"),
});
type Stage = RecordOf<typeof stageFields>;

/** How high a boost pressure test may go. */
export const stageTool: Tool<Stage> = {
  id: "stage",
  name: "Boost test limits",
  aim: "How high regulated air may go: the lowest of what the engine makes and what stands under it",
  form: toolForm(stageFields),
  formula: "p = min(p_boost, p_part, p_tool, p_bladder, p_shop)",
  symbols: [
    ["p_boost", "maximum boost of the engine, gauge", "Pa"],
    ["p_part, p_tool, p_bladder", "ratings of what stands under pressure, gauge", "Pa"],
    ["p_shop", "the shop's ceiling, gauge", "Pa"],
  ],
  source: "The lowest rating binds; the ceiling is the shop's own",
  valid: "Never turn the crank under pressure; the supply stage is set above, the test stage at this or below",
  reckon(body) {
    const { maxBoost, ...ratings } = body;
    const stage = testStage({ ...(maxBoost ? { maxBoost } : {}), ratings }, { limits: DEFAULT_LIMITS, vehicle: {} } as Parameters<
      typeof testStage
    >[1]);
    return {
      rows: (["bar", "psi", "kPa"] as const).map((unit) => ({
        name: `Test stage at most, ${unit}`,
        value: fromSi(stage.pressure, unit, "gauge"),
      })),
      notes: [`What binds is ${stage.binds}`],
    };
  },
};
