import { inSentence } from "../../sentence";
import { formatQuantity, fromSi, type Quantity, toSi } from "../../units";
import { type FillSetup, noWayIn, reachOf } from "../../vehicle";
import type { CheckContext } from "../context";
import type { Displacement, Plan } from "../contract";
import { turboOnly } from "../unfit";
import { jointName } from "../verdict";
import type { PressureTest } from "./fields";
import { testStage } from "./stage";

export const unfit = turboOnly("This engine has no compressor: nothing here ever stands under boost. Smoke shows what leaks.");

export interface PressureAim extends FillSetup {
  readonly maxBoost?: Quantity | undefined;
  readonly supply?: Quantity | undefined;
  readonly ratings: Partial<PressureTest["ratings"]>;
}

/** Setup of a boost pressure test: how high and why no higher, what to seal, what to hold open, how to go up. */
export function planPressureTest(context: CheckContext, aim: PressureAim): Plan {
  const { layout, house } = context;
  const refused = unfit(context);
  if (refused)
    return {
      refused,
      steps: [],
      displaces: [],
      cautions: [],
      clocks: [],
    };
  const stage = testStage(aim, context);
  const unit = aim.maxBoost?.unit ?? "bar";
  const shown = (pa: number) => formatQuantity(fromSi(pa, unit, "gauge"));
  const shut = noWayIn(layout, aim);
  const reach = shut ? undefined : reachOf(layout, aim);
  const name = (id: string) => inSentence(jointName(layout, id));
  const entry = layout.joints.find((j) => j.id === aim.entry);
  const displaces: Displacement[] = [
    ...(entry?.end ? [{ joint: entry.id, what: entry.end.removes }] : []),
    ...aim.blocked.map((id) => ({ joint: id, what: `plug at ${name(id)}` })),
    ...aim.heldOpen.map((id) => ({ joint: id, what: `${name(id)} held open` })),
  ];
  const warnings = [
    ...(shut ? [`Not from here: ${shut}.`] : []),
    ...(reach?.zones.includes("crankcase")
      ? [
          "The crankcase would stand under the pressure: shut its branches off at PCV valve and breather, or leave the throttle shut.",
        ]
      : []),
    ...(reach && reach.openEnds.length > 0
      ? [`Still open: ${reach.openEnds.map((j) => inSentence(j.name)).join(", ")}. Seal it first.`]
      : []),
    ...(reach && !reach.zones.includes("manifold") ? ["With the throttle shut the manifold is not tested."] : []),
    ...(aim.supply && toSi(aim.supply) <= stage.pressure
      ? [
          `The supply stage stands no higher than the test stage: at ${shown(stage.pressure)} nothing comes through. Set it above.`,
        ]
      : []),
    ...(house.boostBy === "smoke-first"
      ? ["House method: smoke first. Air comes after it, for what opens only under pressure."]
      : []),
  ];
  return {
    warnings,
    steps: [
      {
        text: `Test stage at most ${shown(stage.pressure)}: ${stage.binds} binds. Supply stage above it, test stage wound back to nothing before the air is on.`,
        caution: "compressed-air",
      },
      { text: "Engine off, key out, gear out. The crank is never turned while there is pressure: it would be turned by it." },
      ...(entry
        ? [
            {
              text: `Air in at the ${inSentence(entry.name)}: ${entry.end?.removes ?? "adapter on"}, its valve shut while connecting.`,
            },
          ]
        : []),
      {
        text: "Stand aside of every plug, bladder and adapter, never in line with one; eyes shut off; hose held or tied against whipping.",
      },
      {
        text: `Open slowly. Stop and listen at about a quarter, a half, three quarters of it, then at ${shown(stage.pressure)}. It will not hold by itself: valves overlap.`,
      },
      { text: "Hear it, feel it, soap every joint at the last stop; write down the pressure at which it began." },
      { text: "Shut the supply and let the pressure off by the valve before anything is taken off." },
    ],
    displaces,
    cautions: ["compressed-air"],
    clocks: [],
  };
}
