import { EVAP_ZONES, type Joint, reachOf, usualSetup } from "../../vehicle";
import { atomOf, type Claim, ofEngine, type Says, tight } from "../claim";
import type { CheckContext } from "../context";
import { leaksSeen } from "../seen";
import type { Verdict } from "../verdict";
import type { SmokeRun } from "./fields";

/** A joint that belongs to the vapour system, however far an intake's fill may get into it. */
const ofVapour = (joint: Joint) => EVAP_ZONES.includes(joint.from);

/**
 * What a run says of each joint its fill puts to the test: leaking where smoke
 * came out that should not, tight where the run passed and
 * showed smoke there, open everywhere else. Smoke seen before a trap closed stays seen.
 * @param circuit whose joints are asked after: the fill of one reaches into the other now and then.
 */
export function smokeClaims(run: SmokeRun, verdict: Verdict, context: CheckContext, circuit: "intake" | "vapour"): Claim[] {
  const { layout } = context;
  const seen = new Set(leaksSeen(run, layout).map((s) => s.joint));
  const bad = [...seen].flatMap((id) => (layout.joints.some((j) => j.id === id) ? [tight(layout, id, "bad")] : []));
  if (verdict.outcome === "void" || !layout.joints.some((j) => j.id === run.entry)) return bad;
  const tested = verdict.tested ?? [];
  const says = (id: string): Says => (verdict.outcome === "pass" && tested.includes(id) ? "good" : "open");
  // A run of one section, or with a part pinched off, asks for the whole circuit all the same.
  const usual = usualSetup(layout, run.entry, run.into);
  const whole = new Set([...reachOf(layout, run).tested, ...reachOf(layout, usual).tested].map((j) => j.id));
  const rest = layout.joints.filter((j) => whole.has(j.id) && !seen.has(j.id) && ofVapour(j) === (circuit === "vapour"));
  const inside = verdict.observation === "smoke-inside-path" ? "bad" : verdict.outcome === "pass" ? "good" : undefined;
  return [
    ...bad,
    ...rest.map((j) => tight(layout, j.id, says(j.id))),
    ...(circuit === "intake" && inside
      ? [ofEngine(layout, atomOf("inside", "intake"), "no path inside the intake", inside)]
      : []),
  ];
}

/** Joints that a run's own setup takes off, plugs or holds. */
export const smokeSetup = (run: Pick<SmokeRun, "entry" | "blocked" | "heldOpen">): string[] => [
  run.entry,
  ...run.blocked,
  ...run.heldOpen,
];
