import { CHECK_IDS, CHECKS, type CheckId, type Measure, type Verdict, verdictWord } from "../checks";
import { inSentence } from "../sentence";
import { formatQuantity } from "../units";
import { layoutOf, ZONE_NAMES } from "../vehicle";
import { type Bodies, CONFIRMATIONS, FAILURE_CAUSES, MONITOR_RESULTS, OUTCOMES } from "./entries";
import { quietAfter } from "./proof/codes";
import type { CheckState, JobState } from "./state";

/** One check before and after the repair, as the customer reads it. */
export interface Comparison {
  readonly check: CheckId;
  readonly name: string;
  /** One comparison of a page from another */
  readonly key: string;
  readonly before?: Summary;
  readonly after?: Summary;
}
export interface Summary {
  /** The verdict's word; empty where the headline begins with it */
  readonly word: string;
  readonly headline: string;
  readonly at: string;
  readonly measures: readonly Measure[];
  /** SHA-256 of pictures of the reading */
  readonly pictures: readonly string[];
}

/** Contents of the handover page, worked out once for screen, print and PDF. */
export interface Handover {
  readonly comparisons: readonly Comparison[];
  /** Work done, a repair a line */
  readonly done: readonly string[];
  /** Each code that was chased: read before, and what it says now */
  readonly codes: readonly string[];
  /** Last result of the EVAP monitor */
  readonly monitor?: string;
  /** Its outcome later */
  readonly outcomes: readonly { readonly at: string; readonly says: string }[];
  /** How far the job is proved, in a line; never more than the record bears */
  readonly proved: string;
  readonly unproved: readonly string[];
  /** Conditions that no shop can make: the customer's drive shows it */
  readonly onRoad: readonly string[];
  readonly temporary: readonly { readonly what: string; readonly limit: string; readonly recheck: string }[];
  readonly setAside: readonly {
    readonly what: string;
    readonly reason: string;
    readonly risk?: string;
    readonly decision?: string;
    readonly date?: string;
  }[];
  /** Of an inspection: what is tight, what leaks, and what nothing reached, each zone by its name */
  readonly inspected?: {
    readonly tight: readonly string[];
    readonly leaking: readonly string[];
    /** Smoke or air was there, while something else let it out */
    readonly reached: readonly string[];
    readonly notReached: readonly string[];
  };
  /** Changes that stay on the car for good, beside the repairs */
  readonly modified: readonly string[];
}

/** "Tight: Tight beyond …" says it twice. */
const unless = (word: string, headline: string) => (headline.toLowerCase().startsWith(word.toLowerCase()) ? "" : word);

const summary = (c: CheckState): Summary => ({
  word: unless(verdictWord(CHECKS[c.check], c.verdict), c.verdict.headline),
  headline: c.verdict.headline,
  at: typeof c.at === "string" ? c.at : c.at.from,
  measures: c.verdict.measures,
  pictures: c.pictures ?? [],
});

/** How far a job is proved, where nothing is owed. */
const STANDINGS: Readonly<Record<JobState["standing"], string>> = {
  proved: "Fully proved: what showed the fault was measured again after the last work, and is good.",
  "cause-unproved": "The fault is gone, and what cured it is not proved.",
  temporary: "Good for now: the repair is a temporary one, with a limit and a day to look at it again.",
  "something-left": "The rest is proved; something was left as it is, see what is left open.",
};

/** Result of an inspection for each of each zone of the car. */
function inspectedOf({ vehicle, zones, story }: JobState): Handover["inspected"] {
  if (!vehicle || story?.purpose !== "inspection") return undefined;
  const known = new Map(zones.map((z) => [z.zone, z.state]));
  const named = (is: (state: string | undefined) => boolean) =>
    layoutOf(vehicle)
      .zones.filter((z) => is(known.get(z.id)))
      .map((z) => z.name);
  return {
    tight: named((state) => state === "tight"),
    leaking: named((state) => state === "leaking"),
    reached: named((state) => state === "reached"),
    notReached: named((state) => state !== "tight" && state !== "leaking" && state !== "reached"),
  };
}

function provedHow(job: JobState): string {
  if (job.story?.purpose === "inspection" && job.repairs.every((r) => r.undone))
    return job.blocks.close.length > 0 ? "Inspected in part: see what is left open." : "Inspected; nothing asked for a repair.";
  if (job.blocks.close.length > 0)
    return job.blocks.close.every((b) => b.onRoad)
      ? "Proved as far as a shop can: what is left is shown by driving, see the open conditions."
      : "Not proved yet.";
  if (!job.repairs.some((r) => !r.undone))
    return job.nothingFound
      ? `Nothing found: the complaint did not show when it was tried, no code came back, and what was measured leaves about ${Math.round(100 * (1 - job.nothingFound))} % for a fault. Nothing was repaired.`
      : "Nothing was repaired in this job.";
  return STANDINGS[job.standing];
}

/** Items set aside, by its name on the page. */
function asideName(job: JobState, { of, id }: JobState["setAside"][number]): string {
  if (of === "code") return `Code ${id}`;
  if (of === "finding") return job.findings.find((f) => f.entry === id)?.body.what ?? "A finding";
  return job.checks.find((c) => c.entry === id)?.verdict.headline ?? "A reading";
}

/** A repair as the customer reads it. Labour that nobody wrote down is not none. */
function doneLine({ what, parts, labourMinutes, otherChanges, torques }: Bodies["repair"]): string {
  return [
    what,
    parts.length > 0 ? `Parts: ${parts.map((p) => `${p.count} × ${p.name}`).join(", ")}` : "",
    labourMinutes > 0 ? `Labour: ${labourMinutes} min` : "",
    otherChanges.length > 0 ? `Also changed: ${otherChanges.join(", ")}` : "",
    torques && torques.length > 0 ? `Torque: ${torques.map((t) => `${t.where} ${formatQuantity(t.torque)}`).join(", ")}` : "",
  ]
    .filter(Boolean)
    .map((part) => part.replace(/\.$/, ""))
    .join(". ")
    .concat(".");
}

/** How sure a finding is, and why the part failed. */
export function findingSurety({ confirmed, confirmedBy, failed }: Bodies["finding"]): string {
  const how = confirmedBy ? CONFIRMATIONS[confirmedBy] : "Capped off, and the reading recovered";
  const why = failed && `${FAILURE_CAUSES[failed.why]}${failed.against ? `; against it: ${failed.against}` : ""}`;
  return [confirmed ? `Confirmed. ${how}.` : "Not confirmed.", why && `Why it failed: ${why}.`].filter(Boolean).join(" ");
}

const telling = (v: Verdict) => v.outcome === "fail" || v.outcome === "pass";
/** The last that told anything, or else the last that was measured and was not sure. */
const lastOf = (checks: readonly CheckState[]) => checks.findLast((c) => telling(c.verdict)) ?? checks.at(-1);

/** The page's contents from a job's state: before and after by check, what is unproved, temporary or set aside. */
export function handoverOf(job: JobState): Handover {
  const inspected = inspectedOf(job);
  // What was measured comes before what was only seen or shut off.
  const located = (id: CheckId) => Number(CHECKS[id].role === "locates");
  const kinds = CHECK_IDS.toSorted((a, b) => located(a) - located(b));
  const comparisons = kinds.flatMap((check): Comparison[] => {
    const ofKind = job.checks.filter((c) => c.check === check && !c.onBench && c.verdict.outcome !== "void");
    const parts = CHECKS[check].byPart ? [...new Set(ofKind.map((c) => c.place ?? ""))] : [""];
    return parts.flatMap((part): Comparison[] => {
      const all = part ? ofKind.filter((c) => c.place === part) : ofKind;
      const before = all.filter((c) => c.afterRepair === "before" || c.afterRepair === "no-repair");
      const shown = before.findLast((c) => c.verdict.outcome === "fail") ?? lastOf(before);
      const after = lastOf(all.filter((c) => c.afterRepair === "after"));
      // A clean look tells the customer nothing.
      if (CHECKS[check].station && shown?.verdict.outcome !== "fail") return [];
      if (!shown && !after) return [];
      return [
        {
          check,
          name: CHECKS[check].name,
          key: `${check} ${part}`,
          ...(shown ? { before: summary(shown) } : {}),
          ...(after ? { after: summary(after) } : {}),
        },
      ];
    });
  });
  return {
    comparisons,
    ...(inspected ? { inspected } : {}),
    done: job.repairs.filter((r) => !r.undone).map((r) => doneLine(r.body)),
    codes: job.proof.codes.map((c) => `${c.code}: read before; ${c.quiet ? quietAfter(c) : "not shown quiet yet"}`),
    ...(job.monitor
      ? { monitor: `EVAP monitor: ${inSentence(MONITOR_RESULTS[job.monitor.result])}, read by ${job.monitor.readBy}` }
      : {}),
    outcomes: job.outcomes.map((o) => ({ at: o.at, says: `${OUTCOMES[o.result]}${o.note ? `: ${o.note}` : ""}` })),
    proved: provedHow(job),
    unproved: [
      ...job.blocks.close.filter((b) => b.station === "prove" && !b.onRoad).map((b) => b.reason),
      ...(job.confounded.length > 0 ? [`Cured, cause unproved: changed together were ${job.confounded.join("; ")}`] : []),
    ],
    onRoad: job.blocks.close.flatMap((b) => (b.customer === undefined ? [] : [b.customer])),
    temporary: job.repairs
      .filter((r) => !r.undone && r.body.permanence === "temporary")
      .map((r) => ({ what: r.body.what, limit: r.body.limit ?? "", recheck: r.body.recheck ?? "" })),
    setAside: [
      ...job.codes.flatMap((c) => (c.asideReason ? [{ what: `Code ${c.code}`, reason: c.asideReason }] : [])),
      ...job.setAside.map((s) => ({
        what: asideName(job, s),
        reason: s.reason,
        risk: s.risk,
        decision: s.decision,
        date: s.date,
      })),
    ],
    modified: (job.vehicle?.tapped ?? []).map(
      (zone) => `A port is tapped into the ${inSentence(ZONE_NAMES[zone])} for good, and plugged`,
    ),
  };
}
