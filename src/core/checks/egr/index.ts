import { inSentence } from "../../sentence";
import { ofPart } from "../claim";
import type { CheckKind } from "../contract";
import { refusing, type Unfit } from "../unfit";
import { jointName } from "../verdict";
import { type EgrRecord, egrFields, egrForm } from "./fields";
import { judgeEgr, passesBy } from "./judge";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

/** The valves that lead exhaust back. */
const VALVES: readonly string[] = ["egr-valve", "low-egr-valve"];

const unfit: Unfit = ({ layout }) =>
  layout.joints.some((j) => VALVES.includes(j.id)) ? undefined : "No EGR is entered for this vehicle.";

export const egr: CheckKind<EgrRecord, { readonly joint: string }, Seen> = {
  id: "egr",
  name: "EGR valve",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Commanded shut and open by meter and manifold; its seat by smoke with the exhaust watched",
  engine: "running",
  tool: "scan-tool",
  unfit,
  role: "measures",
  shelf: "electric",
  families: ["engine", "egr"],
  rows,
  candidates: ({ layout }) =>
    layout.joints
      .filter((j) => VALVES.includes(j.id))
      .map(({ id, name }) => ({
        place: id,
        name: `${name}, commanded and smoked`,
        minutes: 16,
        penalty: 0.9,
        outcomes: [`egr-passes:${id}` as const, `egr-no-answer:${id}` as const, "egr-cooler" as const, "egr-answers" as const],
        tested: [id],
        why: `seat and answer of the ${inSentence(name)} apart`,
      })),
  claims: (record, verdict, { layout }) => {
    if (verdict.outcome === "void") return [];
    const { joint, cooler, shut } = record;
    const none = verdict.observation?.startsWith("egr-no-answer");
    return [
      ofPart(layout, "seat", joint, "holds shut", passesBy(record)),
      ...(shut || none
        ? [
            ofPart(
              layout,
              "answers",
              joint,
              "responds to its command",
              none ? "bad" : verdict.outcome === "pass" ? "good" : "open",
            ),
          ]
        : []),
      ...(cooler === "none" || cooler === "not-tried"
        ? []
        : [ofPart(layout, "cooler", "egr-cooler-joint", "holds its coolant", cooler === "loses" ? "bad" : "good")]),
    ];
  },
  byPart: true,
  setup: (r) => [r.joint],
  ownCommands: (r) => [r.joint],
  irrelevant: {
    cooler: "only a cooler that loses bears on it",
  },
  fields: egrFields,
  form: egrForm,
  plan: (context, { joint }) => ({
    steps: [
      {
        text: `Engine warm, one speed held. Command the ${inSentence(jointName(context.layout, joint))} shut, read MAF and manifold; then open, read again.`,
        caution: "running-engine",
      },
      { text: "Opened it takes fresh air away. No change: stuck, not moved, or soot in its passage." },
      {
        text: "Engine off. Smoke into the manifold with the valve shut. Open its pipe behind the valve and look there; or watch the tail, turn the crank by hand a quarter and look again: engine valves that overlap pass smoke too.",
        caution: "smoke-vapour",
      },
      { text: "Its cooler by itself: coolant side closed, low pressure on, under water." },
      { text: "Ports by borescope, share open, before and after cleaning." },
    ],
    displaces: [],
    cautions: ["running-engine", "hot-exhaust", "smoke-vapour"],
    clocks: [],
    ...refusing(unfit, context),
  }),
  judge: judgeEgr,
  places: ({ layout }) => layout.joints.filter((j) => VALVES.includes(j.id)).map((j) => j.id),
  place: (r) => r.joint,
};
