"use client";

import type { ReactNode } from "react";
import { egr } from "@/core/checks/egr";
import { egrForm } from "@/core/checks/egr/fields";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** The valve shut beside the valve open, then its seat and its cooler. */
export function EgrCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("egr", egrForm);
  const joint = check.value<string | undefined>("joint") ?? "egr-valve";
  return (
    <CheckFrame check={check} head={head} plan={egr.plan(check.context, { joint })} at={joint}>
      <FormFields of={check} names={["joint"]} />
      <div className="grid gap-6 md:grid-cols-2">
        {(["shut", "open"] as const).map((state) => (
          <section
            key={state}
            aria-label={state === "shut" ? "Commanded shut" : "Commanded open"}
            className="flex flex-col gap-3 border-l-2 border-edge pl-4"
          >
            <FormFields of={check} names={[`${state}.rpm`, `${state}.maf`, `${state}.map`]} />
          </section>
        ))}
      </div>
      <FormFields of={check} names={["seat", "watched", "cooler", "warm"]} />
    </CheckFrame>
  );
}
