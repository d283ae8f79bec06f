"use client";

import { useState } from "react";
import type { Plan } from "@/core/checks";
import { useKeys } from "../../session/keys";
import { focusAfterwards } from "../now";
import { picturesIn } from "../pictures";
import { useJob } from "../use-job";
import { keepUse } from "./last-use";
import type { CheckInHand } from "./use-check-form";
import { CORRECTS, type Corrects, useRecordCheck } from "./use-record-check";

/**
 * How a check in hand becomes a record: once however often it is asked, with its pictures and the line that it corrects, and
 * the focus left with who went on.
 * @param incomplete says what stands between, where something does; a message it returns stands below the form.
 * @param possible whether the check is done on this vehicle at all.
 */
export function useFinish<Name extends string>(
  check: CheckInHand<object, Name>,
  incomplete: () => string | undefined | Promise<unknown>,
  {
    onDone,
    possible = true,
    takenOff = [],
  }: {
    readonly onDone?: (() => void) | undefined;
    readonly possible?: boolean;
    /** What setting it up took off the car and nobody has listed yet */
    readonly takenOff?: Plan["displaces"];
  } = {},
) {
  const save = useRecordCheck();
  const { state } = useJob();
  const [error, setError] = useState<string>();
  const { formState, form } = check;
  // A check that keeps pictures with its parts has none of its own.
  const own = "pictures" in form.fields;
  const pictures = picturesIn(formState.value("pictures"));
  const corrects = formState.value(CORRECTS) as Corrects | undefined;
  const done = () => {
    check.clear();
    onDone?.();
  };
  const finish = async () => {
    const focus = focusAfterwards();
    const { record: whole } = check.now();
    if (!whole) {
      const message = await incomplete();
      return setError(typeof message === "string" ? message : undefined);
    }
    const to = new Date().toISOString();
    const more = { pictures: own ? [] : pictures, ...(corrects ? { corrects } : { takenOff }) };
    const sent = await check.send(() => save(check.kind, whole, { from: check.startedAt || to, to }, more));
    if (sent.done || sent.wrong) setError(sent.wrong);
    if (!sent.done) return;
    if (!state.practice) keepUse(check.kind, form, whole);
    onDone?.();
    focus();
  };
  useKeys({ record: possible ? () => void finish() : undefined });
  return { pictures, corrects, error, finish, done };
}
