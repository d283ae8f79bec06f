"use client";

import type { InstrumentUse } from "@/core/checks/fields";
import type { Instrument } from "@/core/shop/settings";
import { parseQuantity, type Quantity, toSi, UNITS } from "@/core/units";
import { SelectField, TextField } from "@/ui/field";
import { useJob } from "../use-job";

/** Which gauge, its division, and what it shows with nothing on it: typed before the reading. */
export interface InstrumentDraft {
  readonly id: string;
  readonly division: string;
  readonly zero: string;
}
export const NO_INSTRUMENT: InstrumentDraft = { id: "", division: "", zero: "0" };

/** How large readings get, SI: intake vacuum, crankcase pressure, the vapour system's and a cap's pressure, a car's voltage. */
export const REACH = { vacuum: 90e3, crankcase: 5e3, lowPressure: 2.4e3, cap: 8e3, volts: 15 } as const;

type Measures = "pressure" | "voltage";

/** A scale has about so many divisions: what reaches far enough for a reading. */
const DIVISIONS = 500;

/** The shop's instruments that measure this, the finest that reaches so far (SI) first. */
const fitting = (instruments: readonly Instrument[], measures: Measures, reach: number) => {
  const division = (i: Instrument) => Math.abs(toSi(i.division));
  const short = (i: Instrument) => division(i) * DIVISIONS < reach;
  return instruments
    .filter((i) => UNITS[i.division.unit].dimension === measures)
    .toSorted((a, b) => Number(short(a)) - Number(short(b)) || division(a) - division(b));
};

/** The instrument as it goes into the record; undefined while its division is not known. */
export function instrumentOf(
  draft: InstrumentDraft,
  instruments: readonly Instrument[],
  measures: Measures,
  reach: number,
): InstrumentUse | undefined {
  const own = fitting(instruments, measures, reach);
  const known = own.find((i) => i.id === draft.id) ?? (draft.id === "other" ? undefined : own[0]);
  const read = (text: string, unit: Quantity["unit"] | undefined): Quantity | undefined => {
    const parsed = parseQuantity(text, { dimension: measures, ...(unit ? { unit } : {}) });
    if (!parsed.ok) return undefined;
    const { kind: _, ...plain } = parsed.value;
    return plain;
  };
  const division = known?.division ?? read(draft.division, undefined);
  const zero = division && read(draft.zero, division.unit);
  return division && zero ? { name: known?.name ?? "Gauge", division, zero } : undefined;
}

export function InstrumentField({
  value,
  onChange,
  measures,
  reach,
}: {
  value: InstrumentDraft;
  onChange: (value: InstrumentDraft) => void;
  measures: Measures;
  /** How large a reading may get, SI */
  reach: number;
}) {
  const { shop } = useJob();
  const own = fitting(shop.instruments, measures, reach);
  const chosen = own.find((i) => i.id === value.id)?.id ?? (value.id === "other" ? "other" : (own[0]?.id ?? "other"));
  const division = own.find((i) => i.id === chosen)?.division;
  return (
    <div className="grid items-start gap-4 sm:grid-cols-3">
      <SelectField
        label={measures === "voltage" ? "Meter" : "Gauge"}
        options={[
          ...own.map((i) => [i.id, i.name] as const),
          ["other", own.length > 0 ? "Another one" : "One not described in Shop"] as const,
        ]}
        value={chosen}
        onChange={(e) => onChange({ ...value, id: e.target.value })}
        hint={division ? `One division is ${division.value} ${division.unit}` : undefined}
      />
      {!division && (
        <TextField
          label="One division of its scale"
          placeholder={measures === "voltage" ? "0.01 V" : "0.5 inHg"}
          value={value.division}
          onChange={(e) => onChange({ ...value, division: e.target.value })}
        />
      )}
      <TextField
        label="Shows with nothing on it"
        value={value.zero}
        onChange={(e) => onChange({ ...value, zero: e.target.value })}
        hint={division ? `in ${division.unit}` : undefined}
      />
    </div>
  );
}
