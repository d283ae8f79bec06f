"use client";

import { createContext, useContext, useMemo } from "react";
import { CHECKS, type CheckContext, type CheckId } from "@/core/checks";
import type { CheckFacts } from "@/core/checks/check-form";
import type { Form } from "@/core/form";
import { checkFacts } from "@/core/journal";
import { type TypedForm, useTypedForm } from "../../form/use-typed-form";
import { useJob } from "../use-job";
import { useLastUse } from "./last-use";

/** A check on its way: its form, and what the job and the shop know of it. */
export interface CheckInHand<Body extends object = object, Name extends string = string>
  extends TypedForm<Body, CheckFacts, Name> {
  readonly kind: CheckId;
  readonly context: CheckContext;
  readonly known: CheckFacts;
  /** Part that was read of its fields, once all of it can be */
  readonly record: Body | undefined;
}

/** The part or way in that the instrument in hand was opened for, where it was. */
export const WantedPlace = createContext<string | undefined>(undefined);

/** The form of a check, kept on this device from the first thing typed. The vehicle has been described. */
export function useCheckForm<Body extends object, Name extends string>(
  kind: CheckId,
  form: Form<Body, CheckFacts, Name>,
): CheckInHand<Body, Name> {
  const { id, state, shop, context } = useJob();
  if (!context) throw new Error(`${CHECKS[kind].name} needs the vehicle's facts`);
  const wanted = useContext(WantedPlace);
  const lastUse = useLastUse(kind);
  const known = useMemo(
    () => ({ ...checkFacts(kind, state, shop, context, wanted), ...(lastUse ? { lastUse } : {}) }),
    [kind, state, shop, context, wanted, lastUse],
  );
  const typed = useTypedForm(form, `pelota.draft.${id}.${kind}`, known);
  return { ...typed, kind, context, known, record: typed.filled.record };
}
