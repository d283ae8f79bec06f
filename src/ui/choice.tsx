"use client";

import { Check } from "lucide-react";
import { RadioGroup, ToggleGroup } from "radix-ui";
import { type ReactNode, type Ref, useId, useRef } from "react";
import { RequiredDot } from "./field";

type Options<T extends string, Text = string> = readonly (readonly [T, Text])[];

const CHIP =
  "inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-md border border-edge px-3 text-base text-ink data-[state=checked]:border-live data-[state=checked]:bg-accent data-[state=checked]:text-on-accent data-[state=on]:border-live data-[state=on]:bg-accent data-[state=on]:text-on-accent disabled:opacity-50";

interface Said {
  label: string;
  hint?: string | undefined;
  error?: string | undefined;
  required?: boolean;
}

/** Hint that helps to answer, or what was wrong with the answer. */
const Note = ({ id, hint, error }: Pick<Said, "hint" | "error"> & { id: string }) =>
  (error ?? hint) ? (
    <p id={id} role={error ? "alert" : undefined} className={`text-sm ${error ? "text-ember" : "text-muted"}`}>
      {error ?? hint}
    </p>
  ) : null;

/** One of a few: big keys in a row, arrow keys move. */
export function Choice<T extends string>({
  label,
  hint,
  error,
  required = false,
  options,
  value,
  onChange,
  hideLabel = false,
  groupRef,
}: Said & {
  options: Options<T, ReactNode>;
  value: T | undefined;
  onChange: (value: T) => void;
  hideLabel?: boolean;
  groupRef?: Ref<HTMLDivElement>;
}) {
  const id = useId();
  // The group moves the focus a moment after the key, and forgets the choice where the key was let go of before.
  const byArrow = useRef(false);
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <span id={id} className={hideLabel ? "sr-only" : "text-sm text-muted"}>
        {label}
        {required && !hideLabel && <RequiredDot />}
      </span>
      <RadioGroup.Root
        ref={groupRef}
        // Told to who reads the screen; the browser's own refusal would stop a form without a word.
        aria-required={required || undefined}
        aria-describedby={(error ?? hint) ? `${id}-note` : undefined}
        aria-labelledby={id}
        className="flex flex-wrap gap-2"
        value={value ?? ""}
        onValueChange={(v) => onChange(v as T)}
        onKeyDown={(e) => {
          byArrow.current = e.key.startsWith("Arrow");
        }}
      >
        {options.map(([id, text]) => (
          <RadioGroup.Item
            key={id}
            value={id}
            className={CHIP}
            onFocus={() => {
              if (byArrow.current) onChange(id);
              byArrow.current = false;
            }}
          >
            {text}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <Note id={`${id}-note`} hint={hint} error={error} />
    </div>
  );
}

/** Any of a few. */
export function Chips<T extends string>({
  label,
  hint,
  error,
  options,
  value,
  onChange,
}: Said & {
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
      <Note id={`${id}-note`} hint={hint} error={error} />
    </div>
  );
}

/** A yes that must be given by hand. */
export function Tick({
  label,
  checked,
  disabled = false,
  onChange,
}: {
  label: string;
  checked: boolean;
  disabled?: boolean;
  onChange: (checked: boolean) => void;
}) {
  return (
    <label className="flex min-h-11 cursor-pointer items-center gap-3 text-base has-disabled:cursor-default has-disabled:text-muted">
      <input
        type="checkbox"
        className="size-6 shrink-0 accent-[var(--accent)]"
        checked={checked}
        disabled={disabled}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
}
