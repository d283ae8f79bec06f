import { formatQuantity, toSi } from "../../units";
import type { CheckContext } from "../context";
import { instrumentDoubt } from "../instrument";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import { type BenchPart, PART_STATES, WAYS } from "./fields";

/** A gauge a little off is no test above its rating. */
const TOO_MUCH = 1.03;
/** Least time that a part is watched, s. */
const WATCH = 30;

/** Judges a part by itself: what comes out is its own, and a part that lets nothing out may be fitted. */
export function judgeBenchPart(record: BenchPart, { limits }: Pick<CheckContext, "limits">): Verdict<never> {
  const { part, pressure, rating, seconds, leaksAt, plugged } = record;
  const on = formatQuantity({ ...pressure, kind: "gauge" });
  const measures: Measure[] = [
    {
      name: "Pressure on it",
      value: { ...pressure, kind: "gauge" },
      limit: `at most ${formatQuantity({ ...rating, kind: "gauge" })}`,
      limitSource: "the rating of part, plugs and hose",
    },
    { name: "Watched for", value: { value: seconds, unit: "s" }, limit: `${WATCH} s or longer`, limitSource: "shop default" },
  ];
  const base = { measures, zones: [] };
  if (toSi(pressure) > TOO_MUCH * toSi(rating))
    return voidVerdict(
      "This test proves nothing",
      "it was put under more than part, plugs and hose are rated for: what opened may have been made by it. Let it down, check all three",
    );
  if (leaksAt)
    return {
      ...base,
      outcome: "fail",
      headline: `${part} leaks at ${leaksAt}`,
      reasons: [
        record.state === "new" ? "do not fit it" : "that is what was wrong with it, or one of its faults",
        "it says nothing of the car it came from",
      ],
    };
  const doubt = instrumentDoubt(record.instrument, toSi(pressure), limits);
  const open = !plugged
    ? "an opening was not plugged, or a plug leaked: plug it and try again"
    : seconds < WATCH
      ? `watch it for ${WATCH} s or longer`
      : doubt;
  if (open) return { ...base, outcome: "unsure", headline: `${part}: nothing seen, and not sure yet`, reasons: [open] };
  return {
    ...base,
    outcome: "pass",
    headline: `${part} is tight at ${on}, ${WAYS[record.way].toLowerCase()}`,
    reasons: [`${PART_STATES[record.state].toLowerCase()}: it says nothing of the car`],
  };
}
