import { FAMILY_IDS } from "../../faults";
import { type Claim, pointedAt, seated } from "../claim";
import type { CheckContext } from "../context";
import type { CheckKind, Plan } from "../contract";
import { refusal } from "../trims";
import type { Verdict } from "../verdict";
import { lookCandidates } from "./candidates";
import { type LookRecord, lookFields, lookForm } from "./fields";
import { lookList } from "./list";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./list";

function planLook(_context: CheckContext): Plan {
  return {
    steps: [
      { text: "Eyes, hands, ears and nose first. Do not tighten or touch a suspect cap or clamp: it destroys the evidence." },
      { text: "Engine cold: bend, feel, follow oil trails. Then running: listen and wiggle.", caution: "running-engine" },
    ],
    displaces: [],
    cautions: ["running-engine", "hot-exhaust"],
    clocks: [],
  };
}

/**
 * A finding stands; a place not reached is no evidence, and a fine look clears nothing. What was looked at is weighed place by
 * place; the whole list together only where all of it was looked at.
 */
function judgeLook(record: LookRecord, context: CheckContext): Verdict<Seen> {
  const list = lookList(context.layout, context.vehicle);
  const named = (state: string) =>
    record.items.filter((i) => i.state === state).map((i) => ({ ...i, item: list.find((l) => l.id === i.id) }));
  const found = named("found");
  const fine = named("fine").flatMap((f) => (f.item?.joint ? [`look-fine:${f.item.joint}` as const] : []));
  const looked = new Set(record.items.filter((i) => i.state !== "not-reached").map((i) => i.id));
  const asked = record.asked ?? list.map(({ id }) => id);
  const missed = asked.filter((id) => !looked.has(id)).length;
  const others = list.filter(({ id }) => !asked.includes(id) && !looked.has(id)).length;
  const open = [
    ...(missed > 0 ? [`${missed} of ${asked.length} places not reached`] : []),
    ...(others > 0 ? [`${others} other places not looked at`] : []),
  ];
  const at = [...new Set(found.flatMap((f) => (f.item?.joint ? [`look-found:${f.item.joint}` as const] : [])))];
  if (found.length > 0) {
    return {
      outcome: "fail",
      headline: `Found by eye and hand: ${found.map((f) => f.note || f.item?.text.split(":")[0] || f.id).join("; ")}`,
      measures: [],
      reasons: ["a spot found by eye is confirmed by a check before it is repaired", ...open],
      ...observed(at),
      zones: [],
    };
  }
  const unsure = missed > asked.length / 2;
  return {
    outcome: unsure ? "unsure" : "pass",
    headline: unsure ? "Most places not looked at yet" : "Nothing found by eye and hand",
    measures: [],
    reasons: ["a clean look does not clear a joint: perished rubber and gaskets hide", ...open],
    ...(unsure ? {} : observed(missed + others === 0 ? ["look-clean"] : fine)),
    zones: [],
  };
}

const observed = ([first, ...also]: readonly Seen[]) => ({
  ...(first ? { observation: first } : {}),
  ...(also.length > 0 ? { also } : {}),
});

/** A finding by eye owes its place tight; a place seen seated and whole is just that. */
function lookClaims({ items }: LookRecord, _verdict: Verdict, { layout, vehicle }: CheckContext): Claim[] {
  const list = lookList(layout, vehicle);
  return items.flatMap(({ id, state }): Claim[] => {
    // Besides the list, any place that came off can be looked at.
    const joint = layout.joints.find((j) => j.id === (list.find((l) => l.id === id)?.joint ?? id));
    if (!joint || state === "not-reached") return [];
    const leak = (says: "good" | "bad") =>
      pointedAt(layout, [joint.id], { banks: vehicle.banks, trims: refusal(vehicle) === undefined, by: "look", says });
    if (state === "found") return [leak("bad")];
    // Fine to the eye proves nothing of what was found there, unless it was mended since.
    return [seated(layout, joint.id, "good"), { ...leak("good"), afterWork: true }];
  });
}

export const look: CheckKind<LookRecord, unknown, Seen> = {
  id: "look",
  name: "Look and feel",
  words: { pass: "OK", fail: "Not OK" },
  aim: "Eyes, hands, ears and nose before any tool",
  engine: "standing",
  tool: "hands",
  station: "look",
  role: "locates",
  families: FAMILY_IDS,
  rows,
  candidates: lookCandidates,
  claims: lookClaims,
  fields: lookFields,
  form: lookForm,
  plan: planLook,
  judge: judgeLook,
};
