import { atomOf, CHECK_IDS, CHECKS, type CheckContext, type Claim, seated, tightAt, trimAtIdle } from "../../checks";
import { refusal } from "../../checks/trims";
import { isForVapourMonitor } from "../../faults";
import { EVAP_ZONES } from "../../vehicle";
import { type Bodies, isOfVapour, monitorResult } from "../entries";
import { type ChasedCode, chasedCodes, codeState, ranSince } from "./codes";
import { type ComesUnder, comesUnder, notMet } from "./complaint";
import type { Evidence } from "./evidence";
import { disturbed, requirementsOf, settle } from "./obligations";
import { isAfter, type Line, type LineOf, linesOf } from "./order";
import type { Obligation, Requirement } from "./requirement";
import { type ResetState, resetsOf } from "./resets";
import { jointIds, lastWorkOf, type Touch, touchesOf } from "./touches";

export * from "./codes";
export * from "./complaint";
export * from "./confounded";
export * from "./evidence";
export * from "./obligations";
export * from "./order";
export * from "./requirement";
export * from "./resets";
export * from "./step";
export * from "./touches";

/** State of proof of a job: what stands proved, what is still owed. */
export interface Proof {
  /** Must be shown good before the job may close, answered or not */
  readonly owed: readonly Obligation[];
  readonly codes: readonly ChasedCode[];
  readonly complaint: "gone" | "remains" | "not-tried" | "not-since" | "order-unknown";
  /** Conditions of the complaint that were not met since the repair */
  readonly complaintNeeds: readonly ComesUnder[];
  /** Of the vapour system's own monitor; undefined where no code asks for it */
  readonly monitor?: "passed" | "failed" | "not-since" | "too-soon";
  /** It came back, and nothing was repaired since */
  readonly cameBack: boolean;
  /** Any check ever showed the fault */
  readonly shown: boolean;
  /** Resets that the ECU may be told of this car's parts, and whether it may by now */
  readonly resets: readonly ResetState[];
}

export interface ProofInput {
  readonly lines: readonly Line[];
  readonly retracted: readonly Line[];
  readonly evidence: readonly Evidence[];
  readonly context: CheckContext | undefined;
}

/** Findings, failing checks and codes that were set aside with a reason. */
const setAsideIds = (lines: readonly Line[]): ReadonlySet<string> => new Set(linesOf(lines, "set-aside").map((l) => l.body.id));

/** Everything that closing rests on, from the record with corrections resolved. */
export function proofOf({ lines, retracted, evidence, context }: ProofInput): Proof & { readonly touches: readonly Touch[] } {
  const of = <K extends keyof Bodies>(kind: K) => linesOf(lines, kind);
  const standing = evidence.filter((e) => e.stands);
  const touches = touchesOf(lines, standing);
  const work = touches.filter((t) => t.work);
  const lastWork = lastWorkOf(touches);
  const aside = setAsideIds(lines);
  const layout = context?.layout;
  const facts = {
    evidence,
    touches,
    orders: of("order"),
    joints: layout ? jointIds(layout) : new Set<string>(),
    layout,
    banks: context?.vehicle.banks,
    aside,
    lastWork,
  };
  const codes = chasedCodes(lines, retracted, aside).map((set) =>
    codeState(set, { lines, touches, evidence: standing, context }),
  );
  const failing = requirementsOf(facts);
  const chased = context ? codeRequirements(codes, context) : [];
  const requirements = [...failing, ...chased.filter((d) => !failing.some((f) => f.claim.atom === d.claim.atom))];
  const off = context ? disturbed(lines, touches, (joint) => seatedAgain(context, joint)) : [];
  const after = (line: Line) => work.every((t) => t.ended && isAfter(line, t.ended));

  const tries = of("complaint-tried");
  const remains = [
    ...tries.filter((t) => t.body.result === "remains"),
    // A try that was taken out or worded anew still says that it remained then.
    ...([...tries, ...(retracted.filter((l) => l.kind === "complaint-tried") as unknown as LineOf<"complaint-tried">[])].filter(
      (t) => (t.former as Bodies["complaint-tried"][]).some((b) => b.result === "remains"),
    ) as LineOf<"complaint-tried">[]),
  ];
  // On a drive it came back: that is no less than a try at which it remained.
  const cameBackOn = [...of("drive"), ...(retracted.filter((l) => l.kind === "drive") as unknown as LineOf<"drive">[])].filter(
    (d) => (!retracted.includes(d) && d.body.cameBackAfter) || (d.former as Bodies["drive"][]).some((b) => b.cameBackAfter),
  );
  const gone = tries.filter((t) => t.body.result === "gone");
  const complaint = gone.some((t) => after(t) && [...remains, ...cameBackOn].every((r) => r === t || isAfter(t, r)))
    ? "gone"
    : tries.length === 0
      ? "not-tried"
      : tries.at(-1)?.body.result === "remains" || cameBackOn.some(after)
        ? "remains"
        : gone.some(after)
          ? "order-unknown"
          : "not-since";

  const monitors = of("monitor").filter((m) => isOfVapour(m.body) && monitorResult(m.body) !== "not-complete");
  const lastMonitor = monitors.findLast(after);
  const cleared = of("codes-cleared").filter(after);
  const ran = (m: LineOf<"monitor">) => cleared.some((c) => ranSince(m, c, context));
  const monitor = codes.some((c) => isForVapourMonitor(c.code))
    ? lastMonitor === undefined
      ? "not-since"
      : monitorResult(lastMonitor.body) === "failed"
        ? "failed"
        : monitors.some((m) => after(m) && monitorResult(m.body) === "passed" && ran(m))
          ? "passed"
          : "too-soon"
    : undefined;

  const back = of("outcome").findLast((o) => o.body.result === "came-back");
  const repairs = of("repair").filter((r) => r.body.permanence !== "bypass");
  return {
    owed: settle([...requirements, ...off], facts),
    codes,
    complaint,
    complaintNeeds: notMet(
      comesUnder(of("story").at(-1)?.body),
      of("drive").filter(after),
      standing.filter((e) => after(e.line)),
    ),
    ...(monitor ? { monitor } : {}),
    cameBack: back !== undefined && !repairs.some((r) => isAfter(r, back)),
    resets: resetsOf(lines, facts),
    shown: failing.length > 0 || evidence.some((e) => aside.has(e.line.id)),
    touches,
  };
}

/** Obligations from chased codes to the checks, whatever was measured. */
const codeRequirements = (codes: readonly ChasedCode[], context: CheckContext): Requirement[] =>
  CHECK_IDS.flatMap((check) => {
    const claims =
      CHECKS[check].codes?.claims(
        codes.filter((c) => !c.monitored),
        context,
      ) ?? [];
    return claims.map((claim) => ({ claim, answeredBy: check, bads: [] }));
  });

/** A place put back: seen seated, shown tight, or, where the engine would show it, its trims in band since. */
function seatedAgain({ layout, vehicle }: CheckContext, joint: string): Claim {
  const vapour = EVAP_ZONES.includes(layout.joints.find((j) => j.id === joint)?.from ?? "manifold");
  const live = !vapour && refusal(vehicle) === undefined ? [trimAtIdle(vehicle.banks)] : [];
  return { ...seated(layout, joint, "open"), metBy: [[atomOf("seated", joint)], [tightAt(joint)], ...live] };
}
