"use client";

import { useState } from "react";
import { v4 as uuid } from "uuid";
import { READS, type ReadsTo } from "@/core/shop/settings";
import { formatQuantity, parseQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, SelectField, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import type { ShopPartProps } from "./part";

const EMPTY: { name: string; division: string; end: string; reads: ReadsTo | "" } = {
  name: "",
  division: "",
  end: "",
  reads: "",
};

/** Gauges and meters with one division of their scale: too coarse a one cannot carry a verdict. */
export function Instruments({ shop, save }: ShopPartProps) {
  const [draft, setDraft] = useState(EMPTY);
  const [error, setError] = useState("");
  const add = async () => {
    const volts = parseQuantity(draft.division, { dimension: "voltage" });
    const pressure = parseQuantity(draft.division, { dimension: "pressure" });
    const division = volts.ok ? volts : pressure;
    if (!division.ok) return setError(`One division: ${division.message}; volts for a meter: 0.01 V`);
    const { kind: _, ...plain } = division.value;
    const end = draft.end.trim()
      ? parseQuantity(draft.end, { dimension: volts.ok ? "voltage" : "pressure", unit: plain.unit })
      : undefined;
    if (end && !end.ok) return setError(`Its scale ends at: ${end.message}`);
    setError("");
    const instrument = {
      id: uuid(),
      name: draft.name.trim(),
      division: plain,
      ...(end ? { end: { value: end.value.value, unit: end.value.unit } } : {}),
      ...(draft.reads && !volts.ok ? { reads: draft.reads } : {}),
    };
    if (await save({ ...shop, instruments: [...shop.instruments, instrument] })) setDraft(EMPTY);
  };
  return (
    <section aria-label="Instruments" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Gauges and meters</h2>
      <DividedList>
        {shop.instruments.map((i) => (
          <li key={i.id} className="flex flex-wrap items-center gap-3 py-2">
            <span className="mr-auto">
              <strong>{i.name}</strong>{" "}
              <span className="text-muted">
                one division {formatQuantity(i.division)}
                {i.end ? `, ends at ${formatQuantity(i.end)}` : ""}
                {i.reads ? `, ${READS[i.reads].toLowerCase()} only` : ""}
              </span>
            </span>
            <Button onClick={() => void save({ ...shop, instruments: shop.instruments.filter((x) => x.id !== i.id) })}>
              Remove {i.name}
            </Button>
          </li>
        ))}
        {shop.instruments.length === 0 && (
          <li className="py-3 text-muted">None described yet. Checks then ask for the division each time.</li>
        )}
      </DividedList>
      <Form className="grid items-end gap-3 sm:grid-cols-2 xl:grid-cols-5" onSubmit={() => void add()}>
        <TextField label="Gauge or meter" value={draft.name} onChange={(e) => setDraft({ ...draft, name: e.target.value })} />
        <TextField
          label="One division"
          placeholder="0.5 inHg"
          value={draft.division}
          onChange={(e) => setDraft({ ...draft, division: e.target.value })}
        />
        <TextField
          label="Scale ends at, if known"
          placeholder="30 inHg"
          value={draft.end}
          onChange={(e) => setDraft({ ...draft, end: e.target.value })}
        />
        <SelectField
          label="It reads"
          options={[["", "Vacuum and pressure"], ...Object.entries(READS)]}
          value={draft.reads}
          onChange={(e) => setDraft({ ...draft, reads: e.target.value as ReadsTo | "" })}
        />
        <Button type="submit">Add instrument</Button>
      </Form>
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}
