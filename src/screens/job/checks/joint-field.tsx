"use client";

import { CHECKS, type CheckId } from "@/core/checks";
import type { Joint } from "@/core/vehicle";
import { SelectField } from "@/ui/field";
import { useJob } from "../use-job";

/** Which part a check is about: the joints it makes sense on, the most suspect first. */
export function useJoints(kind: CheckId): readonly Joint[] {
  const { context, state } = useJob();
  const places = context ? (CHECKS[kind].places?.(context) ?? []) : [];
  const odds = (id: string) =>
    state.suspects.filter((s) => s.cause.joint === id || s.cause.device === id).reduce((sum, s) => sum + s.odds, 0);
  return (context?.layout.joints.filter((j) => places.includes(j.id)) ?? []).toSorted((a, b) => odds(b.id) - odds(a.id));
}

export function JointField({
  label,
  joints,
  value,
  onChange,
}: {
  label: string;
  joints: readonly Joint[];
  value: string;
  onChange: (id: string) => void;
}) {
  return (
    <SelectField
      label={label}
      options={joints.map((j) => [j.id, j.name] as const)}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
