import { smokeArrivalTime } from "../../gas/vessel";
import type { Machine } from "../../shop/settings";
import { formatNumber, formatQuantity, toSi } from "../../units";
import { type FillSetup, noWayIn, reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import type { Displacement, Plan } from "../contract";

export interface SmokeAim extends FillSetup {
  readonly machine: Machine;
}

/** Setup of an intake smoke run from an entry: what to seal, what to hold open, what goes on the off-the-car list. */
export function planSmoke(context: CheckContext, aim: SmokeAim): Plan {
  const { house } = context;
  const reach = reachOf(context.layout, aim);
  const chargeSide = reach.zones.includes("cold-pipe");
  const entry = context.layout.joints.find((j) => j.id === aim.entry);
  const name = (id: string) => context.layout.joints.find((j) => j.id === id)?.name ?? id;
  const arrival = smokeArrivalTime(reach.intakeVolume, toSi(aim.machine.maxFlow));
  const displaces: Displacement[] = [
    ...(entry?.end ? [{ joint: entry.id, what: entry.end.removes }] : []),
    ...aim.blocked.map((id) => ({ joint: id, what: `plug at ${name(id)}` })),
    ...aim.heldOpen.map((id) => ({ joint: id, what: `${name(id)} held open` })),
  ];
  const minutes = (s: number) => (Number.isFinite(s) ? `${formatNumber(s, 0)} s` : "never");
  const shut = noWayIn(context.layout, aim);
  return {
    ...(shut ? { refused: `Not from here: ${shut}` } : {}),
    steps: [
      {
        text: "Engine off, exhaust cold to the touch. Switch the heater on; its auto-off clock starts now.",
        caution: "smoke-vapour",
      },
      {
        text: `Prove the machine: clamp the hose. Pressure must reach ${formatNumber(context.limits.machineProof.value * 100, 0)} % of ${formatQuantity({ ...aim.machine.ratedPressure, kind: "gauge" })} and the ball sit at the bottom; open it and see smoke.`,
      },
      ...(entry
        ? [
            {
              text: `Enter at ${entry.name}: ${entry.end?.removes ?? "adapter on"}. What comes off there is not tested by this run.`,
            },
          ]
        : []),
      ...reach.openEnds.map((j) => ({
        text: `Seal ${j.name} (bladder, cone or plug; an oval end will not seal: take the other end of the pipe).`,
      })),
      ...aim.heldOpen.map((id) => ({
        text: `Hold ${name(id)} open for the whole run (ignition on, pedal down, or command it).`,
      })),
      {
        text: `Fill: about ${minutes(arrival)} until smoke has swept ${formatNumber(reach.intakeVolume * 1000, 1)} L. Open the far end until smoke comes out, then close it.`,
      },
      {
        text: `Follow the ball until it settles; then look along every joint: ${house.dye === "uv" ? "UV lamp, blue light" : "strong lamp"}, no draught.${house.dye === "uv" ? " Check first that this maker allows dye: it can coat sensors." : ""}`,
      },
      ...(chargeSide
        ? [
            {
              text:
                house.boostBy === "air"
                  ? "House method: charge leaks are found with air at boost pressure. Low-pressure smoke here shows the big ones only."
                  : "Quiet here does not clear the charge side: air at boost pressure comes after it.",
            },
          ]
        : []),
    ],
    displaces,
    cautions: ["smoke-vapour", "emission-devices"],
    clocks: [
      { name: "Smoke machine stops", seconds: aim.machine.autoOff },
      { name: "Smoke has swept the intake", seconds: arrival },
    ],
  };
}
