import { formatNumber, toSi } from "../../units";
import { noWayIn } from "../../vehicle";
import { type Claim, ofPart, type Says, tight } from "../claim";
import type { CheckContext } from "../context";
import type { Verdict } from "../verdict";
import type { PressureTest } from "./fields";
import { escapesOf, testedBy, topOf } from "./judge";

/** Pressures are asked after in these steps, Pa: as close as a gauge is set to where it stood before. */
const STEP = 5e3;
const stepOf = (pressure: number) => Math.floor(pressure / STEP + 1e-6);
const atStep = (step: number) => `at ${formatNumber((step * STEP) / 1e5, 2)} bar`;

/**
 * Claims of a test of each joint it put under pressure: leaking where air came out at a pressure the test was allowed to have,
 * whatever spoiled the rest of it; tight where the test passed; open everywhere else. What began at a pressure is answered at
 * that pressure: neither clean smoke nor a test that stopped below says anything of it.
 */
export function pressureClaims(record: PressureTest, verdict: Verdict, context: CheckContext): Claim[] {
  const { layout, vehicle } = context;
  if (vehicle.induction !== "turbo" || noWayIn(layout, record)) return [];
  const escapes = escapesOf(record, context).filter((e) => layout.joints.some((j) => j.id === e.joint));
  const byEye = { byEye: true } as const;
  const here = (joint: string, says: Says): Claim => ({ ...tight(layout, joint, says), ...byEye });
  const at = (joint: string, step: number, says: Says): Claim => ({
    ...ofPart(layout, "tight", joint, "tight", says, atStep(step)),
    ...byEye,
  });
  const bad = escapes.flatMap(({ joint, from }) => [here(joint, "bad"), at(joint, stepOf(toSi(from)), "bad")]);
  if (verdict.outcome === "void") return bad;
  const tested = verdict.outcome === "pass" ? (verdict.tested ?? []) : [];
  const steps = Array.from({ length: stepOf(toSi(topOf(record))) + 1 }, (_, step) => step);
  const rest = testedBy(record, layout).tested.filter((j) => !escapes.some((e) => e.joint === j.id));
  return [
    ...bad,
    ...rest.flatMap(({ id }) => {
      const says: Says = tested.includes(id) ? "good" : "open";
      // A failing test owes each other joint once, and not at every pressure.
      return [here(id, says), ...(bad.length > 0 ? [] : steps.map((step) => at(id, step, says)))];
    }),
  ];
}

/** Joints that the test's own setup takes off, plugs or holds. */
export const pressureSetup = (r: Pick<PressureTest, "entry" | "blocked" | "heldOpen">): string[] => [
  r.entry,
  ...r.blocked,
  ...r.heldOpen,
];
