"use client";

import { useState } from "react";
import type { Draft, Form } from "@/core/form";
import { type TypedForm, useTypedForm } from "../form/use-typed-form";
import type { NewEntry } from "../session/device";
import { useJob } from "./use-job";
import { useOneAtATime } from "./use-one-at-a-time";

/** A form that becomes entries: what stands between is said at its fields, what the server says against it below them. */
export interface EntryForm<Body extends object, Known, Name extends string> extends TypedForm<Body, Known, Name> {
  readonly error: string | undefined;
  readonly busy: boolean;
  /** Records what stands in it this moment, and empties it once that is in; tells whether it is */
  readonly submit: (entriesOf: (body: Body, draft: Draft) => readonly NewEntry[]) => Promise<boolean>;
}

/** @param name under which what is typed is kept on this device, with its job. */
export function useEntryForm<Body extends object, Known, Name extends string>(
  form: Form<Body, Known, Name>,
  name: string,
  known: Known,
): EntryForm<Body, Known, Name> {
  const { id, append } = useJob();
  const typed = useTypedForm(form, `pelota.draft.${id}.${name}`, known);
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);
  const once = useOneAtATime<boolean>();
  const record = async (entriesOf: (body: Body, draft: Draft) => readonly NewEntry[]) => {
    const { record: body } = typed.now();
    if (!body) {
      await typed.complain();
      return false;
    }
    setBusy(true);
    const wrong = await append(...entriesOf(body, typed.draft()));
    setBusy(false);
    setError(wrong);
    if (!wrong) typed.clear();
    return !wrong;
  };
  const submit: EntryForm<Body, Known, Name>["submit"] = async (entriesOf) => (await once(() => record(entriesOf))) ?? false;
  return { ...typed, error, busy, submit };
}
