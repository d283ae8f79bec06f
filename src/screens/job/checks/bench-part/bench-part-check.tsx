"use client";

import type { ReactNode } from "react";
import { benchPart } from "@/core/checks/bench-part";
import { benchPartForm } from "@/core/checks/bench-part/fields";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** A part that is off the car: what it is, what was put on it, where it came out. */
export function BenchPartCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("bench-part", benchPartForm);
  return (
    <CheckFrame check={check} head={head} plan={benchPart.plan(check.context, undefined)}>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["part", "state", "way", "seconds", "pressure", "rating"]} />
      </div>
      <FormFields of={check} names={["leaksAt", "plugged", "instrument"]} />
    </CheckFrame>
  );
}
