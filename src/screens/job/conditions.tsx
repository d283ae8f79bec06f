"use client";

import { Thermometer } from "lucide-react";
import { useState } from "react";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../session/preferences";
import { readField, typedQuantity } from "./fields";
import { useForm } from "./use-form";
import { useJob } from "./use-job";

/** Ambient pressure and bay temperature: every reading is judged under them. */
export function Conditions() {
  const { state } = useJob();
  const { number } = usePreferences();
  const [open, setOpen] = useState(false);
  const c = state.conditions;
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-md px-2 hover:bg-raised"
      >
        <Thermometer aria-hidden size={18} />
        {c ? (
          <span className="text-muted">
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
          <span className="text-amber">Set conditions</span>
        )}
      </button>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Conditions"
        description="Station pressure, not the weather report's: that one is reduced to sea level."
      >
        {open && <ConditionsForm onDone={() => setOpen(false)} />}
      </Dialog>
    </>
  );
}

function ConditionsForm({ onDone }: { onDone: () => void }) {
  const { state } = useJob();
  const form = useForm("conditions", {
    ambient: typedQuantity(state.conditions?.ambient),
    bayTemperature: typedQuantity(state.conditions?.bayTemperature),
  });
  const { draft, set } = form;
  const record = async () => {
    const ambient = readField(draft.ambient, "ambient", "hPa");
    const bayTemperature = readField(draft.bayTemperature, "airTemperature", "°C");
    if (!ambient || !bayTemperature) return form.setError("Type both: ambient pressure (absolute) and bay temperature");
    if (await form.record({ kind: "conditions", body: { ambient, bayTemperature } })) onDone();
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void record();
      }}
    >
      <QuantityField
        label="Ambient pressure, absolute"
        field="ambient"
        example="1006"
        unit="hPa"
        units={["hPa", "kPa", "inHg", "psi"]}
        value={draft.ambient}
        onChange={(ambient) => set({ ambient })}
      />
      <QuantityField
        label="Bay temperature"
        field="airTemperature"
        example="17"
        unit="°C"
        units={["°C", "°F"]}
        value={draft.bayTemperature}
        onChange={(bayTemperature) => set({ bayTemperature })}
      />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <Button type="submit" look="primary" disabled={form.busy}>
        Record conditions
      </Button>
    </form>
  );
}
