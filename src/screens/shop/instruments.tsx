"use client";

import { instrumentForm, READS } from "@/core/shop/settings";
import { formatQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import type { ShopPartProps } from "./part";
import { useShopForm } from "./use-shop-form";

/** Gauges and meters with one division of their scale: too coarse a one cannot carry a verdict. */
export function Instruments({ shop, save }: ShopPartProps) {
  const form = useShopForm(instrumentForm, "instrument", undefined);
  const add = () => form.submit((instrument) => save({ ...shop, instruments: [...shop.instruments, instrument] }));
  return (
    <section aria-label="Instruments" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Gauges and meters</h2>
      <DividedList>
        {shop.instruments.map((i) => (
          <li key={i.id} className="flex flex-wrap items-center gap-3 py-2">
            <span className="mr-auto">
              <strong>{i.name}</strong>{" "}
              <span className="text-muted">
                one division {formatQuantity(i.division)}
                {i.end ? `, ends at ${formatQuantity(i.end)}` : ""}
                {i.reads ? `, ${READS[i.reads].toLowerCase()} only` : ""}
              </span>
            </span>
            <Button onClick={() => void save({ ...shop, instruments: shop.instruments.filter((x) => x.id !== i.id) })}>
              Remove {i.name}
            </Button>
          </li>
        ))}
        {shop.instruments.length === 0 && (
          <li className="py-3 text-muted">None described yet. Checks then ask for the division each time.</li>
        )}
      </DividedList>
      <Form className="grid items-start gap-3 sm:grid-cols-2 xl:grid-cols-5" onSubmit={() => void add()}>
        <FormFields of={form} names={["name", "division", "end", "reads"]} />
        <Button type="submit" className="sm:mt-6">
          Add instrument
        </Button>
      </Form>
    </section>
  );
}
