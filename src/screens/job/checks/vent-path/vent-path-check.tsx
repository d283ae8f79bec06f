"use client";

import type { ReactNode } from "react";
import { openingOf, VENT_PART_NAMES, VENT_PARTS, ventPath } from "@/core/checks/vent-path";
import { ventPathForm } from "@/core/checks/vent-path/fields";
import { parseTrusted } from "@/core/units";
import { DividedList } from "@/ui/divided-list";
import { FormFields, RowFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** The vent path from outside in: each part blown through by itself, the opening it leaves beside it. */
export function VentPathCheck({ head }: { head: ReactNode }) {
  const { number } = usePreferences();
  const check = useCheckForm("vent-path", ventPathForm);
  const { context, value, known } = check;
  const { ambient, temperature } = known;
  const limit = context.limits.ventOpening.value;
  const rows = value<readonly { readonly flow?: string; readonly back?: string }[]>("parts");
  const opening = (i: number) => {
    const part = VENT_PARTS[i];
    const flow = parseTrusted(rows[i]?.flow ?? "", "blownFlow", "L/min");
    const back = parseTrusted(rows[i]?.back ?? "", "tankPressure", "Pa");
    return part && flow && flow.value > 0 && back && ambient && temperature
      ? openingOf({ part, flow, back }, { ambient, temperature })
      : undefined;
  };
  return (
    <CheckFrame check={check} head={head} plan={ventPath.plan(context, undefined)} at="vent-filter">
      <FormFields of={check} names={["nozzle"]} />
      <DividedList as="ol">
        {VENT_PARTS.map((part, i) => {
          const hole = opening(i);
          const free = hole !== undefined && hole >= limit;
          return (
            <li key={part} className="grid items-start gap-3 py-2 sm:grid-cols-[1fr_13rem_13rem_9rem]">
              <strong className="self-center">
                {i + 1} {VENT_PART_NAMES[part]}
              </strong>
              <RowFields of={check} rows="parts" index={i} names={["flow", "back"]} />
              <p
                className={`self-center text-lg font-bold ${hole === undefined ? "text-muted" : free ? "text-calm" : "text-ember"}`}
              >
                {hole === undefined
                  ? "not tried"
                  : Number.isFinite(hole)
                    ? `${free ? "free" : "blocked"}: ${number(1000 * hole, 1)} mm`
                    : "wide open"}
              </p>
            </li>
          );
        })}
      </DividedList>
    </CheckFrame>
  );
}
