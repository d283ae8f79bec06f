"use client";

import { useState } from "react";
import { BadInput, validate } from "@/core/input";
import { parseQuantity } from "@/core/units";
import { FITTED_NAMES, FITTED_SYSTEMS, type FittedSystem, type VehicleFacts, vehicleSchema, vinCheckDigit } from "@/core/vehicle";
import { Chips, Choice } from "@/ui/choice";
import { TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { typedQuantity } from "./fields";

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
});

/** Facts from the form, or what is wrong and where. */
export function vehicleOf(draft: VehicleDraft): { facts: VehicleFacts } | { error: string; path: string } {
  const displacement = parseQuantity(draft.displacement, { dimension: "volume", unit: "L" });
  if (!displacement.ok) return { error: `Engine displacement: ${displacement.message}`, path: "displacement" };
  const odometer = draft.odometer.trim() ? parseQuantity(draft.odometer, { dimension: "distance", unit: "km" }) : undefined;
  if (odometer && !odometer.ok) return { error: `Odometer: ${odometer.message}`, path: "odometer" };
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
    </div>
  );
}
