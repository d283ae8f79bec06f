"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Control, type FieldErrors, type Resolver, useForm } from "react-hook-form";
import type { Form } from "@/core/form";
import {
  type Draft,
  draftOfToday,
  type FormState,
  formStateOf,
  isRequired,
  partTyped,
  rowsOf,
  setIn,
  toRecord,
} from "@/core/form";
import { load, save } from "../session/storage";
import { emptied, type Sent, useUnderway } from "../session/underway";

/** A form while it is filled: what stands in it, what it makes, and what is wrong or missing. */
export interface TypedForm<Body extends object, Known, Name extends string = string> {
  readonly form: Form<Body, Known, Name>;
  readonly control: Control;
  /** The form as its fields see it */
  readonly formState: FormState<Known>;
  readonly filled: ReturnType<typeof toRecord<Body, Known>>;
  /** The same as it stands this moment, drawn yet or not: what is recorded */
  readonly now: () => ReturnType<typeof toRecord<Body, Known>>;
  /** Text as typed, as it stands this moment */
  readonly draft: () => Draft;
  /** Value of a field: typed, or known already */
  readonly value: <T = unknown>(name: Name) => T;
  /** The same as it stands this moment, drawn yet or not: what a key that is pressed now goes by */
  readonly latest: <T = unknown>(name: Name) => T;
  readonly set: (change: { readonly [N in Name]?: unknown }) => void;
  /** Lays a part of a record into its fields, as an instrument or a log gave it */
  readonly fill: (part: object) => void;
  readonly required: (name: string) => boolean;
  /** Says at every field what is wrong with it or missing, and puts the focus on the first; true when nothing is */
  readonly complain: () => Promise<boolean>;
  readonly focus: (name: string) => void;
  /** ISO time of the first thing typed; empty while there is none */
  readonly startedAt: string;
  /** Forgets what was typed */
  readonly clear: () => void;
  /** While it is on its way: nothing is typed into it */
  readonly busy: boolean;
  /** Does what makes an entry of it, once however often it is asked; it is empty once that says nothing is wrong */
  readonly send: (work: () => Promise<string | undefined>) => Promise<Sent>;
}

/** Rows that stand there from the beginning are there to be typed into; a damaged draft is an empty one. */
function ready<Known>(form: Form<object, Known>, kept: unknown, known: Known): Draft {
  let draft: Draft =
    typeof kept === "object" && kept !== null && !Array.isArray(kept)
      ? draftOfToday(form as Form<object, Known>, kept as Draft)
      : {};
  for (const [name, field] of Object.entries(form.fields)) {
    if (field.type !== "rows") continue;
    const rows = rowsOf(formStateOf(form.fields, draft, known).value(name));
    draft = setIn(draft, name, rows);
  }
  return draft;
}

/** The draft as it is kept: a PIN or a passphrase stays in its field alone. */
function keptOf<Known>(form: Form<object, Known>, draft: Draft): Draft {
  let kept = draft;
  for (const [name, field] of Object.entries(form.fields)) {
    if (field.type === "text" && field.secret) kept = setIn(kept, name, undefined);
    if (field.type !== "rows" || !Object.values(field.fields).some((f) => f.type === "text" && f.secret)) continue;
    const rows = rowsOf(kept[name]).map((row) => keptOf({ ...form, fields: field.fields }, row));
    kept = setIn(kept, name, rows);
  }
  return kept;
}

/**
 * A form of the core in the browser: its resolver is the form's own `toRecord`, what is typed stays text until then, and is
 * kept on this device until it has become an entry.
 * @param key where it is kept; @param known what it need not ask.
 */
export function useTypedForm<Body extends object, Known, Name extends string>(
  form: Form<Body, Known, Name>,
  key: string,
  known: Known,
): TypedForm<Body, Known, Name> {
  const latest = useRef(known);
  latest.current = known;
  const resolver = useCallback<Resolver>(
    (draft) => {
      const filled = toRecord(form, draft as Draft, latest.current);
      if (!filled.errors) return { values: filled.record as Record<string, unknown>, errors: {} };
      let errors: FieldErrors = {};
      for (const f of filled.errors) errors = setIn(errors, f.field || "root.whole", { type: "said", message: f.message });
      return { values: {}, errors };
    },
    [form],
  );
  const { control, reset, watch, trigger, setValue, setFocus, getFieldState, getValues } = useForm({
    resolver,
    mode: "onTouched",
  });
  const [kept, setKept] = useState(false);

  // What was kept is read once the page stands: the server knows nothing of it.
  useEffect(() => {
    reset(ready(form as Form<object, Known>, load(key), latest.current));
    setKept(true);
  }, [form, key, reset]);

  // Rows stand in the form themselves: as long as nobody typed, they follow what is known.
  const rows = useMemo(() => Object.values<{ type: string }>(form.fields).some((field) => field.type === "rows"), [form]);
  useEffect(() => {
    if (kept && rows && !getValues("startedAt")) reset(ready(form as Form<object, Known>, undefined, known));
  }, [kept, rows, known, form, reset, getValues]);

  const draft = watch() as Draft;
  const startedAt = typeof draft.startedAt === "string" ? draft.startedAt : "";

  useEffect(() => {
    const { unsubscribe } = watch((values, { name }) => {
      if (name === undefined || name === "startedAt") return;
      if (!values.startedAt) {
        // From here on it is about this place: a ranking that changes meanwhile does not move it.
        const state = formStateOf(form.fields as Form<Body, Known>["fields"], values as Draft, latest.current);
        for (const [place, field] of Object.entries<Form<Body, Known>["fields"][string]>(form.fields)) {
          const proposed = field.type === "place" && values[place] === undefined ? state.value(place) : undefined;
          if (proposed !== undefined) setValue(place, proposed);
        }
        setValue("startedAt", new Date().toISOString());
      }
      save(key, keptOf(form as Form<object, Known>, control._formValues));
      // A complaint goes as it is answered, not as the field is left: what stands below would move away under the finger.
      if (getFieldState(name).invalid) void trigger(name);
    });
    return unsubscribe;
  }, [control, form, key, setValue, watch, getFieldState, trigger]);

  // What is known meanwhile may answer what was asked for: its complaint goes.
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is asked again as what is known changes, and then alone
  useEffect(() => {
    const wrong = Object.keys(form.fields).filter((name) => getFieldState(name).invalid);
    if (wrong.length > 0) void trigger(wrong);
  }, [known]);

  const formState = useMemo(() => formStateOf(form.fields as Form<Body, Known>["fields"], draft, known), [form, draft, known]);
  const filled = useMemo(() => toRecord(form as Form<Body, Known>, draft, known), [form, draft, known]);

  const now = useCallback(() => toRecord(form as Form<Body, Known>, getValues() as Draft, latest.current), [form, getValues]);
  const held = useCallback(
    (name: Name) => formStateOf(form.fields as Form<Body, Known>["fields"], getValues() as Draft, latest.current).value(name),
    [form, getValues],
  );
  const clear = useCallback(() => {
    save(key, undefined);
    emptied(key);
  }, [key]);
  const onEmptied = useCallback(() => reset(ready(form as Form<object, Known>, undefined, latest.current)), [form, reset]);
  const { busy, send, whenFree } = useUnderway(key, clear, onEmptied);
  const set = useCallback(
    (change: { readonly [N in Name]?: unknown }) =>
      whenFree(() => {
        // Said by an instrument, it only takes a complaint back: nobody was asked yet.
        for (const [name, value] of Object.entries(change))
          setValue(name, value, { shouldDirty: true, shouldValidate: getFieldState(name).invalid });
      }),
    [setValue, getFieldState, whenFree],
  );
  const fill = useCallback(
    (part: object) =>
      whenFree(() => {
        const state = formStateOf((form as Form<Body, Known>).fields, getValues() as Draft, latest.current);
        set(partTyped(form as Form<Body, Known>, part, state) as Parameters<typeof set>[0]);
      }),
    [form, getValues, set, whenFree],
  );
  const complain = useCallback(() => trigger(undefined, { shouldFocus: true }), [trigger]);
  const required = useCallback((name: string) => isRequired(form as Form<object, Known>, name, formState), [form, formState]);
  return {
    form,
    control,
    formState,
    filled,
    now,
    draft: getValues as () => Draft,
    value: formState.value as TypedForm<Body, Known, Name>["value"],
    latest: held as TypedForm<Body, Known, Name>["latest"],
    set,
    fill,
    required,
    complain,
    focus: setFocus,
    startedAt: kept ? startedAt : "",
    clear,
    busy,
    send,
  };
}
