"use client";

import { useMemo } from "react";
import { LIMIT_GROUPS, type LimitId, limitsForm, limitsTyped } from "@/core/shop/limits";
import { Button } from "@/ui/button";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import type { ShopPartProps } from "./part";
import { useShopForm } from "./use-shop-form";

/** Every limit with its source; what the shop sets itself says so. */
export function LimitList({ shop, save }: ShopPartProps) {
  const { limits } = shop;
  const known = useMemo(() => ({ limits }), [limits]);
  const form = useShopForm(limitsForm, "limits", known);
  return (
    <section aria-label="Limits" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Limits</h2>
      <p className="text-muted">
        Shop defaults until you set your own. The maker's data goes before any of them: enter it with the vehicle.
      </p>
      <Form
        className="flex flex-col gap-5"
        onSubmit={() => void form.submit((typed) => save({ ...shop, limits: limitsTyped(typed, limits) }))}
      >
        {LIMIT_GROUPS.map(([group, fields]) => (
          <fieldset key={group} className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
            <legend className="mb-1 font-bold">{group}</legend>
            <FormFields of={form} names={Object.keys(fields) as LimitId[]} />
          </fieldset>
        ))}
        <div>
          <Button type="submit">Save the limits</Button>
        </div>
      </Form>
    </section>
  );
}
