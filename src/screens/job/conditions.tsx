"use client";

import { format as formatDate } from "date-fns";
import { Thermometer } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { type Bodies, conditionsForm, workedOut } from "@/core/journal";
import { isQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { usePreferences } from "../session/preferences";
import { load, save } from "../session/storage";
import { AppendButton } from "./append-button";
import { AnswerOfCar } from "./practice/read-on-car";
import { useEntryForm } from "./use-entry-form";
import { useJob } from "./use-job";

const ASKED = "pelota:conditions";
/** Where a check waits for the conditions: the bay's air of today in one tap, or a key that opens them. */
export function SetConditions({ why }: { why: string }) {
  const { state } = useJob();
  const { format } = usePreferences();
  const [today] = useState(lastSet);
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 text-amber">
      {today && !state.practice && !state.conditions && (
        <AppendButton entries={[{ kind: "conditions", body: today.air }]}>
          Bay still {format(today.air.bayTemperature)}, {format(today.air.ambient)}, as at{" "}
          {formatDate(new Date(today.at), "HH:mm")}
        </AppendButton>
      )}
      <Button onClick={() => window.dispatchEvent(new Event(ASKED))}>
        <Thermometer aria-hidden size={18} /> Set the conditions
      </Button>
      {why}
    </div>
  );
}

/** Ambient pressure and bay temperature: every reading is judged under them. */
export function Conditions() {
  const { state } = useJob();
  const { number } = usePreferences();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const show = () => setOpen(true);
    window.addEventListener(ASKED, show);
    return () => window.removeEventListener(ASKED, show);
  }, []);
  const c = state.conditions;
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-flex min-h-11 min-w-11 cursor-pointer items-center justify-center gap-2 rounded-md px-2 hover:bg-raised"
      >
        <Thermometer aria-hidden size={18} className={c ? "" : "text-amber"} />
        {c ? (
          <span className="text-muted max-sm:sr-only">
            Bay{" "}
            <span className="text-ink">
              {number(c.bayTemperature.value, 0)} {c.bayTemperature.unit}
            </span>{" "}
            · Ambient{" "}
            <span className="text-ink">
              {number(c.ambient.value, c.ambient.unit === "bar" ? 3 : c.ambient.unit === "hPa" ? 0 : 1)} {c.ambient.unit} abs
            </span>
          </span>
        ) : (
          <span className="text-amber max-sm:sr-only">Set conditions</span>
        )}
      </button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Conditions"
        description="Every size is judged under them. What is read here goes before what is worked out from altitude."
      >
        {open && <ConditionsForm onDone={() => setOpen(false)} />}
      </Dialog>
    </>
  );
}

const LAST = "pelota.air";
/** The air of one bay holds so long for the next car, ms. */
const HOLDS = 6 * 3600_000;

/** The bay's air as this device set it last, as long as it may still hold. */
function lastSet(): { readonly at: number; readonly air: Omit<Bodies["conditions"], "engine"> } | undefined {
  const last = load<{ at: number; air: Bodies["conditions"] }>(LAST);
  if (!isQuantity(last?.air?.ambient) || !isQuantity(last?.air?.bayTemperature)) return undefined;
  return last && Date.now() - last.at < HOLDS && Date.now() >= last.at ? last : undefined;
}

function ConditionsForm({ onDone }: { onDone: () => void }) {
  const { state } = useJob();
  const { format } = usePreferences();
  const { conditions } = state;
  const [today] = useState(() => (conditions ? undefined : lastSet()?.air));
  const known = useMemo(() => ({ conditions: conditions ?? today }), [conditions, today]);
  const form = useEntryForm(conditionsForm, "conditions", known);
  const here = workedOut(form.formState);
  const record = async () => {
    // Another car's engine says nothing of this one.
    let air: Omit<Bodies["conditions"], "engine"> | undefined;
    const done = await form.submit((body) => {
      const { engine: _, ...rest } = body;
      air = rest;
      return [{ kind: "conditions", body }];
    });
    if (!done) return;
    save(LAST, { at: Date.now(), air });
    onDone();
  };
  return (
    <Form className="flex flex-col gap-4" onSubmit={() => void record()}>
      <AnswerOfCar of="conditions" form={form} label="Read them in the bay" />
      {today && <p className="text-muted">As set on this device today for another car: change what is different now.</p>}
      <FormFields of={form} names={["basis", "ambient", "seaLevel", "altitude", "outside"]} />
      {here && (
        <p role="status" className="font-bold">
          Station pressure here: {format(here)}
        </p>
      )}
      <FormFields of={form} names={["bayTemperature", "engine"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <Button type="submit" look="primary" disabled={form.busy}>
        Record conditions
      </Button>
    </Form>
  );
}
