import { settleTimeConstant, smokeArrivalTime } from "../../gas/vessel";
import { inSentence } from "../../sentence";
import type { Machine } from "../../shop/settings";
import { formatNumber, formatQuantity, fromSi, toSi } from "../../units";
import { entriesOf, type FillSetup, type Joint, noWayIn, reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import type { Displacement, Plan } from "../contract";
import { evapWarnings, gasSpace } from "../evap-fields";
import { jointName } from "../verdict";

export interface EvapAim extends FillSetup {
  readonly vent: "command" | "plug";
  readonly fuelLevel?: number;
}

export interface EvapSmokeAim extends EvapAim {
  readonly machine: Machine;
  /** The engine has just run, or the tank is warm to the hand */
  readonly hotTank?: boolean;
}

/** Cost of each entry: said before it is chosen. */
export function entryPrice(entry: Joint): string {
  switch (entry.id) {
    case "service-port":
      return "its valve core comes out (left-hand thread): the adapter may not push it open, and its threads may leak. The port itself stays untested";
    case "filler-cap":
      return "quick, and the cap stays untested: try it by itself on its tester";
    case "purge-line-joint":
      return "far from the tank: smoke arrives there last, and that connector stays untested";
    default:
      return `${entry.name} stays untested`;
  }
}

/** The entry the shop prefers, where this vehicle has it; the first there is otherwise. */
export function preferredEntry({ layout, house }: Pick<CheckContext, "layout" | "house">): string {
  const wanted = { "service-port": "service-port", "filler-neck": "filler-cap", "purge-line": "purge-line-joint" }[
    house.evapEntry
  ];
  const entries = entriesOf(layout, "evap");
  return (entries.find((e) => e.id === wanted) ?? entries.find((e) => e.id === "filler-cap") ?? entries[0])?.id ?? "";
}

/** Getting in and shutting the vent, common to every pressure check of the system. */
export function evapEntrySteps(context: CheckContext, aim: EvapAim): Plan["steps"] {
  const { layout, limits } = context;
  const entry = layout.joints.find((j) => j.id === aim.entry);
  return [
    ...(aim.entry === "filler-cap"
      ? [{ text: "The cap comes off to get in: note how it sat and whether its seal is whole, then test it by itself." }]
      : [{ text: "Do not touch the cap until the first run has been read: tightening it destroys the evidence." }]),
    ...(entry ? [{ text: `Enter at ${entry.name}: ${entry.end?.removes}. Drawback: ${entryPrice(entry)}.` }] : []),
    {
      text:
        aim.vent === "command"
          ? `Command the ${inSentence(jointName(layout, "vent-valve"))} shut, ignition on. Most scan-tool commands time out after ${limits.outputTime.value} s: re-arm it in time, or plug the vent.`
          : `Plug the ${inSentence(jointName(layout, "vent-filter"))}: the vent valve itself is then in the test, its shutting is not.`,
    },
    ...reachOf(layout, aim).openEnds.map((j) => ({ text: `Seal ${j.name}.` })),
    { text: "The purge valve closes by itself: leave it unpowered." },
  ];
}

export function evapDisplaces({ layout }: Pick<CheckContext, "layout">, aim: EvapAim): Displacement[] {
  const entry = layout.joints.find((j) => j.id === aim.entry);
  return [
    ...(entry?.end ? [{ joint: entry.id, what: entry.end.removes }] : []),
    ...aim.blocked
      .filter((id) => !(aim.vent === "command" && id === "vent-valve"))
      .map((id) => ({ joint: id, what: `plug at ${jointName(layout, id)}` })),
  ];
}

/** An EVAP smoke run from an entry: its price, the vent, the ceiling, what goes on the list, how long the fill takes. */
export function planEvapSmoke(context: CheckContext, aim: EvapSmokeAim): Plan {
  const { house, layout, limits } = context;
  const { machine } = aim;
  const ceiling = fromSi(limits.evapCeiling.value, machine.ratedPressure.unit, "gauge");
  const tooStrong = toSi(machine.ratedPressure) > limits.evapCeiling.value;
  const space = gasSpace(context, { ...aim, fuelLevel: aim.fuelLevel ?? 50 });
  const flow = toSi(machine.maxFlow);
  const settle = settleTimeConstant({
    volume: space.volume,
    setPressure: Math.min(toSi(machine.ratedPressure), limits.evapCeiling.value),
    ambient: 101325,
    maxFlow: flow,
  });
  const sweep = smokeArrivalTime(space.volume, flow);
  const reach = reachOf(layout, aim);
  const far = reach.zones.filter((z) => z === "tank" || z === "neck" || z === "vent-hose");
  const zoneName = (id: string) => inSentence(layout.zones.find((z) => z.id === id)?.name ?? id);
  const shut = noWayIn(layout, aim);
  const refused = shut
    ? `Not from here: ${shut}`
    : aim.hotTank
      ? "The tank is hot: no heated smoke goes in. Let it cool; decay with cold inert gas is no way round it either"
      : aim.fuelLevel !== undefined && aim.fuelLevel > 100 * limits.evapFuelHigh.value
        ? `The tank is ${formatNumber(aim.fuelLevel, 0)} % full: no smoke goes into a full tank. Drive it down below ${formatNumber(100 * limits.evapFuelHigh.value, 0)} %`
        : undefined;
  return {
    ...(refused ? { refused } : {}),
    warnings: evapWarnings(context, { ...aim, hotTank: false }),
    steps: [
      {
        text: `Engine off and cool, no flame or spark near, tank not hot. Gas: ${house.evapGas === "inert" ? "nitrogen or other inert gas where it is at hand" : "shop air (house method)"}.`,
        caution: "fuel-vapour",
      },
      {
        text: tooStrong
          ? `${machine.name} is made for ${formatQuantity({ ...machine.ratedPressure, kind: "gauge" })}: regulate it down first and show, hose clamped, at most ${formatQuantity(ceiling)}.`
          : `Prove the machine: hose clamped, ${formatNumber(100 * limits.machineProof.value, 0)} % of ${formatQuantity({ ...machine.ratedPressure, kind: "gauge" })} or more, never above ${formatQuantity(ceiling)}; ball at the bottom; hose open, smoke.`,
        caution: "evap-pressure",
      },
      ...evapEntrySteps(context, aim),
      {
        text: `Fill: pressure settles in about ${formatNumber(3 * settle, 0)} s. Smoke arrives only where it flows through: ${formatNumber(space.volume * 1000, 0)} L at full flow take ${formatNumber(sweep / 60, 1)} min${far.length > 0 ? `. Open and shut again, one by one: ${far.map(zoneName).join(", ")}` : ""}.`,
      },
      {
        text: `Follow the ball until it stops hunting. Then look along every joint: ${house.dye === "uv" ? "UV or blue light" : "a strong lamp, sealed against vapour"}, no draught. Lower the flow to narrow it in; cap a suspect off on both sides with a blank that was proved.`,
      },
      ...reach.stopped
        .filter((s) => ["canister", "tank", "neck", "purge-line"].includes(s.zone))
        .map((s) => ({ text: `This entry cannot reach the ${zoneName(s.zone)}: it is stopped at ${inSentence(s.by.name)}.` })),
    ],
    displaces: evapDisplaces(context, aim),
    cautions: ["fuel-vapour", "evap-pressure", "smoke-vapour", "emission-devices"],
    clocks: [
      { name: "Smoke machine stops", seconds: machine.autoOff },
      { name: "Smoke has swept the system", seconds: sweep },
    ],
  };
}
