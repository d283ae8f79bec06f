import { CHECKS } from "../checks";
import { formOf, type Option } from "../form";
import { type Bodies, bodySchema, OUTCOMES } from "./entries";
import type { JobState } from "./state";

type SetAside = Bodies["set-aside"];

interface Left {
  /** What could be left as it is; its id says what it is and which one */
  readonly left: readonly Option[];
}

/**
 * What could be left as it is: findings that nothing repairs, checks that fail, codes that are not quiet.
 * @param time how a time is said.
 */
export function knownOfSetAside(
  { findings, checks, proof, setAside }: Pick<JobState, "findings" | "checks" | "proof" | "setAside">,
  time: (iso: string) => string,
): Left {
  const already = new Set(setAside.map((s) => s.id));
  return {
    left: [
      ...findings
        .filter((f) => !f.repairedBy && !already.has(f.entry))
        .map((f): Option => [`finding ${f.entry}`, `Found: ${f.body.what}`]),
      ...checks
        .filter((c) => c.verdict.outcome === "fail" && !c.onBench && !already.has(c.entry))
        .map(
          (c): Option => [
            `check ${c.entry}`,
            `${CHECKS[c.check].name}, ${time(typeof c.at === "string" ? c.at : c.at.from)}: ${c.verdict.headline}`,
          ],
        ),
      ...proof.codes.filter((c) => !c.quiet).map((c): Option => [`code ${c.code}`, `Code ${c.code}`]),
    ],
  };
}

/** Something that is left as it is: why, at what risk, what the customer decided, and when it is looked at again. */
export const setAsideForm = formOf<SetAside, Left>()({
  schema: bodySchema("set-aside"),
  fields: {
    id: {
      type: "choice",
      list: true,
      label: "What",
      options: ({ known }) => known.left,
      holds: ({ known }) => known.left[0]?.[0],
    },
    reason: { type: "text", long: true, label: "Why it is left" },
    risk: { type: "text", long: true, label: "What may come of it" },
    decision: { type: "text", long: true, label: "What the customer decided" },
    date: { type: "text", time: "day", label: "Looked at again on" },
  },
  also: ({ id }) => {
    if (typeof id !== "string") return {};
    const [of, ...rest] = id.split(" ");
    return { of, id: rest.join(" ") };
  },
  elsewhere: { of: "Choose what is left as it is" },
});

/** What the handover is decided on: the journal as far as it was read, and whether the repair is proved. */
export type Decided = Pick<Bodies["handover"], "decidedOn" | "conditional">;

export const decidedOf = ({ lastSeq, blocks }: Pick<JobState, "lastSeq" | "blocks">): Decided => ({
  decidedOn: lastSeq,
  conditional: blocks.close.length > 0,
});

/** What the customer takes along: what to know, what to watch, when to come back. */
export const handoverForm = formOf<Bodies["handover"], Decided>()({
  schema: bodySchema("handover"),
  fields: {
    summary: { type: "text", long: true, label: "What the customer should know" },
    watch: { type: "text", label: "What to watch" },
    comeBack: { type: "text", label: "When to come back" },
    call: {
      type: "text",
      time: "day",
      label: "Ask how it held on",
      hint: ({ known }) =>
        `Left empty: ${known.conditional ? "after a week" : "after four weeks"}. It stands under Whom to call then`,
    },
  },
  also: (_read, { known }) => known,
});

/** What happened weeks later. */
export const outcomeForm = formOf<Bodies["outcome"], undefined>()({
  schema: bodySchema("outcome"),
  fields: {
    result: { type: "choice", label: "What happened weeks later", options: Object.entries(OUTCOMES) },
    note: { type: "text", label: "Note" },
  },
});
