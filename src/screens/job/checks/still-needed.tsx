"use client";

import type { CheckFacts } from "@/core/checks/check-form";
import type { Form } from "@/core/form";
import { type FieldError, type FormState, isAsked, labelOf } from "@/core/form";
import { Note } from "@/ui/note";
import { SetConditions } from "../conditions";

/** Complaints that stand between what was typed and a record: what is wrong in full, then what was not said yet, each a way there. */
export function StillNeeded({
  form,
  state,
  errors,
  onFocus,
}: {
  form: Pick<Form<object, CheckFacts>, "fields">;
  state: FormState<CheckFacts>;
  errors: readonly FieldError[];
  onFocus: (field: string) => void;
}) {
  const nameOf = ({ field }: FieldError) => {
    const [first, holder] = Object.entries(form.fields).find(([name]) => field === name || field.startsWith(`${name}.`)) ?? [];
    // What is not asked yet, or is no one field, has nowhere to lead: its words say what to do.
    const leads = holder && holder.type !== "taken" && holder.type !== "rows" && isAsked(holder, state);
    return first && leads ? labelOf(holder, state) : undefined;
  };
  const wrong = errors.filter((f) => !f.missing);
  const missing = errors.filter((f) => f.missing);
  const wayTo = (error: FieldError) => {
    const name = nameOf(error);
    return (
      name && (
        <button
          key={error.field}
          type="button"
          className="min-h-11 cursor-pointer rounded-md px-2 underline underline-offset-4 hover:bg-raised"
          onClick={() => onFocus(error.field)}
        >
          {name}
        </button>
      )
    );
  };
  return (
    <div className="flex flex-col gap-2">
      {wrong.map((error) => (
        <Note key={`${error.field} ${error.message}`} tone="ember" tight>
          {wayTo(error)}
          <p>{error.message}</p>
        </Note>
      ))}
      {missing[0] && (
        <div role="status" className="border-l-4 border-edge px-4 py-2 text-muted">
          {state.known.ambient === undefined && missing[0].field === "" ? (
            <SetConditions why={missing[0].message} />
          ) : (
            <p className="text-ink">{missing[0].message}</p>
          )}
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
