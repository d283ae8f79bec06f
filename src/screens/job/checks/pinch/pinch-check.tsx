"use client";

import type { ReactNode } from "react";
import { type PinchRecord, pinch } from "@/core/checks/pinch";
import { pinchForm } from "@/core/checks/pinch/fields";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** A branch shut off: three readings side by side, and what came back. */
export function PinchCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("pinch", pinchForm);
  const { context, value } = check;
  const plan = pinch.plan(context, { joint: value<string | undefined>("joint"), how: value<PinchRecord["how"]>("how") });
  return (
    <CheckFrame check={check} head={head} plan={plan}>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "how", "reads", "unit"]} />
      </div>
      <div className="grid grid-cols-3 items-start gap-4">
        <FormFields of={check} names={["before", "shut", "released"]} className="text-3xl font-bold" />
      </div>
      <FormFields of={check} names={["blankProved"]} />
    </CheckFrame>
  );
}
