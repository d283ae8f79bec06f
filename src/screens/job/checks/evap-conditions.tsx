"use client";

import type { VentShut } from "@/core/checks/evap-fields";
import { Choice } from "@/ui/choice";
import { TextField } from "@/ui/field";
import { usePreferences } from "../../session/preferences";
import { useJob } from "../use-job";
import { MustBeCaught } from "./must-be-caught";

/** What every check under pressure or vacuum is held against: the leak to be caught, fuel level, how the vent is shut. */
export function EvapConditions({
  vent,
  onVent,
  fuelLevel,
  onFuelLevel,
  holds,
  onHolds,
}: {
  vent: VentShut["by"];
  onVent: (by: VentShut["by"]) => void;
  fuelLevel: string;
  onFuelLevel: (typed: string) => void;
  /** s that the tool holds its vent command, as typed; left out where re-arming is followed by a clock */
  holds?: string;
  onHolds?: (typed: string) => void;
}) {
  const { context } = useJob();
  const { number } = usePreferences();
  if (!context) return null;
  const { evapFuelLow: low, evapFuelHigh: high } = context.limits;
  return (
    <div className="flex flex-col gap-3">
      <MustBeCaught />
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <Choice
          label="Vent kept shut by"
          options={[
            ["command", "Scan-tool command"],
            ["plug", "A plug by hand"],
          ]}
          value={vent}
          onChange={onVent}
        />
        <TextField
          label="Fuel level, % of the tank"
          inputMode="decimal"
          placeholder="e.g. 45"
          value={fuelLevel}
          onChange={(e) => onFuelLevel(e.target.value)}
          hint={`Counts between ${number(100 * low.value, 0)} and ${number(100 * high.value, 0)} % (${low.source})`}
        />
        {vent === "command" && onHolds && (
          <TextField
            label="The tool holds its vent command for, s"
            inputMode="decimal"
            placeholder={String(context.limits.outputTime.value)}
            value={holds ?? ""}
            onChange={(e) => onHolds(e.target.value)}
            hint="Re-armed in time counts as held"
          />
        )}
      </div>
    </div>
  );
}
