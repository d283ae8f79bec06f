"use client";

import { Check } from "lucide-react";
import { RadioGroup, ToggleGroup } from "radix-ui";
import { type ReactNode, useId } from "react";

type Options<T extends string, Text = string> = readonly (readonly [T, Text])[];

const CHIP =
  "inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-md border border-edge px-3 text-base text-ink data-[state=checked]:border-live data-[state=checked]:bg-accent data-[state=checked]:text-on-accent data-[state=on]:border-live data-[state=on]:bg-accent data-[state=on]:text-on-accent disabled:opacity-50";

/** One of a few: big keys in a row, arrow keys move. */
export function Choice<T extends string>({
  label,
  options,
  value,
  onChange,
  hideLabel = false,
}: {
  label: string;
  options: Options<T, ReactNode>;
  value: T | undefined;
  onChange: (value: T) => void;
  hideLabel?: boolean;
}) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <span id={id} className={hideLabel ? "sr-only" : "text-sm text-muted"}>
        {label}
      </span>
      <RadioGroup.Root
        aria-labelledby={id}
        className="flex flex-wrap gap-2"
        value={value ?? ""}
        onValueChange={(v) => onChange(v as T)}
      >
        {options.map(([id, text]) => (
          <RadioGroup.Item key={id} value={id} className={CHIP}>
            {text}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  );
}

/** Any of a few. */
export function Chips<T extends string>({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: Options<T>;
  value: readonly T[];
  onChange: (value: T[]) => void;
}) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <span id={id} className="text-sm text-muted">
        {label}
      </span>
      <ToggleGroup.Root
        type="multiple"
        aria-labelledby={id}
        className="flex flex-wrap gap-2"
        value={[...value]}
        onValueChange={(v) => onChange(v as T[])}
      >
        {options.map(([id, text]) => (
          <ToggleGroup.Item key={id} value={id} className={CHIP}>
            {value.includes(id) && <Check aria-hidden size={16} />}
            {text}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}

/** A yes that must be given by hand. */
export function Tick({ label, checked, onChange }: { label: string; checked: boolean; onChange: (checked: boolean) => void }) {
  return (
    <label className="flex min-h-11 cursor-pointer items-center gap-3 text-base">
      <input
        type="checkbox"
        className="size-6 shrink-0 accent-[var(--accent)]"
        checked={checked}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}

/** A question with no answer until one is given: nothing is taken for said. */
export function YesNo({
  label,
  yes,
  no,
  value,
  onChange,
}: {
  label: string;
  yes: string;
  no: string;
  value: boolean | undefined;
  onChange: (value: boolean) => void;
}) {
  return (
    <Choice
      label={label}
      options={[
        ["yes", yes],
        ["no", no],
      ]}
      value={value === undefined ? undefined : value ? "yes" : "no"}
      onChange={(v) => onChange(v === "yes")}
    />
  );
}
