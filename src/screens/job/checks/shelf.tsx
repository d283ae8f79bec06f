"use client";

import { Wrench } from "lucide-react";
import { useDeferredValue, useState } from "react";
import { CHECK_IDS, CHECKS, type CheckId, SHELVES, type Shelf } from "@/core/checks";
import { afterPaint } from "@/ui/after-paint";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { useJob } from "../use-job";

/** The instruments by what the engine does meanwhile. */
const GROUPS = (Object.keys(SHELVES) as Shelf[]).map(
  (shelf) => [SHELVES[shelf], CHECK_IDS.filter((id) => CHECKS[id].shelf === shelf)] as const,
);

/** The instrument in hand, and the shelf it came from: every check with what it is for; the best next one is marked. */
export function InstrumentShelf({ value, onChange }: { value: CheckId; onChange: (kind: CheckId) => void }) {
  const [open, setOpen] = useState(false);
  // The sheet is there at once, what lies on the shelf follows.
  const laidOut = useDeferredValue(open, false);
  const take = (kind: CheckId) => {
    setOpen(false);
    afterPaint(() => onChange(kind));
  };
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 max-sm:gap-x-2">
      <h2 className="text-2xl font-bold max-sm:text-xl">{CHECKS[value].name}</h2>
      <Button onClick={() => setOpen(true)}>
        <Wrench aria-hidden size={18} /> <span className="max-sm:sr-only">Another instrument</span>
      </Button>
      <Dialog open={open} onOpenChange={setOpen} title="Instruments" description="What is worth most for its time now is marked.">
        <div className="min-h-[70dvh]">{laidOut && <OnTheShelf value={value} onTake={take} />}</div>
      </Dialog>
    </div>
  );
}

function OnTheShelf({ value, onTake }: { value: CheckId; onTake: (kind: CheckId) => void }) {
  const { state } = useJob();
  const best = state.next.find((n) => CHECKS[n.check].shelf);
  return (
    <div className="flex flex-col gap-4">
      {GROUPS.map(([group, kinds]) => (
        <section key={group} aria-label={group}>
          <h3 className="mb-1 text-sm text-muted">{group}</h3>
          <ul className="grid gap-1 sm:grid-cols-2">
            {kinds.map((kind) => {
              const next = state.next.find((n) => n.check === kind);
              return (
                <li key={kind}>
                  <button
                    type="button"
                    aria-pressed={kind === value}
                    onClick={() => onTake(kind)}
                    className={`flex h-full min-h-14 w-full cursor-pointer flex-col rounded-md border px-3 py-2 text-left hover:bg-raised ${kind === value ? "border-live" : "border-edge"}`}
                  >
                    <span className="flex items-baseline justify-between gap-2">
                      <strong>{CHECKS[kind].name}</strong>
                      {best?.check === kind && <span className="text-sm font-bold text-live">best next</span>}
                    </span>
                    <span className="block text-sm text-muted">
                      {next?.notNow ? `Not now: ${next.notNow}` : CHECKS[kind].aim}
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
        </section>
      ))}
    </div>
  );
}
