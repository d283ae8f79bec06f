import { testStage } from "../../checks/pressure-test/stage";
import { formOf } from "../../form";
import { strictObject } from "../../input";
import { DEFAULT_LIMITS } from "../../shop/settings";
import { fromSi, type Quantity } from "../../units";
import { may, reading } from "../fields";
import type { Tool } from "../tool";

interface Stage {
  readonly maxBoost?: Quantity;
  readonly part?: Quantity;
  readonly tool?: Quantity;
  readonly bladder?: Quantity;
}
const rating = (label: string, example: string) => reading(label, "testPressure", ["bar", "psi", "kPa"], example);

/** How high a boost pressure test may go. */
export const stageTool: Tool<Stage> = {
  id: "stage",
  name: "Boost test limits",
  aim: "How high regulated air may go: the lowest of what the engine makes and what stands under it",
  form: formOf<Stage, undefined>()({
    schema: strictObject({
      maxBoost: may("boost"),
      part: may("testPressure"),
      tool: may("testPressure"),
      bladder: may("testPressure"),
    }),
    fields: {
      maxBoost: reading("Engine's maximum boost, gauge", "boost", ["bar", "psi", "kPa"], "1.1"),
      part: rating("Weakest part bears, gauge", "1.5"),
      tool: rating("Adapter and hose are rated, gauge", "2"),
      bladder: rating("Bladder is rated, gauge", "0.8"),
    },
  }),
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
