import { reachOf } from "../../vehicle";
import { type Asked, type Says, tight } from "../asked";
import type { CheckContext, Verdict } from "../check";
import { leaksSeen } from "../seen";
import type { PressureTest } from "./record";

/** What a test says of each joint it put under pressure: leaking where air came out, tight where the test passed. */
export function pressureAsks(record: PressureTest, verdict: Verdict, { layout }: CheckContext): Asked[] {
  const known = (id: string) => layout.joints.some((j) => j.id === id);
  const seen = { blocked: record.blocked, seen: record.escapes.map((e) => ({ joint: e.joint, at: 0 })) };
  // Air that came out stays an escape, whatever spoiled the rest; above a rating it says nothing.
  const out = verdict.outcome === "void" ? [] : [...new Set(leaksSeen(seen, layout).map((s) => s.joint))].filter(known);
  const bad = out.map((id) => tight(layout, id, "bad"));
  if (verdict.outcome === "void" || !known(record.entry)) return bad;
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
