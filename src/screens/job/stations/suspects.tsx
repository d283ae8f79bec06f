"use client";

import type { StationId } from "@/core/journal";
import { Button } from "@/ui/button";
import { SuspectRow } from "../ledger";
import { StationFrame } from "../station-frame";
import { useJob } from "../use-job";

/** What could explain all of it, ranked; and which check is best next, with why it beats the second. */
export function SuspectsStation({ go }: { go: (station: StationId) => void }) {
  const { state } = useJob();
  const [first, second] = state.next;
  return (
    <StationFrame title="Suspects" lead="Ranked by what the Story, the codes and the checks say. Void checks weigh nothing.">
      {first && (
        <section aria-label="Best next check" className="border-l-4 border-live bg-raised px-4 py-3">
          <p className="text-muted">Best next check</p>
          <p className="text-xl font-bold">{first.name}</p>
          <p className="first-letter:uppercase">{first.why}.</p>
          {second && (
            <p className="text-muted">
              Second: {second.name.toLowerCase()}, {second.why}.
            </p>
          )}
          <Button look="primary" className="mt-3" onClick={() => go(first.check === "look" ? "look" : "check")}>
            Go there
          </Button>
        </section>
      )}
      <ol className="flex flex-col gap-1">
        {state.suspects
          .filter((s) => s.odds >= 0.005)
          .map((s) => (
            <SuspectRow key={s.cause.id} suspect={s} />
          ))}
      </ol>
      {state.suspects.some((s) => s.odds < 0.005) && (
        <p className="text-muted">
          Below half a percent each:{" "}
          {state.suspects
            .filter((s) => s.odds < 0.005)
            .map((s) => s.cause.name.toLowerCase())
            .join(", ")}
          .
        </p>
      )}
    </StationFrame>
  );
}
