"use client";

import { useEffect, useState } from "react";
import type { CheckId } from "@/core/checks";
import { equipmentOf } from "@/core/checks/check-form";
import type { Form } from "@/core/form";
import { load, save } from "../../session/storage";

const keyOf = (kind: CheckId) => `pelota.lastUse.${kind}`;

/** Keeps what a recorded check's equipment was: on the next car it stands there again. */
export function keepUse(kind: CheckId, form: Pick<Form<object, never>, "fields">, record: object): void {
  const equipment = equipmentOf(form, record);
  if (equipment) save(keyOf(kind), equipment);
}

/** What a check's equipment was when one of its kind was recorded last on this device, whatever the car. */
export function useLastUse(kind: CheckId): object | undefined {
  const [last, setLast] = useState<object>();
  // The server knows nothing of it: it is read once the page stands.
  useEffect(() => {
    const kept = load<unknown>(keyOf(kind));
    setLast(typeof kept === "object" && kept !== null && !Array.isArray(kept) ? kept : undefined);
  }, [kind]);
  return last;
}
