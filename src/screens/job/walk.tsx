"use client";

import { useEffect, useState } from "react";
import type { StationId } from "@/core/journal";
import { Button } from "@/ui/button";
import type { Go } from "./use-job";

interface Stop {
  readonly station: StationId;
  readonly title: string;
  readonly says: string;
}

/** Six stops of a first walk through a job. */
const STOPS: readonly Stop[] = [
  {
    station: "story",
    title: "It begins with what is said",
    says: "Complaint, noises, when it happens. What changes an answer is asked of the car; everything else can follow.",
  },
  {
    station: "suspects",
    title: "What could explain it",
    says: "Ranked, each with its because. The best next check is the one that tells most for its minutes; tap it and it opens.",
  },
  {
    station: "check",
    title: "An instrument, not a form",
    says: "Match the ball, the needle or a log; the verdict stands beside it as it grows, with its interval and its reason.",
  },
  {
    station: "find",
    title: "Pinned to one place",
    says: "A spot is not the whole story: cap it off and see the reading recover, then write down what was found.",
  },
  {
    station: "prove",
    title: "Only what came after counts",
    says: "The same check, the whole circuit, codes, the complaint itself. What is still owed is named, and each is a way there.",
  },
  {
    station: "handover",
    title: "One page for the customer",
    says: "Before and after, what was found and done, what is left open. The journal keeps every line, and loses none.",
  },
];

/** Whether the address asks for a walk through this job. */
const asked = () => new URLSearchParams(location.search).has("walk");

/** A guided walk over the bench: six stops, left at any time. */
export function Walk({ go }: { go: Go }) {
  const [at, setAt] = useState(() => (asked() ? 0 : undefined));
  const stop = at === undefined ? undefined : STOPS[at];
  useEffect(() => {
    if (stop) go(stop.station);
  }, [stop, go]);
  if (at === undefined || !stop) return null;
  const last = at === STOPS.length - 1;
  return (
    <section
      aria-label="A walk through a job"
      className="fixed right-4 bottom-20 z-30 flex w-96 max-w-[calc(100vw-2rem)] flex-col gap-2 rounded-xl border-2 border-live bg-panel p-4 shadow-xl lg:bottom-4"
    >
      <p className="text-sm text-muted">
        Stop {at + 1} of {STOPS.length}
      </p>
      <h2 className="text-lg font-bold">{stop.title}</h2>
      <p>{stop.says}</p>
      <div className="flex flex-wrap gap-2">
        <Button look="primary" onClick={() => setAt(last ? undefined : at + 1)}>
          {last ? "Done" : "Next stop"}
        </Button>
        {!last && (
          <Button look="bare" onClick={() => setAt(undefined)}>
            Leave the walk
          </Button>
        )}
      </div>
    </section>
  );
}
