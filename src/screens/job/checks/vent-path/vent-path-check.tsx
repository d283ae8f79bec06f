"use client";

import type { ReactNode } from "react";
import { openingOf, VENT_PART_NAMES, VENT_PARTS, type VentPart, type VentPathRecord, ventPath } from "@/core/checks/vent-path";
import { parseQuantity, type Quantity } from "@/core/units";
import { Choice } from "@/ui/choice";
import { TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../../../session/preferences";
import { readField } from "../../fields";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = {
  nozzle: "not-tried" as VentPathRecord["nozzle"],
  flow: Object.fromEntries(VENT_PARTS.map((p) => [p, ""])) as Record<VentPart, string>,
  back: Object.fromEntries(VENT_PARTS.map((p) => [p, ""])) as Record<VentPart, string>,
};

const flowOf = (typed: string): Quantity | undefined => {
  const parsed = parseQuantity(typed, { dimension: "volume-flow", unit: "L/min" });
  return parsed.ok && parsed.value.value > 0 ? parsed.value : undefined;
};

/** The vent path from outside in: each part blown through by itself, the opening it leaves beside it. */
export function VentPathCheck({ head }: { head: ReactNode }) {
  const { context, state } = useJob();
  const { number } = usePreferences();
  const { draft, set, clear } = useCheckDraft("vent-path", EMPTY);
  usePlace("vent-filter", () => false, undefined);
  if (!context) return null;
  const parts = VENT_PARTS.flatMap((part) => {
    const flow = flowOf(draft.flow[part]);
    const back = readField(draft.back[part], "tankPressure", "Pa");
    return flow && back ? [{ part, flow, back }] : [];
  });
  const { conditions } = state;
  const around = conditions && { ambient: conditions.ambient, temperature: conditions.bayTemperature };
  const record = (): VentPathRecord | string =>
    around
      ? { nozzle: draft.nozzle, parts, ...around }
      : "Set the conditions first (top right): an opening needs ambient pressure and temperature.";
  const limit = context.limits.ventOpening.value;
  return (
    <CheckFrame
      kind="vent-path"
      head={head}
      plan={ventPath.plan(context, undefined)}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <Choice
        label="At the pump"
        options={[
          ["fills", "It fills"],
          ["clicks-off", "The nozzle clicks off"],
          ["not-tried", "Not tried"],
        ]}
        value={draft.nozzle}
        onChange={(nozzle) => set({ nozzle })}
      />
      <ol className="flex flex-col divide-y divide-line border-y border-line">
        {VENT_PARTS.map((part, i) => {
          const read = parts.find((p) => p.part === part);
          const opening = read && around ? openingOf(read, around) : undefined;
          const free = opening !== undefined && opening >= limit;
          return (
            <li key={part} className="grid items-end gap-3 py-2 sm:grid-cols-[1fr_9rem_11rem_9rem]">
              <strong className="self-center">
                {i + 1} {VENT_PART_NAMES[part]}
              </strong>
              <TextField
                label="Flow, L/min"
                inputMode="decimal"
                aria-label={`Flow through ${VENT_PART_NAMES[part]}, L/min`}
                value={draft.flow[part]}
                onChange={(e) => set({ flow: { ...draft.flow, [part]: e.target.value } })}
              />
              <QuantityField
                label="Back pressure, gauge"
                field="tankPressure"
                example="50"
                unit="Pa"
                units={["Pa", "inH2O", "mbar"]}
                value={draft.back[part]}
                onChange={(v) => set({ back: { ...draft.back, [part]: v } })}
              />
              <p
                className={`self-center text-lg font-bold ${opening === undefined ? "text-muted" : free ? "text-calm" : "text-ember"}`}
              >
                {opening === undefined
                  ? "not tried"
                  : Number.isFinite(opening)
                    ? `${free ? "free" : "blocked"}: ${number(1000 * opening, 1)} mm`
                    : "wide open"}
              </p>
            </li>
          );
        })}
      </ol>
    </CheckFrame>
  );
}
