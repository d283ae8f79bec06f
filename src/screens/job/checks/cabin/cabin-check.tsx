"use client";

import type { ReactNode } from "react";
import { cabin } from "@/core/checks/cabin";
import { cabinForm } from "@/core/checks/cabin/fields";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** Smoke along the seals, and where it is blown away. */
export function CabinCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("cabin", cabinForm);
  return (
    <CheckFrame check={check} head={head} plan={cabin.plan(check.context, undefined)}>
      <FormFields of={check} names={["fanOnFresh", "still", "seals"]} />
    </CheckFrame>
  );
}
