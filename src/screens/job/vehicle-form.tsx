"use client";

import { useState } from "react";
import { BadInput, validate } from "@/core/input";
import type { Limit, LimitId } from "@/core/shop/settings";
import { parseNumber, parseQuantity } from "@/core/units";
import { FITTED_NAMES, FITTED_SYSTEMS, type FittedSystem, type VehicleFacts, vehicleSchema, vinCheckDigit } from "@/core/vehicle";
import { Chips, Choice } from "@/ui/choice";
import { ErrorNote, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { LIMIT_FIELDS, limitFromShown, shownLimit } from "../shop/limit-fields";
import { draftOfEvap, EMPTY_EVAP, type EvapDraft, EvapForm, evapOf } from "./evap-form";
import { typedQuantity } from "./fields";

/** Limits that makers give for an engine; the others are the shop's own business. */
const MAKERS_LIMITS = [
  "idleSpeed",
  "trimGood",
  "trimAct",
  "vacuumLow",
  "vacuumHigh",
  "idleAir",
  "breathingRestricted",
  "holdLoss",
  "actuatorSupply",
  "evapCeiling",
  "evapFuelLow",
  "evapFuelHigh",
  "evapSoak",
] as const satisfies readonly LimitId[];

/** The vehicle as it stands in the form: everything as typed. */
export interface VehicleDraft {
  make: string;
  model: string;
  year: string;
  registration: string;
  vin: string;
  odometer: string;
  displacement: string;
  fuel: VehicleFacts["fuel"];
  induction: VehicleFacts["induction"];
  metering: VehicleFacts["metering"];
  banks: "1" | "2";
  fitted: FittedSystem[];
  bandLow: string;
  bandHigh: string;
  evap: EvapDraft;
  /** The maker's limits, as typed in the limit's own unit */
  limits: Partial<Record<LimitId, string>>;
}

export const EMPTY_VEHICLE: VehicleDraft = {
  make: "",
  model: "",
  year: "",
  registration: "",
  vin: "",
  odometer: "",
  displacement: "",
  fuel: "petrol",
  induction: "natural",
  metering: "maf",
  banks: "1",
  fitted: ["booster", "pcv", "evap"],
  bandLow: "",
  bandHigh: "",
  evap: EMPTY_EVAP,
  limits: {},
};

export const draftOfVehicle = (v: VehicleFacts): VehicleDraft => ({
  make: v.make,
  model: v.model,
  year: String(v.year),
  registration: v.registration,
  vin: v.vin ?? "",
  odometer: typedQuantity(v.odometer),
  displacement: typedQuantity(v.displacement),
  fuel: v.fuel,
  induction: v.induction,
  metering: v.metering,
  banks: v.banks === 2 ? "2" : "1",
  fitted: [...v.fitted],
  bandLow: typedQuantity(v.crankcaseBand?.low),
  bandHigh: typedQuantity(v.crankcaseBand?.high),
  evap: draftOfEvap(v.evap),
  limits: Object.fromEntries(Object.entries(v.limits ?? {}).map(([id, limit]) => [id, shownLimit(id as LimitId, limit.value)])),
});

/** Facts from the form, or what is wrong and where. */
export function vehicleOf(draft: VehicleDraft, by: string): { facts: VehicleFacts } | { error: string; path: string } {
  const displacement = parseQuantity(draft.displacement, { dimension: "volume", unit: "L" });
  if (!displacement.ok) return { error: `Engine displacement: ${displacement.message}`, path: "displacement" };
  const odometer = draft.odometer.trim() ? parseQuantity(draft.odometer, { dimension: "distance", unit: "km" }) : undefined;
  if (odometer && !odometer.ok) return { error: `Odometer: ${odometer.message}`, path: "odometer" };
  const crankcase = (typed: string) =>
    typed.trim() ? parseQuantity(typed, { dimension: "pressure", unit: "hPa", kind: "gauge" }) : undefined;
  const [low, high] = [crankcase(draft.bandLow), crankcase(draft.bandHigh)];
  if (low && !low.ok) return { error: `Crankcase band, lower end: ${low.message}`, path: "crankcaseBand" };
  if (high && !high.ok) return { error: `Crankcase band, upper end: ${high.message}`, path: "crankcaseBand" };
  if (Boolean(low) !== Boolean(high)) return { error: "The crankcase band needs both its ends", path: "crankcaseBand" };
  const limits: Partial<Record<LimitId, Limit>> = {};
  for (const [id, typed] of Object.entries(draft.limits) as [LimitId, string][]) {
    if (!typed.trim()) continue;
    const n = parseNumber(typed);
    if (!n.ok) return { error: `${LIMIT_FIELDS[id].name}: ${n.message}`, path: `limits.${id}` };
    limits[id] = { value: limitFromShown(id, n.value), source: `maker's figure, entered by ${by}` };
  }
  // A draft left from before the vapour system was asked about has none.
  const vapour = draft.fitted.includes("evap") ? evapOf(draft.evap ?? EMPTY_EVAP) : {};
  if ("error" in vapour) return vapour;
  const facts = {
    make: draft.make.trim(),
    model: draft.model.trim(),
    year: Number(draft.year),
    registration: draft.registration.trim(),
    ...(draft.vin.trim() ? { vin: draft.vin.trim() } : {}),
    ...(odometer?.ok ? { odometer: odometer.value } : {}),
    fuel: draft.fuel,
    induction: draft.induction,
    metering: draft.metering,
    banks: draft.banks === "2" ? 2 : 1,
    displacement: displacement.value,
    fitted: draft.fitted,
    ...(low?.ok && high?.ok ? { crankcaseBand: { low: low.value, high: high.value } } : {}),
    ...vapour,
    ...(Object.keys(limits).length > 0 ? { limits } : {}),
  } as const;
  try {
    return { facts: validate<VehicleFacts>(vehicleSchema, facts) };
  } catch (error) {
    if (error instanceof BadInput) return { error: error.message, path: error.path };
    throw error;
  }
}

/** The facts that change what a reading means. */
export function VehicleForm({
  draft,
  onChange,
  error,
}: {
  draft: VehicleDraft;
  onChange: (next: VehicleDraft) => void;
  error?: { error: string; path: string } | undefined;
}) {
  const [vinSeen, setVinSeen] = useState(false);
  const set = <K extends keyof VehicleDraft>(key: K, value: VehicleDraft[K]) => onChange({ ...draft, [key]: value });
  const wrong = (path: string) => (error?.path.startsWith(path) ? error.error : undefined);
  const digit = vinSeen || draft.vin.length >= 17 ? vinCheckDigit(draft.vin) : undefined;
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <TextField label="Make" value={draft.make} onChange={(e) => set("make", e.target.value)} error={wrong("make")} />
      <TextField label="Model" value={draft.model} onChange={(e) => set("model", e.target.value)} error={wrong("model")} />
      <TextField
        label="Model year"
        inputMode="numeric"
        value={draft.year}
        onChange={(e) => set("year", e.target.value)}
        error={wrong("year")}
      />
      <TextField
        label="Registration"
        value={draft.registration}
        onChange={(e) => set("registration", e.target.value)}
        error={wrong("registration")}
      />
      <TextField
        label="VIN (optional)"
        value={draft.vin}
        onChange={(e) => set("vin", e.target.value)}
        onBlur={() => setVinSeen(true)}
        hint={
          digit
            ? digit.matches
              ? "Check digit fits"
              : `Check digit would be ${digit.expected}; not every market uses it`
            : undefined
        }
        error={wrong("vin")}
      />
      <TextField
        label="Odometer (optional)"
        placeholder="e.g. 84200 km"
        value={draft.odometer}
        onChange={(e) => set("odometer", e.target.value)}
        error={wrong("odometer")}
      />
      <QuantityField
        label="Engine displacement"
        field="displacement"
        example="1.6"
        unit="L"
        units={["L"]}
        value={draft.displacement}
        onChange={(typed) => set("displacement", typed)}
        hint={wrong("displacement") ?? "Litres"}
      />
      <Choice
        label="Fuel"
        options={[
          ["petrol", "Petrol"],
          ["diesel", "Diesel"],
        ]}
        value={draft.fuel}
        onChange={(v) => set("fuel", v)}
      />
      <Choice
        label="Induction"
        options={[
          ["natural", "Natural"],
          ["turbo", "Turbo"],
        ]}
        value={draft.induction}
        onChange={(v) => set("induction", v)}
      />
      <Choice
        label="Air metering"
        options={[
          ["maf", "Air meter (MAF)"],
          ["map", "Speed-density (MAP)"],
        ]}
        value={draft.metering}
        onChange={(v) => set("metering", v)}
      />
      <Choice
        label="Banks"
        options={[
          ["1", "One bank"],
          ["2", "Two banks"],
        ]}
        value={draft.banks}
        onChange={(v) => set("banks", v)}
      />
      <div className="sm:col-span-2">
        <Chips
          label="Fitted systems"
          options={FITTED_SYSTEMS.map((s) => [s, FITTED_NAMES[s]] as const)}
          value={draft.fitted}
          onChange={(v) => set("fitted", v)}
        />
      </div>
      {draft.fitted.includes("evap") && (
        <details className="sm:col-span-2">
          <summary className="flex min-h-11 cursor-pointer items-center text-muted">
            Vapour system (EVAP): tank, port, neck, who tests it
          </summary>
          <div className="pb-2">
            <EvapForm draft={draft.evap ?? EMPTY_EVAP} onChange={(evap) => set("evap", evap)} />
          </div>
          {wrong("evap") && <ErrorNote>{wrong("evap")}</ErrorNote>}
        </details>
      )}
      <details className="sm:col-span-2">
        <summary className="flex min-h-11 cursor-pointer items-center text-muted">
          What the maker says of this vehicle: crankcase band, idle, limits
        </summary>
        <div className="grid gap-4 pb-2 sm:grid-cols-2">
          {draft.fitted.includes("pcv") && (
            <>
              <QuantityField
                label="Crankcase at idle, from (suction is negative)"
                field="crankcase"
                example="-6"
                unit="hPa"
                units={["hPa", "mbar", "inH2O"]}
                value={draft.bandLow}
                onChange={(v) => set("bandLow", v)}
              />
              <QuantityField
                label="Crankcase at idle, to"
                field="crankcase"
                example="-1"
                unit="hPa"
                units={["hPa", "mbar", "inH2O"]}
                value={draft.bandHigh}
                onChange={(v) => set("bandHigh", v)}
              />
            </>
          )}
          {MAKERS_LIMITS.map((id) => (
            <TextField
              key={id}
              label={`${LIMIT_FIELDS[id].name} (${LIMIT_FIELDS[id].unit})`}
              inputMode="decimal"
              placeholder="as the shop has it"
              value={draft.limits[id] ?? ""}
              onChange={(e) => set("limits", { ...draft.limits, [id]: e.target.value })}
              error={wrong(`limits.${id}`)}
            />
          ))}
        </div>
        {wrong("crankcaseBand") && <ErrorNote>{wrong("crankcaseBand")}</ErrorNote>}
      </details>
    </div>
  );
}
