import type { CautionId } from "../cautions";
import type { CheckContext } from "../context";
import type { Plan } from "../contract";
import { jointName } from "../verdict";
import type { Power } from "./fields";

const ENTRY_WORDS = { "service-port": "service port", "filler-neck": "filler neck", "purge-line": "purge line" } as const;

/** Both states of a valve, from a chosen power source. */
export function planValve(
  context: CheckContext,
  aim: { readonly joint: string; readonly part?: "fitted" | "new"; readonly power: Power; readonly rests: "closed" | "open" },
): Plan {
  const { house, layout, limits } = context;
  const name = jointName(layout, aim.joint);
  const feed =
    aim.power === "12v"
      ? "Unplug it from the car, then feed it 12 V from a fused lead. Never feed voltage back into the loom."
      : aim.power === "loom"
        ? "Leave it plugged in; the engine must run if the circuit is live only then."
        : `Command it from the scan tool: most commands time out after ${limits.outputTime.value} s.`;
  const [mustHold, mustPass] = aim.rests === "closed" ? ["At rest", "energised"] : ["Energised", "at rest"];
  const cautions: CautionId[] = [
    ...(aim.power === "12v" ? (["twelve-volt"] as const) : []),
    ...(aim.power === "loom" ? (["running-engine"] as const) : []),
  ];
  return {
    steps: [
      { text: `Hose off ${name}, hand pump on, gauge at zero first.` },
      { text: feed, ...(aim.power === "12v" ? { caution: "twelve-volt" as const } : {}) },
      { text: `${mustHold} it must hold: 60 s, write start and end down.` },
      { text: `Then ${mustPass} it must pass: what was put on is gone at once.` },
      ...(aim.joint === "purge-valve"
        ? [
            {
              text: `To see smoke come through it from the tank side, let ${house.evapGas === "inert" ? "inert gas" : "shop air"} smoke in at the ${ENTRY_WORDS[house.evapEntry]}, below the EVAP ceiling.`,
            },
          ]
        : []),
      { text: "A new part passes the same test on the bench before it is fitted." },
    ],
    // A new part on the bench takes nothing off the car.
    displaces:
      aim.part === "new"
        ? []
        : [
            { joint: aim.joint, what: `hose off at ${name}` },
            ...(aim.power === "12v" ? [{ joint: aim.joint, what: `${name} unplugged` }] : []),
          ],
    cautions,
    clocks: [{ name: "Hold", seconds: 60 }],
  };
}
