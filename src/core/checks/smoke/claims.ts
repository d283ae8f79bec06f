import { formatNumber, fromSi, toSi } from "../../units";
import { EVAP_ZONES, type Joint, reachOf } from "../../vehicle";
import { atomOf, type Claim, ofEngine, type Point, type Says, tight, type Window } from "../claim";
import type { CheckContext } from "../context";
import { leaksSeen } from "../seen";
import type { Verdict } from "../verdict";
import type { SmokeRun } from "./fields";
import { readSmoke, USUAL_DIVISION } from "./reading";

/** A joint that belongs to the vapour system, however far an intake's fill may get into it. */
const ofVapour = (joint: Joint) => EVAP_ZONES.includes(joint.from);

/**
 * Claims of a run of each joint its fill puts to the test: leaking where smoke
 * came out that should not, tight where the run passed and
 * showed smoke there, open everywhere else. Smoke seen before a trap closed stays seen.
 * @param circuit whose joints are asked after: the fill of one reaches into the other now and then.
 */
export function smokeClaims(run: SmokeRun, verdict: Verdict, context: CheckContext, circuit: "intake" | "vapour"): Claim[] {
  const { layout } = context;
  const seen = new Set(leaksSeen(run, layout).map((s) => s.joint));
  const at = flowsOf(run, context);
  const under = lessThan(run, context);
  const bad = [...seen].flatMap((id) =>
    layout.joints.some((j) => j.id === id) ? [{ ...tight(layout, id, "bad"), under, byEye: true as const }] : [],
  );
  if (verdict.outcome === "void" || !layout.joints.some((j) => j.id === run.entry)) return bad;
  const tested = verdict.tested ?? [];
  const says = (id: string): Says => (verdict.outcome === "pass" && tested.includes(id) ? "good" : "open");
  // It asks for what it put to the test, and for no more: a charge side that leaks says nothing of an oil cap.
  const whole = new Set(reachOf(layout, run).tested.map((j) => j.id));
  const rest = layout.joints.filter((j) => whole.has(j.id) && !seen.has(j.id) && ofVapour(j) === (circuit === "vapour"));
  const inside = verdict.observation === "smoke-inside-path" ? "bad" : verdict.outcome === "pass" ? "good" : undefined;
  return [
    ...bad,
    ...rest.map((j) => ({ ...tight(layout, j.id, says(j.id)), at, byEye: true as const })),
    ...(circuit === "intake" && inside
      ? [ofEngine(layout, atomOf("inside", "intake"), "no path inside the intake", inside)]
      : []),
  ];
}

/** Flow that a run settled at, m³/s, by where the crank stood where somebody said. */
function flowsOf(run: SmokeRun, { layout }: CheckContext): readonly Point[] {
  const { flow } = readSmoke(run, reachOf(layout, run));
  return flow ? [{ flow: flow.value, ...(run.crank ? { [atCrank(run.crank)]: flow.value } : {}) }] : [];
}
const atCrank = (crank: string) => `flow at ${crank.trim().toLowerCase()}`;

/**
 * Obligation that a run that smoke leaked from asks of the next one, where the fill goes through the engine: what the valves pass never
 * stops, so the ball must settle lower than before by more than two readings of it can be apart.
 */
function lessThan(run: SmokeRun, context: CheckContext): readonly Window[] {
  const reach = reachOf(context.layout, run);
  const { flow } = readSmoke(run, reach);
  if (!flow || !reach.zones.includes("cylinders")) return [];
  const { machine } = run;
  const division = machine.division ? toSi(machine.division) : USUAL_DIVISION * toSi(machine.maxFlow);
  const to = Math.max(0, flow.value - division);
  const litres = formatNumber(fromSi(to, "L/min").value, 1);
  return [
    {
      of: run.crank ? atCrank(run.crank) : "flow",
      to,
      words: `with the ball below ${litres} L/min${run.crank ? `, the crank at ${run.crank}` : ""}: what the engine's valves pass stays, what leaked must be gone from it; or plug the ports and see it at the bottom`,
    },
  ];
}

/** Joints that a run's own setup takes off, plugs or holds. */
export const smokeSetup = (run: Pick<SmokeRun, "entry" | "blocked" | "heldOpen">): string[] => [
  run.entry,
  ...run.blocked,
  ...run.heldOpen,
];
