import { massFlowOfStandard } from "../../gas/air";
import { leakDiameter } from "../../gas/orifice";
import { inSentence } from "../../sentence";
import { formatNumber, fromSi, toSi } from "../../units";
import { ofPart } from "../claim";
import type { CheckContext } from "../context";
import type { CheckKind, Plan } from "../contract";
import { evapOnly } from "../unfit";
import { type Verdict, voidVerdict } from "../verdict";
import { ventPathCandidates } from "./candidates";
import { VENT_PART_NAMES, VENT_PARTS, type VentPart, type VentPathRecord, ventPathFields, ventPathForm } from "./fields";
import { rows, type Seen } from "./rows";

export * from "./fields";

/** A back pressure below this is none: the part is wide open for the flow, Pa. */
const NO_BACK = 10;

/**
 * Flow area of a part as one sharp-edged hole, m: the orifice that builds this back pressure at this flow
 * (ISO 6358-1). Infinite where no back pressure shows.
 */
export function openingOf(
  part: VentPathRecord["parts"][number],
  { ambient, temperature }: Pick<VentPathRecord, "ambient" | "temperature">,
): number {
  const back = toSi(part.back);
  if (back < NO_BACK) return Number.POSITIVE_INFINITY;
  const outside = toSi(ambient);
  return leakDiameter({
    massFlow: massFlowOfStandard(toSi(part.flow)),
    upstream: outside + back,
    downstream: outside,
    temperature: toSi(temperature),
  });
}

function planVentPath({ limits }: CheckContext): Plan {
  return {
    steps: [
      {
        text: "Ask at which fill the pump nozzle clicks off. A tank that will not take fuel says blocked vent, not leak.",
        caution: "fuel-vapour",
      },
      {
        text: `From outside in, one part at a time: blow a steady flow through and read the back pressure. Free is ${formatNumber(1000 * limits.ventOpening.value, 0)} mm or more as one hole (${limits.ventOpening.source}).`,
      },
      {
        text: "Filter and hose first, then the vent valve at rest, the canister, and the vapour line to the tank. Never above the EVAP ceiling.",
        caution: "evap-pressure",
      },
    ],
    displaces: [{ joint: "vent-filter", what: "vent hose off at the canister" }],
    cautions: ["fuel-vapour", "evap-pressure"],
    clocks: [],
  };
}

/** Judges the vent path from outside in and stops at the first part that does not let gas through. */
export function judgeVentPath(record: VentPathRecord, context: CheckContext): Verdict<Seen> {
  const limit = context.limits.ventOpening;
  const still = record.parts.find((p) => !(toSi(p.flow) > 0));
  if (still)
    return voidVerdict(
      "The vent path was not blown through",
      `no flow went into the ${inSentence(VENT_PART_NAMES[still.part])}: a back pressure without flow says nothing`,
    );
  const read = VENT_PARTS.flatMap((id) => {
    const part = record.parts.find((p) => p.part === id);
    return part ? [{ id, opening: openingOf(part, record) }] : [];
  });
  const measures = read
    .filter((r) => Number.isFinite(r.opening))
    .map((r) => ({
      name: `${VENT_PART_NAMES[r.id]}, opening`,
      value: fromSi(r.opening, "mm" as const),
      limit: `${formatNumber(1000 * limit.value, 0)} mm or more`,
      limitSource: limit.source,
    }));
  const blocked = read.find((r) => r.opening < limit.value);
  const words = (id: VentPart) => inSentence(VENT_PART_NAMES[id]);
  if (blocked) {
    return {
      outcome: "fail",
      headline: `Blocked at the ${words(blocked.id)}`,
      measures,
      reasons: [
        record.nozzle === "clicks-off" ? "the nozzle clicks off: that fits" : "nobody has seen the nozzle click off with it",
        blocked.id === "canister-joint"
          ? "a canister full of fuel or carbon dust: find out how fuel got there before fitting another"
          : "water, dust, a nest or a stuck valve: clear or renew it, then blow through again",
      ],
      observation: `vent-blocked:${blocked.id}`,
      tested: [...VENT_PARTS],
      zones: [],
    };
  }
  if (read.length < VENT_PARTS.length) {
    const left = VENT_PARTS.filter((id) => !read.some((r) => r.id === id));
    return {
      outcome: "unsure",
      headline: read.length === 0 ? "No part of the vent path has been tried" : "Free as far as it was tried",
      measures,
      reasons: [
        `not tried yet: ${left.map(words).join(", ")}`,
        ...(record.nozzle === "clicks-off" ? ["the nozzle clicks off: something in the path is blocked"] : []),
      ],
      zones: [],
    };
  }
  return {
    outcome: "pass",
    headline: "The vent path breathes freely from outside to the tank",
    measures,
    reasons: record.nozzle === "clicks-off" ? ["the nozzle clicks off all the same: look into the neck and its flap"] : [],
    observation: "vent-free",
    tested: [...VENT_PARTS],
    zones: [],
  };
}

export const ventPath: CheckKind<VentPathRecord, unknown, Seen> = {
  id: "vent-path",
  name: "Vent path",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Filter, vent valve, canister, line to the tank: blown through one by one",
  engine: "standing",
  tool: "hand-pump",
  unfit: evapOnly,
  role: "measures",
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: ventPathCandidates,
  claims: (record, verdict, context) =>
    verdict.outcome === "void"
      ? []
      : record.parts.map((p) =>
          ofPart(
            context.layout,
            "free",
            p.part,
            "lets air through",
            openingOf(p, record) < context.limits.ventOpening.value ? "bad" : "good",
          ),
        ),
  setup: () => [...VENT_PARTS],
  irrelevant: {
    nozzle: "blown through, each part has answered",
    "parts.flow": "more that goes through at less pressure is freer",
    "parts.back": "none at all is free",
    temperature: "it goes into the flow by less than a gauge shows",
  },
  fields: ventPathFields,
  form: ventPathForm,
  plan: planVentPath,
  judge: judgeVentPath,
};
