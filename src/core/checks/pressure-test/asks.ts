import { noWayIn, reachOf } from "../../vehicle";
import { type Asked, type Says, tight } from "../asked";
import type { CheckContext, Verdict } from "../check";
import { escapesOf } from "./judge";
import type { PressureTest } from "./record";

/**
 * What a test says of each joint it put under pressure: leaking where air came out at a pressure the test was allowed to have,
 * whatever spoiled the rest of it; tight where the test passed; open everywhere else.
 */
export function pressureAsks(record: PressureTest, verdict: Verdict, context: CheckContext): Asked[] {
  const { layout, vehicle } = context;
  if (vehicle.induction !== "turbo" || noWayIn(layout, record)) return [];
  const out = escapesOf(record, context).filter((id) => layout.joints.some((j) => j.id === id));
  const bad = out.map((id) => tight(layout, id, "bad"));
  if (verdict.outcome === "void") return bad;
  const tested = verdict.outcome === "pass" ? (verdict.tested ?? []) : [];
  const says = (id: string): Says => (tested.includes(id) ? "good" : "open");
  const rest = reachOf(layout, record).tested.filter((j) => !out.includes(j.id));
  return [...bad, ...rest.map((j) => tight(layout, j.id, says(j.id)))];
}

/** Joints that the test's own setup takes off, plugs or holds. */
export const pressureSetup = (r: Pick<PressureTest, "entry" | "blocked" | "heldOpen">): string[] => [
  r.entry,
  ...r.blocked,
  ...r.heldOpen,
];
