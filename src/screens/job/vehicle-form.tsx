"use client";

import { useState } from "react";
import { BadInput, validate } from "@/core/input";
import { LIMIT_FIELDS, limitFromShown, shownLimit } from "@/core/shop/limit-fields";
import type { Limit, LimitId } from "@/core/shop/settings";
import { parseField, parseNumber, parseQuantity } from "@/core/units";
import {
  FITTED_NAMES,
  FITTED_SYSTEMS,
  type FittedSystem,
  type GivenFacts,
  isKnown,
  TAPPABLE,
  type VehicleFacts,
  vehicleSchema,
  vinCheckDigit,
  ZONE_NAMES,
  type ZoneId,
} from "@/core/vehicle";
import { Chips, Choice, Tick } from "@/ui/choice";
import { ErrorNote, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
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
  induction: VehicleFacts["induction"] | "unknown";
  metering: VehicleFacts["metering"] | "unknown";
  banks: "1" | "2" | "unknown";
  fitted: FittedSystem[];
  /** Somebody looked at what is fitted; a draft from before that was asked says so of itself */
  fittedKnown?: boolean;
  tapped?: ZoneId[];
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
  induction: "unknown",
  metering: "unknown",
  banks: "unknown",
  fitted: [],
  fittedKnown: false,
  bandLow: "",
  bandHigh: "",
  evap: EMPTY_EVAP,
  limits: {},
};

export const draftOfVehicle = (v: VehicleFacts): VehicleDraft => ({
  make: v.make ?? "",
  model: v.model ?? "",
  year: v.year === undefined ? "" : String(v.year),
  registration: v.registration ?? "",
  vin: v.vin ?? "",
  odometer: typedQuantity(v.odometer),
  displacement: typedQuantity(v.displacement),
  fuel: v.fuel,
  induction: isKnown(v, "induction") ? v.induction : "unknown",
  metering: isKnown(v, "metering") ? v.metering : "unknown",
  banks: isKnown(v, "banks") ? (v.banks === 2 ? "2" : "1") : "unknown",
  fitted: isKnown(v, "fitted") ? [...v.fitted] : [],
  fittedKnown: isKnown(v, "fitted"),
  ...(v.tapped ? { tapped: [...v.tapped] } : {}),
  bandLow: typedQuantity(v.crankcaseBand?.low),
  bandHigh: typedQuantity(v.crankcaseBand?.high),
  evap: draftOfEvap(v.evap),
  limits: Object.fromEntries(Object.entries(v.limits ?? {}).map(([id, limit]) => [id, shownLimit(id as LimitId, limit.value)])),
});

/** Facts from the form, or what is wrong and where. */
export function vehicleOf(draft: VehicleDraft, by: string): { facts: GivenFacts } | { error: string; path: string } {
  const displacement = parseField(draft.displacement, "displacement", "L");
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
  const text = (key: "make" | "model" | "registration" | "vin") => (draft[key].trim() ? { [key]: draft[key].trim() } : {});
  const facts = {
    ...text("make"),
    ...text("model"),
    ...(draft.year.trim() ? { year: Number(draft.year) } : {}),
    ...text("registration"),
    ...text("vin"),
    ...(odometer?.ok ? { odometer: odometer.value } : {}),
    fuel: draft.fuel,
    ...(draft.induction === "unknown" ? {} : { induction: draft.induction }),
    ...(draft.metering === "unknown" ? {} : { metering: draft.metering }),
    ...(draft.banks === "unknown" ? {} : { banks: draft.banks === "2" ? (2 as const) : (1 as const) }),
    displacement: displacement.value,
    ...(draft.fittedKnown === false ? {} : { fitted: draft.fitted }),
    ...(draft.tapped?.length ? { tapped: draft.tapped } : {}),
    ...(low?.ok && high?.ok ? { crankcaseBand: { low: low.value, high: high.value } } : {}),
    ...vapour,
    ...(Object.keys(limits).length > 0 ? { limits } : {}),
  } as const;
  try {
    return { facts: validate<GivenFacts>(vehicleSchema, facts) };
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
          ["unknown", "Not known yet"],
        ]}
        value={draft.induction}
        onChange={(v) => set("induction", v)}
      />
      <Choice
        label="Air metering"
        options={[
          ["maf", "Air meter (MAF)"],
          ["map", "Speed-density (MAP)"],
          ["unknown", "Not known yet"],
        ]}
        value={draft.metering}
        onChange={(v) => set("metering", v)}
      />
      <Choice
        label="Banks"
        options={[
          ["1", "One bank"],
          ["2", "Two banks"],
          ["unknown", "Not known yet"],
        ]}
        value={draft.banks}
        onChange={(v) => set("banks", v)}
      />
      <div className="flex flex-col gap-2 sm:col-span-2">
        <Chips
          label="Fitted systems"
          options={FITTED_SYSTEMS.map((s) => [s, FITTED_NAMES[s]] as const)}
          value={draft.fitted}
          onChange={(fitted) => onChange({ ...draft, fitted, fittedKnown: true })}
        />
        <Tick
          label="That is what is fitted, and no more"
          checked={draft.fittedKnown !== false}
          onChange={(fittedKnown) => set("fittedKnown", fittedKnown)}
        />
      </div>
      <p className="text-muted sm:col-span-2">
        Fuel and displacement are enough to begin. What is not known yet stands at the commonest, and no check clears anything on
        the strength of it.
      </p>
      <details className="sm:col-span-2" open={Boolean(draft.tapped?.length)}>
        <summary className="flex min-h-11 cursor-pointer items-center text-muted">Ports tapped into the intake for good</summary>
        <Chips
          label="A tapped port stays on the car, plugged: it can leak, it is a way in, and the customer is told"
          options={TAPPABLE.map((zone) => [zone, ZONE_NAMES[zone]] as const)}
          value={draft.tapped ?? []}
          onChange={(tapped) => set("tapped", tapped)}
        />
      </details>
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
