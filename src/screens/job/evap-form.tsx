"use client";

import { parseNumber, parseQuantity, type Quantity, type UnitId, unitsOf } from "@/core/units";
import { EVAP_MARKETS, EVAP_MONITORS, type EvapFacts, type EvapMarket, type EvapMonitor } from "@/core/vehicle";
import { Choice, Tick } from "@/ui/choice";
import { SelectField, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { typedQuantity } from "./fields";

/** The vapour system as it stands in the form: everything as typed; nothing counts until the tank's volume is. */
export interface EvapDraft {
  tank: string;
  monitor: EvapMonitor;
  market: EvapMarket;
  servicePort: boolean;
  neck: EvapFacts["neck"];
  neckFlap: boolean;
  tankOneWay: boolean;
  sensorZero: string;
  sensorPerUnit: string;
  sensorUnit: UnitId;
  referenceOrifice: string;
  requiredLeak: string;
}

export const EMPTY_EVAP: EvapDraft = {
  tank: "",
  monitor: "engine-vacuum",
  market: "strict",
  servicePort: false,
  neck: "cap",
  neckFlap: false,
  tankOneWay: false,
  sensorZero: "",
  sensorPerUnit: "",
  sensorUnit: "kPa",
  referenceOrifice: "",
  requiredLeak: "",
};

export const draftOfEvap = (evap: EvapFacts | undefined): EvapDraft =>
  evap
    ? {
        tank: typedQuantity(evap.tank),
        monitor: evap.monitor,
        market: evap.market,
        servicePort: evap.servicePort,
        neck: evap.neck,
        neckFlap: evap.neckFlap,
        tankOneWay: evap.tankOneWay,
        sensorZero: typedQuantity(evap.sensor?.zero),
        sensorPerUnit: evap.sensor ? String(evap.sensor.perUnit) : "",
        sensorUnit: evap.sensor?.unit ?? "kPa",
        referenceOrifice: typedQuantity(evap.referenceOrifice),
        requiredLeak: typedQuantity(evap.requiredLeak),
      }
    : EMPTY_EVAP;

/** Facts of the vapour system, none where no tank was typed, or what is wrong and where. */
export function evapOf(draft: EvapDraft): { evap?: EvapFacts } | { error: string; path: string } {
  if (!draft.tank.trim()) return {};
  const read = (typed: string, dimension: "volume" | "length" | "voltage", unit: UnitId) =>
    typed.trim() ? parseQuantity(typed, { dimension, unit }) : undefined;
  const tank = read(draft.tank, "volume", "L");
  const fields: [string, ReturnType<typeof read>][] = [
    ["Fuel tank", tank],
    ["Sensor, volts at zero", read(draft.sensorZero, "voltage", "V")],
    ["Reference orifice", read(draft.referenceOrifice, "length", "mm")],
    ["Leak to be caught", read(draft.requiredLeak, "length", "mm")],
  ];
  for (const [name, field] of fields) if (field && !field.ok) return { error: `${name}: ${field.message}`, path: "evap" };
  const [, zero, orifice, leak] = fields.map(([, f]) => (f?.ok ? f.value : undefined)) as (Quantity | undefined)[];
  const slope = draft.sensorPerUnit.trim() ? parseNumber(draft.sensorPerUnit) : undefined;
  if (slope && !slope.ok) return { error: `Sensor, volts per unit: ${slope.message}`, path: "evap" };
  if (Boolean(zero) !== Boolean(slope))
    return { error: "A sensor's curve needs its volts at zero and its volts per unit", path: "evap" };
  return {
    evap: {
      monitor: draft.monitor,
      market: draft.market,
      tank: tank?.ok ? tank.value : { value: 0, unit: "L" },
      servicePort: draft.servicePort,
      neck: draft.neck,
      neckFlap: draft.neckFlap,
      tankOneWay: draft.tankOneWay,
      ...(zero && slope?.ok ? { sensor: { zero, perUnit: slope.value, unit: draft.sensorUnit } } : {}),
      ...(orifice ? { referenceOrifice: orifice } : {}),
      ...(leak ? { requiredLeak: leak } : {}),
    },
  };
}

const pairs = <T extends string>(names: Record<T, string>) => Object.entries(names) as [T, string][];

/** What decides how the vapour system can be tested, and what a reading of it means. */
export function EvapForm({ draft, onChange }: { draft: EvapDraft; onChange: (next: EvapDraft) => void }) {
  const set = (change: Partial<EvapDraft>) => onChange({ ...draft, ...change });
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <QuantityField
        label="Fuel tank, rated volume"
        field="tank"
        example="50"
        unit="L"
        units={["L"]}
        value={draft.tank}
        onChange={(tank) => set({ tank })}
        hint="Gas space and fill times hang on it"
      />
      <SelectField
        label="Who pulls the leak test"
        options={pairs(EVAP_MONITORS)}
        value={draft.monitor}
        onChange={(e) => set({ monitor: e.target.value as EvapMonitor })}
      />
      <Choice label="Built for" options={pairs(EVAP_MARKETS)} value={draft.market} onChange={(market) => set({ market })} />
      <Choice
        label="Filler neck"
        options={[
          ["cap", "With a cap"],
          ["capless", "Capless"],
        ]}
        value={draft.neck}
        onChange={(neck) => set({ neck })}
      />
      <div className="flex flex-col">
        <Tick label="Has a service port" checked={draft.servicePort} onChange={(servicePort) => set({ servicePort })} />
        <Tick
          label="A flap seals the neck off from the tank"
          checked={draft.neckFlap}
          onChange={(neckFlap) => set({ neckFlap })}
        />
        <Tick
          label="The fill-limit valve lets gas out of the tank only"
          checked={draft.tankOneWay}
          onChange={(tankOneWay) => set({ tankOneWay })}
        />
      </div>
      <QuantityField
        label="Leak to be caught, maker's figure"
        field="hole"
        example="0.5"
        unit="mm"
        units={["mm", "in", "thou"]}
        value={draft.requiredLeak}
        onChange={(requiredLeak) => set({ requiredLeak })}
        hint="Left empty: the code's criteria, or the model year"
      />
      <TextField
        label="Tank-pressure sensor, volts at zero"
        placeholder="1.5 V"
        value={draft.sensorZero}
        onChange={(e) => set({ sensorZero: e.target.value })}
      />
      <div className="grid grid-cols-[1fr_7rem] gap-2">
        <TextField
          label="Its volts per unit of gauge pressure"
          inputMode="decimal"
          placeholder="0.6"
          value={draft.sensorPerUnit}
          onChange={(e) => set({ sensorPerUnit: e.target.value })}
        />
        <SelectField
          label="Per"
          options={unitsOf("pressure").map((u) => [u, u] as const)}
          value={draft.sensorUnit}
          onChange={(e) => set({ sensorUnit: e.target.value as UnitId })}
        />
      </div>
      {draft.monitor === "canister-pump" && (
        <QuantityField
          label="The pump's reference orifice"
          field="hole"
          example="0.5"
          unit="mm"
          units={["mm", "in", "thou"]}
          value={draft.referenceOrifice}
          onChange={(referenceOrifice) => set({ referenceOrifice })}
        />
      )}
    </div>
  );
}
