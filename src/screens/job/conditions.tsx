"use client";

import { Thermometer } from "lucide-react";
import { useState } from "react";
import { ambientAtAltitude, stationPressure } from "@/core/gas/atmosphere";
import type { Bodies } from "@/core/journal";
import type { EngineNow } from "@/core/suspects";
import { absolute, parseTrusted, toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { Dialog } from "@/ui/dialog";
import { ErrorNote } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../session/preferences";
import { load, save } from "../session/storage";
import { typedQuantity } from "./fields";
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

type Basis = "station" | "report" | "altitude";
const BASES: readonly (readonly [Basis, string])[] = [
  ["station", "Read here"],
  ["report", "Weather report"],
  ["altitude", "Altitude only"],
];

const ENGINES: readonly (readonly [EngineNow, string])[] = [
  ["cold", "Cold"],
  ["warm", "Warm, it runs"],
  ["hot-exhaust", "Exhaust too hot to touch"],
  ["does-not-run", "Does not run"],
];

/** Station pressure from what was typed, or what is still missing. */
function ambientOf(
  basis: Basis,
  typed: { ambient: string; seaLevel: string; altitude: string },
): Bodies["conditions"]["ambient"] | string {
  if (basis === "station")
    return parseTrusted(typed.ambient, "ambient", "hPa") ?? "Type the ambient pressure, absolute, as read here";
  const altitude = parseTrusted(typed.altitude, "altitude", "m");
  if (!altitude) return "Type the altitude of the bay";
  const seaLevel = parseTrusted(typed.seaLevel, "ambient", "hPa");
  if (basis === "report" && !seaLevel) return "Type the pressure of the weather report";
  const pascal =
    basis === "report" && seaLevel
      ? stationPressure(absolute(toSi(seaLevel)), toSi(altitude))
      : ambientAtAltitude(toSi(altitude));
  return { value: Math.round(pascal / 10) / 10, unit: "hPa", kind: "absolute" };
}

const LAST = "pelota.air";
/** The air of one bay holds so long for the next car, ms. */
const HOLDS = 6 * 3600_000;

/** The bay's air as this device set it last, as long as it may still hold. */
function lastSet(): Omit<Bodies["conditions"], "engine"> | undefined {
  const last = load<{ at: number; air: Bodies["conditions"] }>(LAST);
  return last && Date.now() - last.at < HOLDS && Date.now() >= last.at ? last.air : undefined;
}

function ConditionsForm({ onDone }: { onDone: () => void }) {
  const { state } = useJob();
  const { format } = usePreferences();
  const today = state.conditions ? undefined : lastSet();
  const c = state.conditions ?? today;
  const form = useForm("conditions", {
    basis: (c?.seaLevel ? "report" : c?.altitude ? "altitude" : "station") as Basis,
    ambient: typedQuantity(c?.ambient),
    seaLevel: typedQuantity(c?.seaLevel),
    altitude: typedQuantity(c?.altitude),
    bayTemperature: typedQuantity(c?.bayTemperature),
    // Another car's engine says nothing of this one.
    engine: state.conditions?.engine as EngineNow | undefined,
  });
  const { draft, set } = form;
  const ambient = ambientOf(draft.basis, draft);
  const record = async () => {
    if (typeof ambient === "string") return form.setError(ambient);
    const bayTemperature = parseTrusted(draft.bayTemperature, "airTemperature", "°C");
    if (!bayTemperature) return form.setError("Type the temperature of the bay");
    const altitude = draft.basis === "station" ? undefined : parseTrusted(draft.altitude, "altitude", "m");
    const seaLevel = draft.basis === "report" ? parseTrusted(draft.seaLevel, "ambient", "hPa") : undefined;
    const body = {
      ambient,
      bayTemperature,
      ...(altitude ? { altitude } : {}),
      ...(seaLevel ? { seaLevel } : {}),
      ...(draft.engine ? { engine: draft.engine } : {}),
    };
    if (!(await form.record({ kind: "conditions", body }))) return;
    const { engine: _, ...air } = body;
    save(LAST, { at: Date.now(), air });
    onDone();
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void record();
      }}
    >
      {today && <p className="text-muted">As set on this device today for another car: change what is different now.</p>}
      <Choice label="Ambient pressure from" options={BASES} value={draft.basis} onChange={(basis) => set({ basis })} />
      {draft.basis === "station" && (
        <QuantityField
          label="Ambient pressure, absolute"
          field="ambient"
          example="1006"
          unit="hPa"
          units={["hPa", "kPa", "inHg", "psi"]}
          value={draft.ambient}
          onChange={(ambient) => set({ ambient })}
        />
      )}
      {draft.basis === "report" && (
        <QuantityField
          label="Pressure of the report, reduced to sea level"
          field="ambient"
          example="1018"
          unit="hPa"
          units={["hPa", "inHg"]}
          value={draft.seaLevel}
          onChange={(seaLevel) => set({ seaLevel })}
        />
      )}
      {draft.basis !== "station" && (
        <QuantityField
          label="Altitude of the bay"
          field="altitude"
          example="120"
          unit="m"
          units={["m", "ft"]}
          value={draft.altitude}
          onChange={(altitude) => set({ altitude })}
        />
      )}
      {draft.basis !== "station" && typeof ambient !== "string" && (
        <p role="status" className="font-bold">
          Station pressure here: {format(ambient)}
        </p>
      )}
      <QuantityField
        label="Bay temperature"
        field="airTemperature"
        example="17"
        unit="°C"
        units={["°C", "°F"]}
        value={draft.bayTemperature}
        onChange={(bayTemperature) => set({ bayTemperature })}
      />
      <Choice label="The engine now" options={ENGINES} value={draft.engine} onChange={(engine) => set({ engine })} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <Button type="submit" look="primary" disabled={form.busy}>
        Record conditions
      </Button>
    </form>
  );
}
