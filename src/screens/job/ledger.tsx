"use client";

import { Plus, Volume2, VolumeX } from "lucide-react";
import { memo, useMemo, useState } from "react";
import { CHECKS } from "@/core/checks";
import { displacedFacts, displacedForm, type OffCarItem, STATION_NAMES, type WaitingOn } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { type Suspect, weightInWords } from "@/core/suspects";
import { Button, IconButton } from "@/ui/button";
import { Clock } from "@/ui/clock";
import { Dialog } from "@/ui/dialog";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, SelectField } from "@/ui/field";
import { FormFields } from "../form/form-field";
import { usePreferences } from "../session/preferences";
import { askToNotify, useAlarms } from "./alarms";
import { useOverlay } from "./overlay";
import { useEntryForm } from "./use-entry-form";
import { type Go, useJob } from "./use-job";

/** Ledger of what the job knows and owes: suspects, what is off the car, running clocks. */
export const Ledger = memo(function Ledger({ go, onSide }: { go: Go; onSide: (side: HTMLElement | null) => void }) {
  const { state } = useJob();
  const { overlay } = useOverlay();
  const { preferences, change } = usePreferences();
  const next = state.nextStation;
  const done = state.status !== "open" && state.status !== "review";
  const soak = state.readiness?.readyFrom;
  const waits = soak !== undefined && state.monitor?.afterRepair !== "after";
  const clocks = [
    ...(overlay.clocks ?? []),
    ...(waits ? [{ name: "Soak for the EVAP monitor", end: soak, done: "soaked" }] : []),
  ];
  const said = useAlarms(clocks, preferences.sound);
  return (
    <aside
      aria-label="Ledger"
      className="flex flex-col gap-5 border-line bg-panel p-4 max-lg:border-t lg:overflow-y-auto lg:border-l"
    >
      <div ref={onSide} className="empty:hidden" />
      {!done && (
        <section aria-label="Next">
          <h2 className="text-sm text-muted">Next</h2>
          <button
            type="button"
            onClick={() => go(next.station, next.station === "check" ? state.next[0]?.check : undefined)}
            className="min-h-11 cursor-pointer text-left hover:underline"
          >
            <strong className="text-live">{STATION_NAMES[next.station]}</strong>
            <span className="block">{next.reason}</span>
          </button>
          <WaitingOnField />
        </section>
      )}
      <p role="status" className="sr-only">
        {said}
      </p>
      {clocks.length > 0 && (
        <section aria-label="Clocks">
          <div className="flex items-center justify-between">
            <h2 className="text-sm text-muted">Clocks</h2>
            <IconButton
              label={preferences.sound ? "Clocks are heard: silence them" : "Clocks are silent: let them be heard"}
              onClick={() => {
                change({ sound: !preferences.sound });
                if (!preferences.sound) askToNotify();
              }}
            >
              {preferences.sound ? <Volume2 aria-hidden size={18} /> : <VolumeX aria-hidden size={18} />}
            </IconButton>
          </div>
          <DividedList open>
            {clocks.map((clock) => (
              <li key={clock.name} className="flex min-h-11 items-center justify-between gap-3">
                <span>{clock.name}</span>
                <Clock end={clock.end} done={clock.done} />
              </li>
            ))}
          </DividedList>
        </section>
      )}
      <OffTheCar />
      <section aria-label="Suspects">
        <h2 className="mb-1 text-sm text-muted">Suspects</h2>
        {state.suspects.length === 0 ? (
          <p className="text-muted">
            {state.practice && state.vehicle ? "Yours to work out; a hint shows it." : "Weighed once the vehicle is described."}
          </p>
        ) : (
          <ul className="flex flex-col gap-1">
            {state.suspects.slice(0, 5).map((suspect) => (
              <SuspectRow key={suspect.cause.id} suspect={suspect} />
            ))}
          </ul>
        )}
      </section>
    </aside>
  );
});

const WAITING: readonly (readonly [WaitingOn, string])[] = [
  ["me", "Ready to work on"],
  ["customer", "The customer"],
  ["part", "A part"],
  ["cold-soak", "Cooling down"],
  ["drive", "A drive"],
];

/** Reason why the job waits: the board sorts by it. */
function WaitingOnField() {
  const { state, append } = useJob();
  const [error, setError] = useState<string>();
  return (
    <div className="mt-2">
      <SelectField
        label="Waiting for"
        options={WAITING}
        value={state.waiting.on}
        hint={state.waiting.note}
        error={error}
        onChange={async (e) => setError(await append({ kind: "waiting", body: { on: e.target.value as WaitingOn } }))}
      />
    </div>
  );
}

/** A suspect that was tried by hand and is not it, in one tap. */
export function NotIt({ cause, onDone }: { cause: Suspect["cause"]; onDone?: () => void }) {
  const { append } = useJob();
  const [error, setError] = useState<string>();
  return (
    <>
      <Button
        onClick={async () => {
          const failed = await append({ kind: "tried", body: { cause: cause.id, name: cause.name } });
          setError(failed);
          if (!failed) onDone?.();
        }}
      >
        Tried by hand, not it
      </Button>
      {error && <ErrorNote>{error}</ErrorNote>}
    </>
  );
}

/** A suspect with its odds; opens to its "because". */
export function SuspectRow({ suspect }: { suspect: Suspect }) {
  const { state } = useJob();
  const [open, setOpen] = useState(false);
  const voids = state.checks.filter((c) => c.verdict.outcome === "void");
  const percent = Math.round(suspect.odds * 100);
  const speaks = suspect.because.filter((b) => b.factor > 1.25).map((b) => b.says);
  return (
    <li>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="block min-h-11 w-full cursor-pointer rounded-md px-1 py-1 text-left hover:bg-raised"
      >
        <span className="flex items-baseline justify-between gap-3">
          <span>{suspect.cause.name}</span>
          <span className="text-lg font-bold whitespace-nowrap">{percent < 1 ? "<1" : percent > 99 ? ">99" : percent} %</span>
        </span>
        <span aria-hidden className="mt-1 block h-1.5 rounded-full bg-line">
          <span className="block h-full rounded-full bg-accent" style={{ width: `${Math.max(1, percent)}%` }} />
        </span>
        {speaks.length > 0 && percent >= 5 && <span className="mt-1 block text-sm text-muted">{speaks.join(" · ")}</span>}
      </button>
      <Dialog open={open} onOpenChange={setOpen} title={`${suspect.cause.name}: because`}>
        {voids.length > 0 && (
          <p className="mb-2 text-muted">
            Void, so not counted: {voids.map((c) => inSentence(CHECKS[c.check].name)).join(", ")}.
          </p>
        )}
        {suspect.because.length === 0 ? (
          <p className="text-muted">Nothing has been observed yet: this is only how often the trade meets it.</p>
        ) : (
          <DividedList open>
            {suspect.because.map((b) => (
              <li key={`${b.entry} ${b.observation}`} className="flex justify-between gap-4 py-2">
                <span className="first-letter:uppercase">
                  {b.says}: <span className="text-muted">{b.reason}</span>
                </span>
                <strong className={`shrink-0 ${b.factor >= 1 ? "text-live" : "text-muted"}`}>{weightInWords(b.factor)}</strong>
              </li>
            ))}
          </DividedList>
        )}
        {suspect.cause.trait !== "healthy" && (
          <div className="mt-4 flex flex-wrap gap-2">
            <NotIt cause={suspect.cause} onDone={() => setOpen(false)} />
          </div>
        )}
      </Dialog>
    </li>
  );
}

/** Everything a setup or repair disturbed, until it is back on. */
function OffTheCar() {
  const { state, append } = useJob();
  const [error, setError] = useState<string>();
  const [adding, setAdding] = useState(false);
  const open = state.offCar.filter((i) => i.open);
  const restored = ({ entry, commanded }: OffCarItem) => ({
    kind: "restored" as const,
    body: { item: entry, ...(commanded ? {} : { seated: true as const }) },
  });
  const restore = async (...items: readonly OffCarItem[]) => setError(await append(...items.map(restored)));
  const parts = open.filter((i) => !i.commanded);
  return (
    <section aria-label="Off the car">
      <div className="flex items-center justify-between gap-2">
        <h2 className="text-sm text-muted">Off the car</h2>
        <IconButton label="Something else removed" onClick={() => setAdding(true)}>
          <Plus aria-hidden size={18} />
        </IconButton>
      </div>
      {open.length === 0 ? (
        <p className="text-muted">{state.offCar.length > 0 ? `All ${state.offCar.length} refitted.` : "Nothing."}</p>
      ) : (
        <DividedList open>
          {open.map((item) => (
            <li key={item.entry} className="flex items-center justify-between gap-2 py-1">
              <div className="min-w-0">
                <p className="text-amber first-letter:uppercase">{item.what}</p>
                {item.joint && !item.commanded && <p className="text-sm text-muted">Untested until refitted and checked</p>}
                {item.kept && <p className="text-sm text-muted">{item.kept}</p>}
              </div>
              {item.commanded && <Clock end={Date.parse(item.since) + item.commanded.seconds * 1000} done="let go" />}
              <Button
                onClick={() => void restore(item)}
                aria-label={`${item.commanded ? "Released" : "Refitted and seated"}: ${item.what}`}
              >
                {item.commanded ? "Released" : "Refitted"}
              </Button>
            </li>
          ))}
        </DividedList>
      )}
      {parts.length > 1 && (
        <Button className="mt-2 w-full" onClick={() => void restore(...parts)}>
          All {parts.length} refitted and seated
        </Button>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
      <Dialog
        open={adding}
        onOpenChange={setAdding}
        title="Removed or fitted"
        description="It stays on the list until it is refitted."
      >
        <CameOff onDone={() => setAdding(false)} />
      </Dialog>
    </section>
  );
}

/** Parts that were taken off by hand, besides what a check takes off for itself, with where its bolts and clips lie. */
function CameOff({ onDone }: { onDone: () => void }) {
  const { layout } = useJob();
  const known = useMemo(() => displacedFacts(layout), [layout]);
  const form = useEntryForm(displacedForm, "displaced", known);
  return (
    <form
      noValidate
      className="flex flex-col gap-4"
      onSubmit={async (e) => {
        e.preventDefault();
        if (await form.submit((body) => [{ kind: "displaced", body }])) onDone();
      }}
    >
      <FormFields of={form} names={["joint", "what", "kept"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" look="primary" disabled={form.busy}>
          List it
        </Button>
      </div>
    </form>
  );
}
