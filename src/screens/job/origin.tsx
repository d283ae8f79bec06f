"use client";

import { shortTime } from "./short-time";
import { useJob } from "./use-job";

/** Where a job comes from another shop, or something in its journal does not count: said before anything is judged by it. */
export function Origin() {
  const { imported, history } = useJob().state;
  const [first] = history;
  if (!imported && !first) return null;
  return (
    <section aria-label="Where it comes from" className="border-b border-line bg-amber-soft px-4 py-2">
      {imported && (
        <p>
          <strong>From another shop</strong>, imported {imported.by && `by ${imported.by}, `}
          {shortTime(imported.at)}. What was measured there proves and closes nothing here.
        </p>
      )}
      {first && (
        <p>
          <strong>{history.length === 1 ? "1 entry counts" : `${history.length} entries count`} for nothing</strong>, kept in the
          journal as history: {first.why}.
        </p>
      )}
    </section>
  );
}
