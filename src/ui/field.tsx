"use client";

import {
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
  useId,
} from "react";
import { Note } from "./note";

const BOX = "w-full min-h-11 rounded-md border border-edge bg-raised px-3 text-base text-ink aria-[invalid=true]:border-ember";

export interface Labelled {
  label: string;
  hint?: ReactNode;
  /** Said at the field though it is no mistake */
  warning?: string | undefined;
  error?: string | undefined;
  required?: boolean;
}

/** A dot behind the words of what has to be said. It has no words of its own: the field says that it is required. */
export const RequiredDot = () => <span aria-hidden className="ml-1.5 inline-block size-1.5 rounded-full bg-live align-middle" />;

/** Label above, control, then the hint or what was wrong with it. */
function Frame({ id, label, hint, warning, error, required, children }: Labelled & { id: string; children: ReactNode }) {
  const ink = error ? "text-ember" : warning ? "text-amber" : "text-muted";
  const note = error ?? warning ?? hint;
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-sm text-muted">
        {label}
        {required && <RequiredDot />}
      </label>
      {children}
      {note && (
        <p id={`${id}-note`} role={error || warning ? "alert" : undefined} className={`text-sm ${ink}`}>
          {note}
        </p>
      )}
    </div>
  );
}

const describe = (id: string, { hint, warning, error, required }: Omit<Labelled, "label">) => ({
  "aria-invalid": error ? true : undefined,
  "aria-required": required || undefined,
  "aria-describedby": hint || error || warning ? `${id}-note` : undefined,
});

export function TextField({
  label,
  hint,
  warning,
  error,
  required = false,
  className = "",
  ...rest
}: Labelled & Omit<InputHTMLAttributes<HTMLInputElement>, "required"> & { ref?: Ref<HTMLInputElement> }) {
  const id = useId();
  const said = { hint, warning, error, required };
  return (
    <Frame id={id} label={label} {...said}>
      <input id={id} className={`${BOX} ${className}`} autoComplete="off" {...describe(id, said)} {...rest} />
    </Frame>
  );
}

export function TextArea({
  label,
  hint,
  warning,
  error,
  required = false,
  className = "",
  ...rest
}: Labelled & Omit<TextareaHTMLAttributes<HTMLTextAreaElement>, "required"> & { ref?: Ref<HTMLTextAreaElement> }) {
  const id = useId();
  const said = { hint, warning, error, required };
  return (
    <Frame id={id} label={label} {...said}>
      <textarea id={id} rows={3} className={`${BOX} py-2 ${className}`} {...describe(id, said)} {...rest} />
    </Frame>
  );
}

type Options = readonly (readonly [string, string])[];

export function SelectField({
  label,
  hint,
  warning,
  error,
  required = false,
  className = "",
  options,
  groups = [],
  ...rest
}: Labelled &
  Omit<SelectHTMLAttributes<HTMLSelectElement>, "required"> & {
    ref?: Ref<HTMLSelectElement>;
    /** Those that belong to no group, before the groups */
    options: Options;
    /** The others, each group under its name */
    groups?: readonly (readonly [name: string, options: Options])[];
  }) {
  const id = useId();
  const said = { hint, warning, error, required };
  return (
    <Frame id={id} label={label} {...said}>
      <select id={id} className={`${BOX} ${className}`} {...describe(id, said)} {...rest}>
        {options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
        {groups
          .filter(([, own]) => own.length > 0)
          .map(([name, own]) => (
            <optgroup key={name} label={name}>
              {own.map(([value, text]) => (
                <option key={value} value={value}>
                  {text}
                </option>
              ))}
            </optgroup>
          ))}
      </select>
    </Frame>
  );
}

/** A refusal or a failure: what was wrong, what was kept, what to do. */
export function ErrorNote({ children }: { children: ReactNode }) {
  return (
    <Note role="alert" tone="ember" as="p" className="text-ink">
      {children}
    </Note>
  );
}
