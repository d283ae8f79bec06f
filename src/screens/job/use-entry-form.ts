"use client";

import { useState } from "react";
import type { Draft, Form } from "@/core/form";
import { type TypedForm, useTypedForm } from "../form/use-typed-form";
import type { NewEntry } from "../session/device";
import { useJob } from "./use-job";

/** A form that becomes entries: what stands between is said at its fields, what the server says against it below them. */
export interface EntryForm<Body extends object, Known, Name extends string> extends TypedForm<Body, Known, Name> {
  readonly error: string | undefined;
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
  const submit: EntryForm<Body, Known, Name>["submit"] = async (entriesOf) => {
    const { record: body } = typed.now();
    if (!body) {
      await typed.complain();
      return false;
    }
    const { done, wrong } = await typed.send(() => append(...entriesOf(body, typed.draft())));
    if (done || wrong) setError(wrong);
    return done;
  };
  return { ...typed, error, submit };
}
