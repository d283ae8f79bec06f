"use client";

import { Delete } from "lucide-react";
import type { Ref } from "react";
import { TextField } from "./field";

const DIGITS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"];
const LONGEST = 8;

/** A PIN, by keys large enough for gloves or by the keyboard. */
export function PinPad({
  label,
  value,
  onChange,
  error,
  inputRef,
}: {
  label: string;
  value: string;
  onChange: (pin: string) => void;
  error?: string | undefined;
  inputRef?: Ref<HTMLInputElement>;
}) {
  const add = (digit: string) => onChange((value + digit).slice(0, LONGEST));
  const key = "min-h-14 rounded-md border border-edge text-2xl tabular-nums hover:bg-raised active:bg-raised cursor-pointer";
  return (
    <div className="flex flex-col gap-3">
      <TextField
        label={label}
        ref={inputRef}
        type="password"
        inputMode="numeric"
        autoComplete="off"
        maxLength={LONGEST}
        value={value}
        error={error}
        className="!min-h-14 text-center !text-2xl tracking-[0.5em]"
        onChange={(e) => onChange(e.target.value.replace(/\D/g, ""))}
      />
      {/* The field takes the same from a keyboard. */}
      <fieldset aria-label="Keys for the PIN" className="grid grid-cols-3 gap-2">
        {DIGITS.map((digit) => (
          <button key={digit} type="button" className={key} onClick={() => add(digit)}>
            {digit}
          </button>
        ))}
        <span />
        <button type="button" className={key} onClick={() => add("0")}>
          0
        </button>
        <button
          type="button"
          aria-label="Delete the last digit"
          className={`${key} inline-flex items-center justify-center`}
          onClick={() => onChange(value.slice(0, -1))}
        >
          <Delete aria-hidden />
        </button>
      </fieldset>
    </div>
  );
}
