"use client";

import { Trash2 } from "lucide-react";
import { useState } from "react";
import { type TrimPoint, trimPointSchema } from "@/core/checks/trims";
import { BadInput, validate } from "@/core/input";
import { parseNumber, parseQuantity } from "@/core/units";
import { Button, IconButton } from "@/ui/button";
import { ErrorNote, TextField } from "@/ui/field";
import { usePreferences } from "../../../session/preferences";
import { useDraft } from "../../../session/storage";
import { useJob } from "../../use-job";

const EMPTY = { rpm: "", maf: "", map: "", charge: "", short1: "", long1: "", short2: "", long2: "" };

/** The survey point by point: what the log gave, or typed in by hand. */
export function PointTable({
  points,
  banks,
  turbo,
  onChange,
}: {
  points: readonly TrimPoint[];
  banks: 1 | 2;
  turbo: boolean;
  onChange: (points: TrimPoint[]) => void;
}) {
  const { number, format } = usePreferences();
  const signed = (n: number) => `${n >= 0 ? "+" : ""}${number(n, 1)}`;
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[42rem] text-left">
        <caption className="sr-only">Survey points</caption>
        <thead>
          <tr className="border-b border-line text-sm text-muted">
            <th className="py-1 pr-3 font-normal">Speed</th>
            <th className="pr-3 font-normal">Air meter</th>
            <th className="pr-3 font-normal">Manifold, absolute</th>
            {turbo && <th className="pr-3 font-normal">Charge, absolute</th>}
            {Array.from({ length: banks }, (_, b) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: banks are numbered
              <th key={b} className="pr-3 font-normal">
                Short + long{banks > 1 ? `, bank ${b + 1}` : ""}
              </th>
            ))}
            <th className="font-normal">
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {points.map((p, i) => (
            <tr key={`${p.rpm} ${p.maf.value}`} className="border-b border-line font-mono">
              <td className="py-1 pr-3">{number(p.rpm, 0)} rpm</td>
              <td className="pr-3">{format(p.maf)}</td>
              <td className="pr-3">{p.map ? format({ value: p.map.value, unit: p.map.unit }, 1) : "reckoned"}</td>
              {turbo && (
                <td className="pr-3">
                  {p.chargePressure ? format({ value: p.chargePressure.value, unit: p.chargePressure.unit }, 1) : "–"}
                </td>
              )}
              {p.banks.map((b, n) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: banks are numbered
                <td key={n} className="pr-3">
                  {signed(b.short)} {b.long === undefined ? "no long-term" : `${signed(b.long)} %`}
                </td>
              ))}
              <td>
                <IconButton
                  label={`Remove the point at ${number(p.rpm, 0)} rpm`}
                  onClick={() => onChange(points.filter((_, n) => n !== i))}
                >
                  <Trash2 aria-hidden size={18} />
                </IconButton>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** One more point, typed. */
export function PointForm({ banks, turbo, onAdd }: { banks: 1 | 2; turbo: boolean; onAdd: (point: TrimPoint) => void }) {
  const { id } = useJob();
  const [typed, setTyped, clear] = useDraft(`pelota.draft.${id}.trim-point`, EMPTY);
  const [error, setError] = useState<string>();
  const field = (key: keyof typeof EMPTY, label: string, placeholder: string) => (
    <TextField
      key={key}
      label={label}
      inputMode="decimal"
      placeholder={placeholder}
      value={typed[key]}
      onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
    />
  );
  const add = () => {
    const number = (key: keyof typeof EMPTY, name: string) => {
      const n = parseNumber(typed[key]);
      if (!n.ok) throw new BadInput(`${name}: ${n.message}`);
      return n.value;
    };
    const reading = (key: keyof typeof EMPTY, name: string, unit: "g/s" | "kPa") => {
      const q = parseQuantity(
        typed[key],
        unit === "g/s" ? { dimension: "mass-flow", unit } : { dimension: "pressure", unit, kind: "absolute" },
      );
      if (!q.ok) throw new BadInput(`${name}: ${q.message}`);
      return q.value;
    };
    // Not typed is not zero: a point without its long-term trim says so.
    const bank = (short: "short1" | "short2", long: "long1" | "long2", which: string) => ({
      short: number(short, `Short-term trim${which}`),
      ...(typed[long].trim() ? { long: number(long, `Long-term trim${which}`) } : {}),
    });
    try {
      const point: TrimPoint = {
        rpm: number("rpm", "Engine speed"),
        maf: reading("maf", "Air meter", "g/s"),
        ...(typed.map.trim() ? { map: reading("map", "Manifold", "kPa") } : {}),
        ...(turbo && typed.charge.trim() ? { chargePressure: reading("charge", "Charge", "kPa") } : {}),
        banks: [bank("short1", "long1", ""), ...(banks === 2 ? [bank("short2", "long2", ", bank 2")] : [])],
      };
      onAdd(validate<TrimPoint>(trimPointSchema, point));
      clear();
      setError(undefined);
    } catch (e) {
      if (!(e instanceof BadInput)) throw e;
      setError(e.message);
    }
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        {field("rpm", "Engine speed, rpm", "720")}
        {field("maf", "Air meter, g/s", "2.6")}
        {field("map", "Manifold, kPa absolute", "33")}
        {turbo && field("charge", "Charge, kPa absolute", "101")}
        {field("short1", banks === 2 ? "Short-term, bank 1, %" : "Short-term, %", "4")}
        {field("long1", banks === 2 ? "Long-term, bank 1, %" : "Long-term, %", "12")}
        {banks === 2 && field("short2", "Short-term, bank 2, %", "1")}
        {banks === 2 && field("long2", "Long-term, bank 2, %", "2")}
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
      <div>
        <Button type="submit">Add the point</Button>
      </div>
    </form>
  );
}
