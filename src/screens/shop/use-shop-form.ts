"use client";

import type { Form } from "@/core/form";
import { type TypedForm, useTypedForm } from "../form/use-typed-form";

export interface ShopForm<Body extends object, Known, Name extends string> extends TypedForm<Body, Known, Name> {
  /** Saves what stands in it this moment, and empties it once that is in */
  readonly submit: (save: (body: Body) => Promise<boolean>) => Promise<void>;
}

/** A form of the shop's: what is typed is kept on this device until it is saved. @param name under which it is kept. */
export function useShopForm<Body extends object, Known, Name extends string>(
  form: Form<Body, Known, Name>,
  name: string,
  known: Known,
): ShopForm<Body, Known, Name> {
  const typed = useTypedForm(form, `pelota.draft.shop.${name}`, known);
  return {
    ...typed,
    submit: async (save) => {
      const { record } = typed.now();
      if (!record) await typed.complain();
      else if (await save(record)) typed.clear();
    },
  };
}
