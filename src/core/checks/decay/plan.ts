import { fillHeating } from "../../gas/vessel";
import { formatNumber, formatQuantity, fromSi } from "../../units";
import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { evapWarnings } from "../evap-fields";
import { type EvapAim, evapDisplaces, evapEntrySteps } from "../evap-smoke/plan";

/** A decay test of the EVAP system from an entry: hold, shut off, watch; then once more with a known hole. */
export function planDecay(
  context: CheckContext,
  aim: EvapAim & { readonly byReference: boolean; readonly hotTank?: boolean },
): Plan {
  const ceiling = fromSi(context.limits.evapCeiling.value, "inH2O", "gauge");
  const heats = fillHeating(293, context.limits.evapCeiling.value, 101325);
  return {
    warnings: evapWarnings(context, aim),
    steps: [
      ...evapEntrySteps(context, aim),
      {
        text: `Fill to 10 inH2O gauge or so, never above ${formatQuantity(ceiling, 1)}. No smoke is needed.`,
        caution: "evap-pressure",
      },
      {
        text: `Hold the pressure 60 s, better 120 s: filling warms the gas by up to ${formatNumber(heats, 1)} °C, and its cooling reads like a leak.`,
      },
      {
        text: "Shut the supply at the system and note the pressure every few seconds for two minutes or more. Doors shut, no sun.",
      },
      aim.byReference
        ? {
            text: "Fill and hold again, open the reference hole, shut off and note the same: that takes out volume, yielding walls and most cooling.",
          }
        : {
            text: "A second run with a reference hole open sizes it without knowing the volume: take it where the machine has one.",
          },
    ],
    displaces: evapDisplaces(context, aim),
    cautions: ["fuel-vapour", "evap-pressure", "emission-devices"],
    clocks: [
      { name: "Hold at pressure", seconds: 120 },
      { name: "Watch it fall", seconds: 150 },
    ],
  };
}
