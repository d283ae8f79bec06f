"use client";

import type { Ref } from "react";
import type { Place } from "@/core/form";
import { placeGroups } from "@/core/vehicle";
import type { Labelled } from "@/ui/field";
import { PickField } from "@/ui/pick-field";

/** One of the car's joints, the likeliest first, then circuit by circuit. */
export function PlacePicker({
  among,
  value,
  onChange,
  inputRef,
  ...said
}: Labelled & {
  among: readonly Place[];
  value: string;
  onChange: (id: string) => void;
  inputRef?: Ref<HTMLButtonElement & HTMLSelectElement>;
}) {
  return <PickField {...said} ref={inputRef} options={[]} groups={placeGroups(among)} value={value} onPick={onChange} />;
}
