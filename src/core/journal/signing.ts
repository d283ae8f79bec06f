import { type Act, may } from "../people";
import type { Bodies, EntryKind } from "./entries";
import type { Entry } from "./envelope";
import { hadSeen, type Line, type LineOf, linesOf } from "./proof";

/** The right that an entry asks for, by its kind and what it says; everything else is recording. */
export function entryAct({ kind, body }: Pick<Entry, "kind" | "body">): Act {
  switch (kind) {
    case "signed":
      return "sign-repair";
    case "countersigned":
      return "countersign";
    case "handover":
      return (body as Bodies["handover"]).conditional && !(body as Bodies["handover"]).onRoad
        ? "hand-over-conditionally"
        : "record";
    default:
      // An apprentice's permanent repair is a proposal, and so is a closing: they wait for a signature.
      return "record";
  }
}

/** A closing that an apprentice asks for, until a lead has looked at it. */
export interface Closing {
  readonly entry: string;
  readonly by: string;
  /** A lead did not countersign it: why */
  readonly sentBack?: { readonly by: string; readonly reason: string };
}

/** Entries that stand under its own author's role, and what waits for a signature. */
export interface Signing {
  /** Repairs that an apprentice proposes as permanent, by entry */
  readonly proposed: ReadonlySet<string>;
  /** The line that closed the job last */
  readonly closed?: Line;
  readonly closing?: Closing;
}

/** Whether the role under which a line stands as it reads now may do this: who corrected it last answers for it. */
const standsFor = ({ newest }: Line, act: Act): boolean => may(newest.role, act);

/** Whether a signature is under a line as it reads now: who signed had seen that. */
const isUnder = (signature: Line, line: Line): boolean => hadSeen(signature.newest, line.newest);

/**
 * Entries that apprentices propose and others sign. In a practice bay everybody signs for themselves.
 * @param lines the record with corrections resolved.
 */
export function signingOf(lines: readonly Line[], practice: boolean): Signing {
  const of = <K extends EntryKind>(kind: K) => linesOf(lines, kind);
  const closes = of("close");
  if (practice) {
    const closed = closes.at(-1);
    return { proposed: new Set(), ...(closed ? { closed } : {}) };
  }
  const signatures = of("signed").filter((s) => standsFor(s, "sign-repair"));
  const proposed = of("repair").filter(
    (r) =>
      r.body.permanence === "permanent" &&
      !standsFor(r, "sign-repair") &&
      !signatures.some((s) => s.body.repair === r.id && isUnder(s, r)),
  );
  const countersigns = of("countersigned").filter((c) => standsFor(c, "countersign"));
  const answerTo = (close: LineOf<"close">) => countersigns.findLast((c) => c.body.close === close.id && isUnder(c, close));
  const own = closes.filter((c) => standsFor(c, "close"));
  const countersigned = countersigns.filter((c) => !c.body.sentBack && closes.some((close) => answerTo(close) === c));
  const closed = [...own, ...countersigned].reduce<Line | undefined>(
    (last, line) => (last && last.seq > line.seq ? last : line),
    undefined,
  );
  const asked = closes.findLast((c) => !standsFor(c, "close") && (!closed || c.seq > closed.seq));
  const answer = asked && answerTo(asked);
  return {
    proposed: new Set(proposed.map((r) => r.id)),
    ...(closed ? { closed } : {}),
    ...(asked
      ? {
          closing: {
            entry: asked.id,
            by: asked.by,
            ...(answer?.body.sentBack ? { sentBack: { by: answer.by, reason: answer.body.sentBack } } : {}),
          },
        }
      : {}),
  };
}
