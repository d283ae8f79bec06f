"use client";

import { Calculator, Delete } from "lucide-react";
import { Popover } from "radix-ui";
import { type Ref, useId, useState } from "react";
import { type BandId, formatQuantity, parseField, plausibility, type UnitId } from "@/core/units";
import { afterPress } from "./after-press";
import { RequiredDot } from "./field";

/**
 * A reading typed as people type it ("13 inH2O", "0,4 psi") or by a big keypad with unit keys. What was typed stays in the
 * field whatever is wrong with it; a value that fits a neighbour unit is asked back, never changed silently.
 */
export function QuantityField({
  label,
  field,
  unit,
  units,
  value,
  onChange,
  hint,
  error,
  example,
  required = false,
  onBlur,
  inputRef,
}: {
  label: string;
  /** Plausible band of this field */
  field: BandId;
  /** Unit taken when none is typed */
  unit: UnitId;
  /** Unit keys of the keypad */
  units: readonly UnitId[];
  /** Text in the field */
  value: string;
  onChange: (typed: string) => void;
  hint?: string | undefined;
  /** Everything wrong with it besides what it says itself: that it is missing */
  error?: string | undefined;
  required?: boolean;
  onBlur?: () => void;
  inputRef?: Ref<HTMLInputElement>;
  /** A usual value in `unit`, shown while the field is empty */
  example: string;
}) {
  const id = useId();
  const [touched, setTouched] = useState(false);
  const parsed = parseField(value, field, unit);
  const query = parsed.ok ? plausibility(parsed.value, field) : null;
  const complaint = (touched && value !== "" ? (parsed.ok ? query?.message : parsed.message) : undefined) ?? error;
  const number = value.replace(/[^\d.,\-−]/g, "");
  const key = (k: string) => onChange(k === "⌫" ? value.slice(0, -1) : `${value}${k}`);
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-sm text-muted">
        {label}
        {required && <RequiredDot />}
      </label>
      <div className="flex gap-1">
        <input
          id={id}
          ref={inputRef}
          aria-required={required || undefined}
          inputMode="decimal"
          autoComplete="off"
          className="min-h-11 w-full min-w-0 rounded-md border border-edge bg-raised px-3 text-base text-ink aria-[invalid=true]:border-ember"
          value={value}
          placeholder={`e.g. ${example} ${unit}`}
          onChange={(e) => onChange(e.target.value)}
          onBlur={() =>
            afterPress(() => {
              setTouched(true);
              onBlur?.();
            })
          }
          aria-invalid={complaint ? true : undefined}
          aria-describedby={`${id}-note`}
        />
        <Popover.Root>
          <Popover.Trigger
            aria-label={`Keypad for ${label}`}
            className="inline-flex size-11 shrink-0 cursor-pointer items-center justify-center rounded-md border border-edge hover:bg-raised"
          >
            <Calculator aria-hidden size={18} />
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              sideOffset={6}
              collisionPadding={8}
              className="z-50 w-72 rounded-lg border border-line bg-panel p-3 shadow-xl"
            >
              <output className="mb-2 block min-h-8 text-right font-mono text-2xl">{value || "–"}</output>
              <div className="grid grid-cols-4 gap-2">
                {["7", "8", "9", "⌫", "4", "5", "6", "-", "1", "2", "3", ".", "0"].map((k) => (
                  <button
                    key={k}
                    type="button"
                    aria-label={k === "⌫" ? "Delete" : k}
                    className="flex min-h-12 cursor-pointer items-center justify-center rounded-md bg-raised text-xl hover:brightness-125"
                    onClick={() => key(k)}
                  >
                    {k === "⌫" ? <Delete aria-hidden size={20} /> : k}
                  </button>
                ))}
              </div>
              <div className="mt-2 flex flex-wrap gap-2">
                {units.map((u) => (
                  <button
                    key={u}
                    type="button"
                    className="min-h-11 cursor-pointer rounded-md border border-edge px-3 hover:bg-raised"
                    onClick={() => {
                      setTouched(true);
                      onChange(`${number} ${u}`);
                    }}
                  >
                    {u}
                  </button>
                ))}
              </div>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      </div>
      <p
        id={`${id}-note`}
        className={complaint ? "text-sm text-ember" : "text-sm text-muted"}
        role={complaint ? "alert" : undefined}
      >
        {complaint ?? (parsed.ok && value !== "" ? `= ${formatQuantity(parsed.value)}` : (hint ?? " "))}
      </p>
      {complaint && query && parsed.ok && (
        <div className="flex flex-wrap gap-2">
          {query.suggestions.slice(0, 3).map((s) => (
            <button
              key={s.unit}
              type="button"
              className="min-h-11 cursor-pointer rounded-md border border-edge px-3"
              onClick={() => onChange(`${number} ${s.unit}`)}
            >
              Take {s.unit}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
