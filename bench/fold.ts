import { judgeSmoke } from "@/core/checks/smoke";
import { judgeTrims } from "@/core/checks/trims";
import { contextOf, NATURAL, smokeRun } from "@/core/core.fixture";
import { LEAN, proved, trimSurvey } from "@/core/journal/journal.fixture";

/** Best of a few, ms. */
function timed(work: () => unknown, repeats = 7): number {
  let best = Infinity;
  for (let i = 0; i < repeats; i++) {
    const start = performance.now();
    work();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

/** Cost of a tap on the bench: a fold of a long journal, a survey judged, a smoke run judged. */
export function foldTimes(): [string, number][] {
  const { job } = proved();
  while (job.entries.length < 5000) job.add("note", { text: `note ${job.entries.length}` });
  const context = contextOf(NATURAL);
  return [
    ["fold of 5,000 entries, its fits remembered", timed(() => job.state())],
    ["trim survey of five points judged anew", timed(() => judgeTrims(trimSurvey(LEAN), context))],
    ["smoke run of sixteen samples judged anew", timed(() => judgeSmoke(smokeRun(), context))],
  ];
}
