import { type Candidate, TAKEN_APART } from "../candidate";
import type { CheckContext } from "../context";
import { evapWaysIn } from "../evap-smoke/candidates";
import type { Seen } from "./rows";

/** No smoke is made and nothing is looked along, minutes less than a smoke run. */
const SOONER = 2;

export const decayCandidates = (context: CheckContext): Candidate<Seen>[] =>
  evapWaysIn(context).map(({ at, ...way }) => ({
    ...way,
    name: `Pressure decay from the ${at}`,
    minutes: way.minutes - SOONER,
    penalty: TAKEN_APART,
    outcomes: ["decay-leaks", "decay-tight"],
    why: "says whether it leaks at all, not where",
  }));
