"use client";

import type { Ref } from "react";
import type { Joint } from "@/core/vehicle";
import { SelectField } from "@/ui/field";

/** One of the car's joints, the likeliest first. */
export function PlacePicker({
  among,
  value,
  onChange,
  inputRef,
  ...said
}: {
  label: string;
  hint?: string | undefined;
  error?: string | undefined;
  required?: boolean;
  among: readonly Joint[];
  value: string;
  onChange: (id: string) => void;
  inputRef?: Ref<HTMLSelectElement>;
}) {
  return (
    <SelectField
      {...said}
      ref={inputRef}
      options={among.map((j) => [j.id, j.name] as const)}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
