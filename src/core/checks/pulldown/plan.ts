import { inSentence } from "../../sentence";
import { formatNumber, formatQuantity, fromSi } from "../../units";
import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { evapWarnings } from "../evap-fields";
import { evapOnly, refusing, type Unfit } from "../unfit";
import { jointName } from "../verdict";

export const unfit: Unfit = (context) =>
  evapOnly(context) ??
  (context.vehicle.evap?.monitor === "canister-pump"
    ? "On this car a pump in the canister pulls the test, not the engine: run its own leak check by command and read what it says against its reference orifice. Smoke and decay work here."
    : undefined);

/** The pull-down trace: four phases on the idling engine, each long enough to be told from the next. */
export function planPulldown(
  context: CheckContext,
  aim: { readonly vent: "command" | "plug"; readonly fuelLevel?: number; readonly hotTank?: boolean },
): Plan {
  const { layout, limits } = context;
  const depth = formatQuantity(fromSi(limits.evapPullDown.value, "inH2O", "vacuum"), 1);
  const vent = inSentence(jointName(layout, "vent-valve"));
  return {
    ...refusing(unfit, context),
    warnings: evapWarnings(context, aim),
    steps: [
      {
        text: "Engine warm and idling, foot off. Watch tank pressure on the scan tool, recording from before the first step.",
        caution: "running-engine",
      },
      {
        text:
          aim.vent === "command"
            ? `Command the ${vent} shut and wait 10 s with purge shut: pressure must stand still.`
            : `Plug the ${inSentence(jointName(layout, "vent-filter"))} and wait 10 s with purge shut: pressure must stand still.`,
      },
      { text: `Command purge open until tank pressure stands ${depth} down, not deeper.` },
      { text: "Shut purge and watch it hold for 30 s or longer." },
      {
        text:
          aim.vent === "command"
            ? "Release the vent: pressure must come back within seconds."
            : "Pull the plug: pressure must come back within seconds.",
      },
      {
        text: `Scan-tool commands time out after about ${formatNumber(limits.outputTime.value, 0)} s: a vent that opens in the middle spoils the trace.`,
      },
    ],
    displaces: aim.vent === "plug" ? [{ joint: "vent-filter", what: `plug at ${jointName(layout, "vent-filter")}` }] : [],
    cautions: ["running-engine", "fuel-vapour"],
    clocks: [{ name: "Hold", seconds: 30 }],
  };
}
