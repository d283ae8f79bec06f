"use client";

import { Copy, Flag, Hourglass, Lamp, Lightbulb, type LucideIcon, Pause, Play } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { BAY_INSTRUMENTS, type BayInstrument } from "@/core/devices/instrument-fault";
import { DOORS, LAMPS, type Light } from "@/core/devices/light";
import type { Bodies } from "@/core/journal";
import { PRICES } from "@/core/practice/world";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ConfirmButton } from "@/ui/confirm-button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import type { BayNow } from "@/workers/bay.worker";
import { load, save } from "../../session/storage";
import { type Go, useJob } from "../use-job";
import { useBay } from "./use-bay";

/** Waits that are skipped, min: an engine that cools, a night, a weekend. */
const WAITS: readonly (readonly [string, number])[] = [
  ["An hour", 60],
  ["Overnight", 720],
  ["A weekend", 2880],
];

/** More than a weekend nobody thinks about a case, min. */
const LONGEST = 2880;

const clock = (minutes: number) => `${Math.floor(minutes / 60)} h ${String(Math.floor(minutes % 60)).padStart(2, "0")} min`;

/** The practice bay above the work: its case, its clock and what was spent; hints, waits, and the end. */
export function BayStrip({ go }: { go: Go }) {
  const bay = useBay();
  const { id, append, state } = useJob();
  const [waiting, setWaiting] = useState(false);
  const [error, setError] = useState<string>();
  const thinking = useThinking(`pelota.thinking.${id}`, bay !== undefined && !bay.over);
  if (!bay) return null;
  const { code, now, over } = bay;
  const act = async (body: Bodies["bay"]) => {
    const from = Date.now();
    const at = { from: new Date(from).toISOString(), to: new Date(from + 60_000 * (body.minutes ?? 0)).toISOString() };
    setError(await append({ kind: "bay", body, at }));
  };
  const last = state.checks.at(-1);
  return (
    <section
      aria-label="Practice bay"
      className="flex flex-wrap items-center gap-x-2 border-b-2 border-accent bg-panel px-4 max-sm:px-2"
    >
      <p className="flex min-h-11 items-center max-sm:min-h-8">
        <span className="font-mono text-sm text-live">{code}</span>
        <button
          type="button"
          aria-label="Copy the case's code"
          className="inline-flex size-11 cursor-pointer items-center justify-center rounded-md hover:bg-raised max-sm:hidden"
          onClick={() => void navigator.clipboard?.writeText(code)}
        >
          <Copy aria-hidden size={16} />
        </button>
      </p>
      <p className="tabular-nums max-sm:ml-auto max-sm:text-sm">
        <span className="text-muted max-sm:sr-only">Bay clock </span>
        {now ? clock(now.minutes + (over ? 0 : thinking.minutes)) : "…"}
        <span className="text-muted">
          {" "}
          · <span className="max-sm:sr-only">spent </span>
        </span>
        {now ? `${now.money} marks` : "…"}
      </p>
      {!over && (
        <div className="flex items-center gap-x-2 max-sm:gap-x-0">
          <Key icon={thinking.paused ? Play : Pause} pressed={thinking.paused} onClick={thinking.toggle}>
            {thinking.paused ? "Go on" : "Pause"}
          </Key>
          <Key
            icon={Lightbulb}
            short={bay.hintStands ? undefined : PRICES.hint}
            disabled={bay.hintStands}
            onClick={() => void act({ act: "hint" })}
          >
            {bay.hintStands ? "Hint shown" : `Hint, ${PRICES.hint} marks`}
          </Key>
          <Key icon={Hourglass} onClick={() => setWaiting(true)}>
            Skip a wait
          </Key>
          <BayThings now={now} act={act} />
          <ConfirmButton
            look="bare"
            className={KEY}
            ask="End this case?"
            why="The car goes back as it is, and what was wrong is told."
            sure="End it"
            onSure={async () => {
              // What was thought over at this device goes into the case with its end.
              const thought = Math.min(LONGEST, Math.round(thinking.minutes));
              await act({ act: "end", ...(thought > 0 ? { minutes: thought } : {}) });
              go("handover");
            }}
          >
            <Flag aria-hidden size={16} /> <span className="max-sm:sr-only">End</span>
          </ConfirmButton>
        </div>
      )}
      {over && (
        <Button look="bare" onClick={() => go("handover")}>
          <Flag aria-hidden size={16} /> What was wrong
        </Button>
      )}
      <p
        role="status"
        className={`min-w-0 basis-full truncate pb-1 text-sm max-sm:flex-1 max-sm:basis-0 max-sm:pb-0 ${now?.last?.mishap ? "font-bold text-ember max-sm:basis-full max-sm:pb-1" : "text-muted"}`}
      >
        {now?.last?.mishap ??
          (last ? `Last check: ${last.verdict.headline}` : "Story and car are here. Nothing has been read yet.")}
      </p>
      {error && <ErrorNote>{error}</ErrorNote>}
      <Dialog
        open={waiting}
        onOpenChange={setWaiting}
        title="Skip a wait"
        description={`Nobody stands beside a car that cools: each wait costs ${PRICES.wait} marks, and the bay's clock runs on by it.`}
      >
        <div className="flex flex-wrap gap-3">
          {WAITS.map(([name, minutes]) => (
            <Button
              key={name}
              onClick={() => {
                setWaiting(false);
                void act({ act: "wait", minutes });
              }}
            >
              {name}
            </Button>
          ))}
        </div>
      </Dialog>
    </section>
  );
}

const KEY = "!px-2 max-sm:min-w-11";

/** A key of the strip: on a phone its sign alone, and what it costs. */
function Key({
  icon: Icon,
  short,
  pressed,
  disabled = false,
  onClick,
  children,
}: {
  icon: LucideIcon;
  short?: number | undefined;
  pressed?: boolean;
  disabled?: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <Button look="bare" className={KEY} aria-pressed={pressed} disabled={disabled} onClick={onClick}>
      <Icon aria-hidden size={16} />
      <span className="max-sm:sr-only">{children}</span>
      {short !== undefined && (
        <span aria-hidden className="text-sm sm:hidden">
          {short}
        </span>
      )}
    </Button>
  );
}

/** Light for smoke, the door, and the instruments that lie in the bay. */
function BayThings({ now, act }: { now: BayNow | undefined; act: (body: Bodies["bay"]) => Promise<void> }) {
  const [open, setOpen] = useState(false);
  if (!now) return null;
  const { light } = now;
  const change = (next: Partial<Light>) => void act({ act: "light", light: { ...light, ...next } });
  return (
    <>
      <Key icon={Lamp} onClick={() => setOpen(true)}>
        Light and tools
      </Key>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Light and tools of the bay"
        description="What is changed takes a minute, an instrument looked over takes four."
      >
        <div className="flex flex-col gap-5">
          <Choice
            label="Smoke is looked for with"
            options={Object.entries(LAMPS) as [Light["lamp"], string][]}
            value={light.lamp}
            onChange={(lamp) => change({ lamp })}
          />
          <Choice
            label="The bay's door"
            options={Object.entries(DOORS) as [Light["door"], string][]}
            value={light.door}
            onChange={(door) => change({ door })}
          />
          <section aria-label="Instruments">
            <h3 className="mb-2 text-sm text-muted">Check and correct</h3>
            <div className="flex flex-wrap gap-3">
              {(Object.entries(BAY_INSTRUMENTS) as [BayInstrument, string][]).map(([id, name]) => (
                <Button key={id} onClick={() => void act({ act: "look-over", instrument: id })}>
                  {name}
                </Button>
              ))}
            </div>
            {now.last?.lookedOver && (
              <Note role="status" tone="live" as="p" tight className="mt-3">
                {now.last.name}
              </Note>
            )}
          </section>
        </div>
      </Dialog>
    </>
  );
}

/** Time spent thinking at this device, min: it counts while the bay is open and not paused. */
function useThinking(key: string, runs: boolean) {
  const [seconds, setSeconds] = useState(0);
  const [paused, setPaused] = useState(false);
  useEffect(() => {
    setSeconds(load<number>(key) ?? 0);
    setPaused(load<boolean>(`${key}.paused`) ?? false);
  }, [key]);
  useEffect(() => {
    if (!runs || paused) return;
    const timer = setInterval(
      () =>
        setSeconds((s) => {
          save(key, s + 10);
          return s + 10;
        }),
      10_000,
    );
    return () => clearInterval(timer);
  }, [key, runs, paused]);
  const toggle = () => {
    save(`${key}.paused`, !paused);
    setPaused(!paused);
  };
  return { minutes: seconds / 60, paused, toggle };
}
