import type { CautionId } from "../cautions";
import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { notOnDiesel, refusing } from "../unfit";
import type { Agent } from "./fields";

export const unfit = notOnDiesel(
  "A diesel has no fuel trims and no throttled vacuum: smoke the intake, or look for oil mist under boost.",
);

/** Steps of a probe with an agent; disturbs nothing. */
export function planProbe(context: CheckContext, aim: { readonly agent: Agent }): Plan {
  const { limits } = context;
  const cautions: CautionId[] = ["running-engine", "hot-exhaust", aim.agent === "gas" ? "enrichment-gas" : "spray"];
  const bring =
    aim.agent === "gas"
      ? "Bring the gas to one spot, a short breath of it, low flow; the hose end within a finger's width."
      : aim.agent === "water"
        ? "Wet one spot with a short squirt; the leak draws it in or is sealed by it."
        : "Brush or spray soap on one spot; look for it being sucked in, and watch the readings.";
  return {
    steps: [
      { text: "Engine warm, idling, closed loop, consumers and fans off; nobody touches the pedal.", caution: "running-engine" },
      { text: "Log RPM, trims of each bank, lambda or O2, throttle and loop state; start the log and the clock together." },
      { text: bring, caution: aim.agent === "gas" ? "enrichment-gas" : "spray" },
      {
        text: `Mark each tap as you make it, and wait ${limits.probeGap.value} s before the next: a reaction comes ${limits.probeEarliest.value} to ${limits.probeLatest.value} s late.`,
      },
      { text: "Start at the far, sheltered spots and work upwind, so that no spot is fed by its neighbour." },
    ],
    displaces: [],
    cautions,
    clocks: [{ name: "Next tap", seconds: limits.probeGap.value }],
    ...refusing(unfit, context),
  };
}
