"use client";

import { type InputHTMLAttributes, type ReactNode, type SelectHTMLAttributes, type TextareaHTMLAttributes, useId } from "react";

const BOX = "w-full min-h-11 rounded-md border border-edge bg-raised px-3 text-base text-ink aria-[invalid=true]:border-ember";

interface Labelled {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
}

/** Label above, control, then the hint or what was wrong with it. */
function Frame({ id, label, hint, error, children }: Labelled & { id: string; children: ReactNode }) {
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-sm text-muted">
        {label}
      </label>
      {children}
      {error ? (
        <p id={`${id}-note`} role="alert" className="text-sm text-ember">
          {error}
        </p>
      ) : hint ? (
        <p id={`${id}-note`} className="text-sm text-muted">
          {hint}
        </p>
      ) : null}
    </div>
  );
}

const describe = (id: string, { hint, error }: Labelled) => ({
  "aria-invalid": error ? true : undefined,
  "aria-describedby": hint || error ? `${id}-note` : undefined,
});

export function TextField({ label, hint, error, className = "", ...rest }: Labelled & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <input id={id} className={`${BOX} ${className}`} autoComplete="off" {...describe(id, { label, hint, error })} {...rest} />
    </Frame>
  );
}

export function TextArea({ label, hint, error, ...rest }: Labelled & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <textarea id={id} rows={3} className={`${BOX} py-2`} {...describe(id, { label, hint, error })} {...rest} />
    </Frame>
  );
}

type Options = readonly (readonly [string, string])[];

export function SelectField({
  label,
  hint,
  error,
  options,
  others,
  ...rest
}: Labelled &
  SelectHTMLAttributes<HTMLSelectElement> & {
    options: Options;
    /** Those that are chosen seldom, under a name of their own */
    others?: { readonly label: string; readonly options: Options };
  }) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <select id={id} className={BOX} {...describe(id, { label, hint, error })} {...rest}>
        {options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
        {others && others.options.length > 0 && (
          <optgroup label={others.label}>
            {others.options.map(([value, text]) => (
              <option key={value} value={value}>
                {text}
              </option>
            ))}
          </optgroup>
        )}
      </select>
    </Frame>
  );
}

/** A refusal or a failure: what was wrong, what was kept, what to do. */
export function ErrorNote({ children }: { children: ReactNode }) {
  return (
    <p role="alert" className="border-l-4 border-ember bg-ember-soft px-4 py-3 text-ink">
      {children}
    </p>
  );
}
