"use client";

import { X } from "lucide-react";
import type { Ref } from "react";
import type { Option } from "@/core/form";
import { Button } from "@/ui/button";
import type { Labelled } from "@/ui/field";
import { PickField } from "@/ui/pick-field";

/** Several places, picked one by one from a list; each taken off again by its own key. */
export function PlacesField({
  label,
  options,
  value,
  onChange,
  inputRef,
  ...said
}: Labelled & {
  options: readonly Option[];
  value: readonly string[];
  onChange: (next: string[]) => void;
  inputRef?: Ref<HTMLButtonElement & HTMLSelectElement>;
}) {
  const left = options.filter(([id]) => !value.includes(id));
  return (
    <div className="flex flex-col gap-2">
      <PickField
        {...said}
        label={label}
        ref={inputRef}
        options={[["", value.length === 0 ? "Choose a place" : "Add a place"], ...left]}
        value=""
        onPick={(id) => id && onChange([...value, id])}
      />
      {value.length > 0 && (
        <ul className="flex flex-wrap gap-2">
          {value.map((id) => {
            const name = options.find(([known]) => known === id)?.[1] ?? id;
            return (
              <li key={id}>
                <Button aria-label={`Not at: ${name}`} onClick={() => onChange(value.filter((v) => v !== id))}>
                  {name} <X aria-hidden size={16} />
                </Button>
              </li>
            );
          })}
        </ul>
      )}
    </div>
  );
}
