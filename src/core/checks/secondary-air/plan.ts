import { formatNumber } from "../../units";
import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { fittedWith, refusing } from "../unfit";
import type { RunBy } from "./fields";

export const unfit = fittedWith("secondary-air", "No secondary air is entered for this vehicle.");

const RUN: Readonly<Record<RunBy, string>> = {
  "scan-tool": "Command the pump from the scan tool: a short window, then it times out and needs a key cycle or an engine start.",
  "relay-in":
    "Leave the relay in, engine running: its feed is live only then. Ground its coil through a test lamp; the lamp carries the coil's current and no more.",
  "fused-lead":
    "Relay out. A lead fused for the motor's current from battery to the pump's pin in the socket: find that pin first, never the coil's.",
};

/** Off for a hand pump, and no joint of its own. */
export const VALVE_PIPE_OFF = "vacuum pipe off the switching valve";

/** The pump made to run, its joints soaped, the valve opened and shut. */
export function planSecondaryAir(
  context: CheckContext,
  { runBy, window }: { readonly runBy: RunBy; readonly window?: number },
): Plan {
  const { limits } = context;
  const seconds = window ?? limits.outputTime.value;
  return {
    steps: [
      { text: RUN[runBy], ...(runBy === "fused-lead" ? { caution: "twelve-volt" as const } : {}) },
      { text: "Soap on every joint, the pump's body and its seams while it runs.", caution: "spray" },
      {
        text: `Engine warm and running, sensor live: open the switching valve by hand vacuum. The oxygen sensor goes lean within ${formatNumber(limits.airReaction.value, 0)} s, and where trims are live they run to plus.`,
        caution: "running-engine",
      },
      { text: "Shut the valve: no pulses and no heat at its hose.", caution: "hot-exhaust" },
      { text: "Yes or no is all this says. What proves it are cold starts without the code, counted." },
    ],
    displaces: [
      ...(runBy === "relay-in"
        ? []
        : runBy === "fused-lead"
          ? [{ joint: "air-pump", what: "secondary-air relay out, lead in its socket" }]
          : []),
      { what: VALVE_PIPE_OFF },
    ],
    cautions: ["running-engine", "hot-exhaust", "spray", ...(runBy === "fused-lead" ? (["twelve-volt"] as const) : [])],
    clocks: runBy === "scan-tool" ? [{ name: "Command times out", seconds }] : [],
    ...refusing(unfit, context),
  };
}
