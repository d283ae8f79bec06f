"use client";

import { Choice } from "./choice";

/** A question with two answers: nobody's silence is one of them. */
export function Said({
  label,
  yes,
  no,
  value,
  onChange,
  required,
}: {
  label: string;
  yes: string;
  no: string;
  value: boolean | undefined;
  onChange: (said: boolean) => void;
  required?: boolean;
}) {
  return (
    <Choice
      label={label}
      required={required ?? false}
      options={[
        ["yes", yes],
        ["no", no],
      ]}
      value={value === undefined ? "" : value ? "yes" : "no"}
      onChange={(said) => onChange(said === "yes")}
    />
  );
}
