"use client";

import type { ReactNode } from "react";
import { PINCH_READ_NAMES, PINCH_READS, type PinchReads, type PinchRecord, pinch } from "@/core/checks/pinch";
import type { UnitId } from "@/core/units";
import { Choice, Tick } from "@/ui/choice";
import { SelectField, TextField } from "@/ui/field";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { JointField, useJoints } from "../joint-field";
import { readNumber } from "../read-number";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = {
  joint: "",
  how: "pinch" as "pinch" | "cap",
  blankProved: false,
  reads: "trim" as PinchReads,
  unit: "inHg" as UnitId,
  before: "",
  shut: "",
  released: "",
};
const UNITS: Partial<Record<PinchReads, readonly UnitId[]>> = {
  flow: ["L/min", "cc/min", "SCFH"],
  vacuum: ["inHg", "kPa", "mbar", "hPa"],
};
const SHOWN_UNIT: Record<PinchReads, string> = { trim: "%", rpm: "1/min", flow: "", vacuum: "" };
const STEPS = [
  ["before", "Before"],
  ["shut", "Shut off"],
  ["released", "Released"],
] as const;

/** A branch shut off: three readings side by side, and what came back. */
export function PinchCheck({ head }: { head: ReactNode }) {
  const { context, state } = useJob();
  const { draft, set, clear } = useCheckDraft("pinch", EMPTY);
  const joints = useJoints("pinch");
  const best = state.next.find((n) => n.check === "pinch")?.place;
  const joint = draft.joint || best || joints[0]?.id || "";
  usePlace(
    joint,
    (j) => joints.some((x) => x.id === j.id),
    (id) => set({ joint: id }),
  );
  if (!context) return null;
  const units = UNITS[draft.reads];
  const unit = units ? (units.includes(draft.unit) ? draft.unit : units[0]) : undefined;
  const record = (): PinchRecord | string => {
    const [before, shut, released] = [draft.before, draft.shut, draft.released].map(readNumber);
    if (before === undefined) return "Read first, with everything as it is.";
    if (shut === undefined) return "Shut the branch off, let the reading settle, and write it down.";
    if (released === undefined) return "Release it and see the reading come back.";
    return {
      joint,
      how: draft.how,
      blankProved: draft.blankProved,
      reads: draft.reads,
      ...(unit ? { unit } : {}),
      before,
      shut,
      released,
    };
  };
  return (
    <CheckFrame
      kind="pinch"
      head={head}
      plan={pinch.plan(context, { joint, how: draft.how })}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <JointField label="Branch" joints={joints} value={joint} onChange={(id) => set({ joint: id })} />
        <Choice
          label="How"
          options={[
            ["pinch", "Pinched with clamps"],
            ["cap", "Off and capped, both sides"],
          ]}
          value={draft.how}
          onChange={(how) => set({ how })}
        />
      </div>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <Choice
          label="What is watched"
          options={PINCH_READS.map((r) => [r, PINCH_READ_NAMES[r]] as const)}
          value={draft.reads}
          onChange={(reads) => set({ reads })}
        />
        {units && (
          <SelectField
            label="Unit"
            options={units.map((u) => [u, u] as const)}
            value={unit}
            onChange={(e) => set({ unit: e.target.value as UnitId })}
          />
        )}
      </div>
      <div className="grid grid-cols-3 gap-4">
        {STEPS.map(([key, name]) => (
          <TextField
            key={key}
            label={`${name}, ${SHOWN_UNIT[draft.reads] || unit}`}
            inputMode="decimal"
            className="text-3xl font-bold"
            value={draft[key]}
            onChange={(e) => set({ [key]: e.target.value })}
          />
        ))}
      </div>
      <Tick
        label="The clamp or cap was proved: it holds by itself"
        checked={draft.blankProved}
        onChange={(blankProved) => set({ blankProved })}
      />
    </CheckFrame>
  );
}
