"use client";

import { Thermometer } from "lucide-react";
import { useState } from "react";
import type { Quantity } from "@/core/units";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../session/preferences";
import { typedQuantity } from "./fields";
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
  const { state, append } = useJob();
  const [ambient, setAmbient] = useState(typedQuantity(state.conditions?.ambient));
  const [temperature, setTemperature] = useState(typedQuantity(state.conditions?.bayTemperature));
  const [read, setRead] = useState<{ ambient?: Quantity | undefined; bayTemperature?: Quantity | undefined }>({
    ambient: state.conditions?.ambient,
    bayTemperature: state.conditions?.bayTemperature,
  });
  const [error, setError] = useState<string>();
  const record = async () => {
    if (!read.ambient || !read.bayTemperature) return setError("Type both: ambient pressure (absolute) and bay temperature");
    const wrong = await append({ kind: "conditions", body: { ambient: read.ambient, bayTemperature: read.bayTemperature } });
    if (wrong) setError(wrong);
    else onDone();
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
        unit="hPa"
        units={["hPa", "kPa", "inHg", "psi"]}
        value={ambient}
        onChange={(typed, q) => {
          setAmbient(typed);
          setRead((r) => ({ ...r, ambient: q }));
        }}
      />
      <QuantityField
        label="Bay temperature"
        field="airTemperature"
        unit="°C"
        units={["°C", "°F"]}
        value={temperature}
        onChange={(typed, q) => {
          setTemperature(typed);
          setRead((r) => ({ ...r, bayTemperature: q }));
        }}
      />
      {error && <ErrorNote>{error}</ErrorNote>}
      <Button type="submit" look="primary">
        Record conditions
      </Button>
    </form>
  );
}
