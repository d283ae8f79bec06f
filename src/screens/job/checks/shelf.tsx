"use client";

import { Wrench } from "lucide-react";
import { useDeferredValue, useState } from "react";
import { CHECK_IDS, CHECKS, type CheckId, SHELVES, type Shelf } from "@/core/checks";
import { ruledOut } from "@/core/suspects";
import { afterPaint } from "@/ui/after-paint";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { useJob } from "../use-job";

/** Below so many bits a check tells hardly anything new, and is found in its group. */
const TELLS = 0.07;
/** So many stand before the groups. */
const MOST = 6;
/** So many lie at hand beside the one that is used, where each tells so many bits. */
const AT_HAND = { most: 3, tells: 0.2 };
/** The instruments by what the engine does meanwhile. */
const GROUPS = (Object.keys(SHELVES) as Shelf[]).map(
  (shelf) => [SHELVES[shelf], CHECK_IDS.filter((id) => CHECKS[id].shelf === shelf)] as const,
);

/** The instruments that tell so many bits now or more, each kind once, the best first. */
function useWorth(bits: number): readonly CheckId[] {
  const { state, context } = useJob();
  const fits = (id: CheckId) => CHECKS[id].shelf && !(context && CHECKS[id].unfit?.(context));
  return [...new Set(state.next.filter((n) => !n.notNow && n.bits >= bits && fits(n.check)).map((n) => n.check))];
}

/** The instrument in hand, and the shelf it came from: every check with what it is for; the best next one is marked. */
export function InstrumentShelf({ value, onChange }: { value: CheckId; onChange: (kind: CheckId) => void }) {
  const [open, setOpen] = useState(false);
  // The sheet is there at once, what lies on the shelf follows.
  const laidOut = useDeferredValue(open, false);
  const take = (kind: CheckId) => {
    setOpen(false);
    afterPaint(() => onChange(kind));
  };
  const atHand = useWorth(AT_HAND.tells)
    .filter((kind) => kind !== value)
    .slice(0, AT_HAND.most);
  return (
    // In the row of whoever shows it; what else is worth it has a row below.
    <div className="contents">
      <h2 className="text-2xl font-bold max-sm:text-xl">{CHECKS[value].name}</h2>
      <Button onClick={() => setOpen(true)}>
        <Wrench aria-hidden size={18} /> <span className="max-sm:sr-only">Another instrument</span>
      </Button>
      {atHand.length > 0 && (
        <div className="order-1 flex basis-full flex-wrap items-center text-muted max-sm:hidden">
          Also worth it:
          {atHand.map((kind) => (
            <Button key={kind} look="bare" onClick={() => take(kind)}>
              {CHECKS[kind].name}
            </Button>
          ))}
        </div>
      )}
      <Dialog open={open} onOpenChange={setOpen} title="Instruments" wide>
        <div className="min-h-[70dvh]">{laidOut && <OnTheShelf value={value} onTake={take} />}</div>
      </Dialog>
    </div>
  );
}

/** An instrument to take, with what it would settle now and its minutes, where a job is weighed. */
function Instrument({ kind, chosen, onTake }: { kind: CheckId; chosen: boolean; onTake: (kind: CheckId) => void }) {
  const { state } = useJob();
  const next = state.next.find((n) => n.check === kind);
  const best = state.next.find((n) => CHECKS[n.check].shelf)?.check === kind;
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={() => onTake(kind)}
      className={`flex h-full min-h-14 w-full cursor-pointer flex-col rounded-md border px-3 py-2 text-left hover:bg-raised ${chosen ? "border-live" : "border-edge"}`}
    >
      <span className="flex flex-wrap items-baseline justify-between gap-x-3">
        <strong>{CHECKS[kind].name}</strong>
        <span className="text-sm text-muted">
          {best && <span className="mr-2 font-bold text-live">best next</span>}
          {next && !next.notNow && `${ruledOut(next.bits)}, ${next.minutes} min`}
        </span>
      </span>
      <span className="block text-sm text-muted">{next?.notNow ? `Not now: ${next.notNow}` : CHECKS[kind].aim}</span>
    </button>
  );
}

function OnTheShelf({ value, onTake }: { value: CheckId; onTake: (kind: CheckId) => void }) {
  const { context } = useJob();
  const why = (kind: CheckId) => context && CHECKS[kind].unfit?.(context);
  const usable = CHECK_IDS.filter((id) => CHECKS[id].shelf && !why(id));
  const worth = useWorth(TELLS).slice(0, MOST);
  const unfit = CHECK_IDS.flatMap((id) => (CHECKS[id].shelf && why(id) ? [[id, why(id)] as const] : []));
  const list = (kinds: readonly CheckId[]) => (
    <ul className="grid gap-1 sm:grid-cols-2 xl:grid-cols-3">
      {kinds.map((kind) => (
        <li key={kind}>
          <Instrument kind={kind} chosen={kind === value} onTake={onTake} />
        </li>
      ))}
    </ul>
  );
  return (
    <div className="flex flex-col gap-4">
      {worth.length > 0 && (
        <section aria-label="Worth most now">
          <h3 className="mb-1 text-sm text-muted">Worth most now</h3>
          {list(worth)}
        </section>
      )}
      {GROUPS.map(([group, kinds]) => {
        const rest = kinds.filter((id) => usable.includes(id) && !worth.includes(id));
        return rest.length === 0 ? null : (
          <section key={group} aria-label={group}>
            <h3 className="mb-1 text-sm text-muted">{group}</h3>
            {list(rest)}
          </section>
        );
      })}
      {unfit.length > 0 && (
        <details>
          <summary className="flex min-h-11 cursor-pointer items-center text-muted">{unfit.length} not for this vehicle</summary>
          <ul className="grid gap-x-4 gap-y-1 text-sm sm:grid-cols-2">
            {unfit.map(([id, reason]) => (
              <li key={id}>
                <strong>{CHECKS[id].name}.</strong> <span className="text-muted">{reason}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
