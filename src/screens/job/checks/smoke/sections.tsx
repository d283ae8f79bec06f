"use client";

import { proposeSections, type SmokeRun } from "@/core/checks/smoke";
import type { FillSetup } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { Note } from "@/ui/note";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";

interface SectionSetup extends FillSetup {
  readonly crank?: string;
}

/** Where to pinch or plug so that the next run splits the suspects best, and what the runs so far say together. */
export function Sections({ setup, onSetUp }: { setup: SectionSetup; onSetUp: (setup: SectionSetup) => void }) {
  const { state, layout } = useJob();
  const { number, sentence } = usePreferences();
  if (!layout) return null;
  const name = (id: string) => layout.joints.find((j) => j.id === id)?.name ?? id;
  const odds = new Map<string, number>();
  for (const s of state.suspects) if (s.cause.joint) odds.set(s.cause.joint, (odds.get(s.cause.joint) ?? 0) + s.odds);
  // A section is held against a run of the same way in, throttle and crank: against the last one where there is one.
  const last = state.checks.findLast((c) => c.check === "smoke" && c.verdict.outcome !== "void")?.record as SmokeRun | undefined;
  const { entry, into, blocked, heldOpen, crank = "" } = last ?? setup;
  const proposals = proposeSections(layout, { entry, into, blocked, heldOpen }, odds).slice(0, 3);
  const { sections } = state;
  if (proposals.length === 0 && !sections) return null;
  return (
    <section aria-label="Sections" className="flex flex-col gap-2">
      <h3 className="text-lg font-bold">Section it</h3>
      {sections && (
        <Note tone="live">
          <p className="font-bold">
            {sections.within.length > 0 ? `Read together: it lies in ${sections.within.map(name).join(", ")}` : "Read together"}
          </p>
          <ul className="list-disc pl-5 text-muted">
            {sections.says.map((s) => (
              <li key={s}>{sentence(s)}</li>
            ))}
          </ul>
        </Note>
      )}
      {proposals.length > 0 && (
        <>
          <p className="text-muted">One run for each section; the reading that stays says which part.</p>
          <DividedList>
            {proposals.map((p) => (
              <li key={p.cuts.join()} className="flex flex-wrap items-center gap-3 py-2">
                <span className="mr-auto">
                  <strong>Shut {p.cuts.map(name).join(" and ")}</strong>{" "}
                  <span className="text-muted">
                    takes out {p.takesOut.map(name).join(", ")}: {number(100 * p.share, 0)} % of the suspicion, about {p.minutes}{" "}
                    min
                  </span>
                </span>
                <Button onClick={() => onSetUp({ entry, into, heldOpen, crank, blocked: [...new Set([...blocked, ...p.cuts])] })}>
                  Set this section up
                </Button>
              </li>
            ))}
          </DividedList>
        </>
      )}
    </section>
  );
}
