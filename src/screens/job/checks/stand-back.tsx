"use client";

import { Expand, X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import { useEffect, useState } from "react";
import { Button } from "@/ui/button";
import { useFocusBack } from "@/ui/focus-back";

interface LiveNumber {
  readonly name: string;
  readonly value: string;
  readonly unit: string;
}

/** Large display of a running instrument, readable across the bay: the number that matters, what else is read, seconds and a word. */
export function StandBack({
  first,
  second,
  since,
  word,
}: {
  first: LiveNumber;
  second: LiveNumber;
  /** ms since 1970 when the run began */
  since: number;
  word: string;
}) {
  const [open, setOpen] = useState(false);
  const focusBack = useFocusBack();
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <Expand aria-hidden size={18} /> Large view
      </Button>
      <Radix.Root open={open} onOpenChange={setOpen}>
        <Radix.Portal>
          <Radix.Content
            aria-describedby={undefined}
            {...focusBack}
            className="fixed inset-0 z-50 flex flex-col justify-between bg-bg p-[3vmin] text-ink"
          >
            <Radix.Title className="sr-only">The run, readable from a distance</Radix.Title>
            <Radix.Close
              aria-label="Close"
              className="absolute top-2 right-2 inline-flex size-14 cursor-pointer items-center justify-center rounded-md hover:bg-raised"
            >
              <X aria-hidden size={28} />
            </Radix.Close>
            <Figure {...first} className="text-[34vmin] text-live" />
            <div className="flex flex-wrap items-end justify-between gap-x-[6vmin]">
              <Figure {...second} className="text-[17vmin]" />
              <p className="text-[10vmin] leading-none font-bold">
                <Since start={since} /> <span className="text-[4vmin] font-normal text-muted">s</span>
              </p>
            </div>
            <p className="min-h-[8vmin] text-[7vmin] leading-tight font-bold text-amber">{word}</p>
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </>
  );
}

const Figure = ({ name, value, unit, className }: LiveNumber & { className: string }) => (
  <p className={`leading-none font-bold ${className}`}>
    <span className="block text-[4vmin] leading-normal font-normal text-muted">{name}</span>
    {value} <span className="text-[4vmin] font-normal text-muted">{unit}</span>
  </p>
);

/** Whole seconds since a moment. */
function Since({ start }: { start: number }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, Math.round((now - start) / 1000));
}
