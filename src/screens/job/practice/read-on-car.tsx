"use client";

import { Car } from "lucide-react";
import { useState } from "react";
import { type Draft, type Form, getIn, readSoFar, toDraft } from "@/core/form";
import type { Answered } from "@/core/practice/answers";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import type { TypedForm } from "../../form/use-typed-form";
import type { CheckInHand } from "../checks/use-check-form";
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

const NOTHING = "This car has nothing to say to that: type it, or leave it";

/** Lays a record into a form as if a hand had typed it. */
function lay<Known>(form: TypedForm<object, Known>, record: object, known: Known): void {
  const typed = toDraft(form.form as Form<object, Known>, record, known) as Draft;
  form.set(Object.fromEntries(Object.keys(form.form.fields).map((name) => [name, getIn(typed, name)])));
}

/** Reads the check in hand off the practice car, set up as its form says. */
export function ReadOnCar<Name extends string>({
  check,
  label = "Read it on the car",
}: {
  check: CheckInHand<object, Name>;
  label?: string;
}) {
  return (
    <FromTheCar
      label={label}
      take={async (bay) => {
        const form = check.form as unknown as Form<object, typeof check.known>;
        const record = await bay.read(check.kind, readSoFar(form, check.draft(), check.known));
        if (!record) return NOTHING;
        lay(check as unknown as TypedForm<object, typeof check.known>, record, check.known);
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
