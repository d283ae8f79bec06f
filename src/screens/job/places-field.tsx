"use client";

import { X } from "lucide-react";
import { Button } from "@/ui/button";
import { SelectField } from "@/ui/field";

/** Several places, picked one by one from a list; each taken off again by its own key. */
export function PlacesField({
  label,
  places,
  value,
  onChange,
}: {
  label: string;
  places: readonly { readonly id: string; readonly name: string }[];
  value: readonly string[];
  onChange: (next: string[]) => void;
}) {
  const left = places.filter((p) => !value.includes(p.id));
  return (
    <div className="flex flex-col gap-2">
      <SelectField
        label={label}
        options={[["", value.length === 0 ? "Choose a place" : "Add a place"], ...left.map((p) => [p.id, p.name] as const)]}
        value=""
        onChange={(e) => e.target.value && onChange([...value, e.target.value])}
      />
      {value.length > 0 && (
        <ul className="flex flex-wrap gap-2">
          {value.map((id) => {
            const name = places.find((p) => p.id === id)?.name ?? id;
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
