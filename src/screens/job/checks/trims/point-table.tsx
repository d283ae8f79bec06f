"use client";

import { Trash2 } from "lucide-react";
import type { TrimPoint } from "@/core/checks/trims";
import { trimPointForm } from "@/core/checks/trims/fields";
import { Button, IconButton } from "@/ui/button";
import { Form } from "@/ui/form";
import { FormFields } from "../../../form/form-field";
import { useTypedForm } from "../../../form/use-typed-form";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";

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
  /** Undefined while they come from a tool: what is taken out then comes back with the next row */
  onChange: ((points: TrimPoint[]) => void) | undefined;
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
            <th className="pr-3 font-normal">MAF</th>
            <th className="pr-3 font-normal">Manifold, absolute</th>
            {turbo && <th className="pr-3 font-normal">Charge, absolute</th>}
            {Array.from({ length: banks }, (_, b) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: banks are numbered
              <th key={b} className="pr-3 font-normal">
                Short + long{banks > 1 ? `, bank ${b + 1}` : ""}
              </th>
            ))}
            {onChange && (
              <th className="font-normal">
                <span className="sr-only">Remove</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {points.map((p, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a point that a tool goes on reading changes with every row, and stays where it is
            <tr key={i} className="border-b border-line font-mono">
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
                  {b.total !== undefined
                    ? `${signed(b.total)} % in all`
                    : `${signed(b.short ?? 0)} ${b.long === undefined ? "% no long-term" : `${signed(b.long)} %`}`}
                </td>
              ))}
              {onChange && (
                <td>
                  <IconButton
                    label={`Remove the point at ${number(p.rpm, 0)} rpm`}
                    onClick={() => onChange(points.filter((_, n) => n !== i))}
                  >
                    <Trash2 aria-hidden size={18} />
                  </IconButton>
                </td>
              )}
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
  const form = useTypedForm(trimPointForm, `pelota.draft.${id}.trim-point`, { banks, turbo });
  const add = () => {
    const { record } = form.now();
    if (!record) return void form.complain();
    onAdd(record);
    form.clear();
    form.focus("rpm");
  };
  return (
    <Form className="flex flex-col gap-3" onSubmit={() => add()}>
      <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-4">
        <FormFields
          of={form}
          names={[
            "rpm",
            "maf",
            "map",
            "chargePressure",
            "bank1.short",
            "bank1.long",
            "bank1.total",
            "bank2.short",
            "bank2.long",
            "bank2.total",
          ]}
        />
      </div>
      <div>
        <Button type="submit">Add the point</Button>
      </div>
    </Form>
  );
}
