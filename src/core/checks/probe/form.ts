import { type Field, formOf } from "../../form";
import type { Joint } from "../../vehicle";
import type { RecordSource } from "../fields";
import { checkForm, optionsOf } from "../known";
import { houseAgent } from "./plan";
import { AGENT_NAMES, AGENTS, type ProbeRecord, type ProbeSeries, type ProbeTap, probeSchema, probeTapSchema } from "./record";

/** What is said of a probe; its taps are marked as they happen, the log is read against them. */
export const probeForm = checkForm<ProbeRecord>()({
  schema: probeSchema,
  fields: {
    agent: {
      type: "choice",
      label: "Agent",
      options: optionsOf(AGENTS, AGENT_NAMES),
      holds: ({ known }) => houseAgent(known.context.house),
    },
    closedLoop: {
      type: "answer",
      label: "Loop",
      yes: "Closed",
      no: "Open",
      aside: true,
      hint: "In open loop trims say nothing; a log that has the loop says it itself",
    },
    taps: { type: "taken", label: "Taps", empty: [] },
    series: {
      type: "taken",
      label: "The log around them",
      needed: ({ holds }) => {
        const taps = holds("taps") as readonly ProbeTap[];
        return taps.length > 0 && !taps.every((t) => t.typed)
          ? "Import the log of these taps, or type what you saw at each."
          : undefined;
      },
    },
    source: { type: "taken", label: "Where they come from", empty: { kind: "typed" } satisfies RecordSource },
    /** How the taps are read, and the one that comes next */
    aside: { type: "taken", label: "The next tap", aside: true },
  },
  // A log that has the loop says it itself.
  also: (read, { holds }) => {
    const taps = read.taps as readonly ProbeTap[];
    const series = read.series as ProbeSeries | undefined;
    const said = holds("closedLoop");
    if (said === "yes" || said === "no") return { closedLoop: said === "yes" };
    const logged = series?.loop !== undefined && !taps.some((t) => t.typed);
    return logged ? { closedLoop: series?.loop?.every((closed) => closed !== 0) } : {};
  },
});

interface Spots {
  readonly spots: readonly Joint[];
}

const percent = (when: "before" | "after"): Field<Spots> => ({
  type: "number",
  label: ({ holds }) => `${holds("typed.shows") === "short" ? "Short-term" : "Total"} trim ${when}, %`,
  bare: "%",
  swings: true,
});
const speed = (when: "before" | "after"): Field<Spots> => ({ type: "number", label: `Speed ${when}, 1/min`, bare: "1/min" });

/** What one spot did, read by eye. */
export const probeTapForm = formOf<ProbeTap, Spots>()({
  schema: probeTapSchema,
  fields: {
    joint: { type: "place", label: "Spot", among: ({ known }) => known.spots, holds: ({ known }) => known.spots[0]?.id },
    "typed.shows": {
      type: "choice",
      label: "The tool shows",
      options: [
        ["total", "Short and long, added up"],
        ["short", "Short-term alone"],
      ],
      silent: "total",
      holds: () => "total",
    },
    "typed.trimBefore": { ...percent("before"), needed: () => "Type the trim before" },
    "typed.trimAfter": { ...percent("after"), needed: () => "Type the trim after" },
    "typed.rpmBefore": { ...speed("before"), needed: () => "Type the speed before" },
    "typed.rpmAfter": { ...speed("after"), needed: () => "Type the speed after" },
  },
});

/** A tap added afterwards, by its time on the log's clock. */
export const timedTapForm = formOf<ProbeTap, Spots>()({
  schema: probeTapSchema,
  fields: {
    joint: probeTapForm.fields.joint,
    at: { type: "number", label: "Tapped at, s", bare: "s", needed: () => "Type the time in seconds on the log's clock" },
  },
});
