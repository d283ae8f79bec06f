"use client";

import type { CheckForm, Known } from "@/core/checks/known";
import { type Fault, type Given, isAsked, labelOf } from "@/core/form";

/** What stands between what was typed and a record: what is wrong in full, then what was not said yet, each a way there. */
export function StillNeeded({
  form,
  given,
  faults,
  onFocus,
}: {
  form: Pick<CheckForm<object>, "fields">;
  given: Given<Known>;
  faults: readonly Fault[];
  onFocus: (field: string) => void;
}) {
  const nameOf = ({ field }: Fault) => {
    const [first, holder] = Object.entries(form.fields).find(([name]) => field === name || field.startsWith(`${name}.`)) ?? [];
    // What is not asked yet, or is no one field, has nowhere to lead: its words say what to do.
    const leads = holder && holder.type !== "taken" && holder.type !== "rows" && isAsked(holder, given);
    return first && leads ? labelOf(holder, given) : undefined;
  };
  const wrong = faults.filter((f) => !f.missing);
  const missing = faults.filter((f) => f.missing);
  const wayTo = (fault: Fault) => {
    const name = nameOf(fault);
    return (
      name && (
        <button
          key={fault.field}
          type="button"
          className="min-h-11 cursor-pointer rounded-md px-2 underline underline-offset-4 hover:bg-raised"
          onClick={() => onFocus(fault.field)}
        >
          {name}
        </button>
      )
    );
  };
  return (
    <div className="flex flex-col gap-2">
      {wrong.map((fault) => (
        <div key={`${fault.field} ${fault.message}`} className="border-l-4 border-ember bg-ember-soft px-4 py-2">
          {wayTo(fault)}
          <p>{fault.message}</p>
        </div>
      ))}
      {missing[0] && (
        <div role="status" className="border-l-4 border-edge px-4 py-2 text-muted">
          <p className="text-ink">{missing[0].message}</p>
          {missing.some(nameOf) && (
            <p className="-ml-2 flex flex-wrap items-center text-sm">
              <span className="px-2">Still needed:</span>
              {missing.map(wayTo)}
            </p>
          )}
        </div>
      )}
    </div>
  );
}
