"use client";

import { Car, FastForward, Unplug } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { playedInstrument } from "@/core/devices/played";
import type { Form } from "@/core/form";
import { type Draft, getIn, readSoFar, toDraft } from "@/core/form";
import type { Answered } from "@/core/practice/answers";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import type { TypedForm } from "../../form/use-typed-form";
import { every } from "../checks/every";
import type { CheckInHand } from "../checks/use-check-form";
import { useWhenGone } from "../checks/use-when-gone";
import { type Bay, useBay } from "./use-bay";

/** Takes readings from the practice car in place of a hand; nothing on a real one. */
export function FromTheCar({ label, take }: { label: string; take: (bay: Bay) => Promise<string | undefined> }) {
  const bay = useBay();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string>();
  if (!bay || bay.over) return null;
  const run = async () => {
    setBusy(true);
    try {
      setError(await take(bay));
    } catch (e) {
      setError((e as Error).message);
    }
    setBusy(false);
  };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button onClick={() => void run()} disabled={busy}>
        <Car aria-hidden size={18} /> {busy ? "Reading…" : label}
      </Button>
      {error && <ErrorNote>{error}</ErrorNote>}
    </div>
  );
}

const NOTHING = "This car gives no reading for that: type it, or leave it";

/** Lays a record into a form as if a hand had typed it: only what is another than it was laid last. */
function lay<Known>(form: TypedForm<object, Known>, record: object, known: Known, before?: object): void {
  const draftOf = (one: object) => toDraft(form.form as Form<object, Known>, one, known) as Draft;
  const [typed, was] = [draftOf(record), before && draftOf(before)];
  const changed = Object.keys(form.form.fields).filter(
    (name) => !was || JSON.stringify(getIn(typed, name)) !== JSON.stringify(getIn(was, name)),
  );
  form.set(Object.fromEntries(changed.map((name) => [name, getIn(typed, name)])));
}

/** Time scale: what takes a minute at a car takes so much less here. */
const PACE = 10;

/** An instrument that is being read: what it will have shown in the end, and how far it is, s. */
interface Reading {
  readonly record: object;
  readonly seconds: number;
  readonly at: number;
}

/**
 * Reads the check in hand off the practice car, set up as its form says. What takes its time comes as it does at a car, and can be
 * waited out, skipped at its price, or unplugged: what came until then stays typed.
 */
export function ReadOnCar<Name extends string>({
  check,
  label = "Read it on the car",
}: {
  check: CheckInHand<object, Name>;
  label?: string;
}) {
  const [reading, setReading] = useState<Reading>();
  const stop = useRef<() => void>(undefined);
  useEffect(() => () => stop.current?.(), []);
  const form = check as unknown as TypedForm<object, typeof check.known>;
  const { known } = check;
  const begin = (record: object) => {
    const instrument = playedInstrument(record, every, PACE);
    let laid: object | undefined;
    const show = (part: object) => {
      lay(form, part, known, laid);
      laid = part;
    };
    if (instrument.seconds === 0) return show(record);
    stop.current = instrument.start({
      part: (part, at) => {
        show(part);
        setReading({ record, seconds: instrument.seconds, at });
      },
      ended: (whole) => {
        show(whole);
        setReading(undefined);
      },
    });
  };
  const end = (record?: object) => {
    stop.current?.();
    if (record) lay(form, record, known);
    setReading(undefined);
  };
  useWhenGone(check, () => end());
  if (reading)
    return (
      <Note aria-label="Instrument, live" tone="live" as="section" tight className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <p className="tabular-nums">
          <strong className="text-live">Live</strong> · {Math.floor(reading.at)} s of {Math.round(reading.seconds)} s
          <span className="text-muted"> · ten times faster than at a car</span>
        </p>
        <Button onClick={() => end(reading.record)}>
          <FastForward aria-hidden size={18} /> Skip to its end
        </Button>
        <Button onClick={() => end()}>
          <Unplug aria-hidden size={18} /> Unplug
        </Button>
      </Note>
    );
  return (
    <FromTheCar
      label={label}
      take={async (bay) => {
        const own = check.form as unknown as Form<object, typeof check.known>;
        const record = await bay.read(check.kind, readSoFar(own, check.draft(), known));
        if (!record) return NOTHING;
        begin(record);
        return undefined;
      }}
    />
  );
}

/** Lets the practice car answer what an entry of the journal asks of it. */
export function AnswerOfCar<Body extends object, Known, Name extends string>({
  of,
  form,
  label,
}: {
  of: Answered;
  form: TypedForm<Body, Known, Name>;
  label: string;
}) {
  return (
    <FromTheCar
      label={label}
      take={async (bay) => {
        form.fill(await bay.answer(of));
        return undefined;
      }}
    />
  );
}
