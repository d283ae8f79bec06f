"use client";

import { v4 as uuid } from "uuid";
import { MACHINE_KINDS, type Machine, type MachineKind } from "@/core/shop/settings";
import { parseQuantity } from "@/core/units";
import { SelectField, TextField } from "@/ui/field";

/** A smoke machine as it is typed. */
export interface TypedMachine {
  readonly name: string;
  readonly kind: MachineKind;
  readonly rated: string;
  readonly flow: string;
  readonly division: string;
  readonly autoOff: string;
}
export const NO_MACHINE: TypedMachine = { name: "", kind: "low-pressure", rated: "", flow: "", division: "", autoOff: "300" };
const KINDS = Object.entries(MACHINE_KINDS) as [MachineKind, string][];

/** The machine that was typed, or what is wrong with it. */
export function machineOf(typed: TypedMachine): Machine | string {
  const rated = parseQuantity(typed.rated, { dimension: "pressure", unit: "inH2O", kind: "gauge" });
  const flow = parseQuantity(typed.flow, { dimension: "volume-flow", unit: "L/min" });
  if (!rated.ok) return `Rated pressure: ${rated.message}`;
  if (!flow.ok) return `Flow: ${flow.message}`;
  const division = typed.division.trim()
    ? parseQuantity(typed.division, { dimension: "volume-flow", unit: flow.value.unit })
    : undefined;
  if (division && !division.ok) return `One division of the ball's scale: ${division.message}`;
  return {
    id: uuid(),
    name: typed.name.trim(),
    kind: typed.kind,
    ratedPressure: rated.value,
    maxFlow: flow.value,
    autoOff: Number(typed.autoOff),
    ...(division?.ok ? { division: division.value } : {}),
    service: [],
  };
}

/** What a smoke machine is, as its maker says. */
export function MachineFields({ typed, onChange }: { typed: TypedMachine; onChange: (typed: TypedMachine) => void }) {
  const set = (change: Partial<TypedMachine>) => onChange({ ...typed, ...change });
  return (
    <>
      <TextField label="Machine" value={typed.name} onChange={(e) => set({ name: e.target.value })} />
      <SelectField
        label="Kind"
        options={KINDS}
        value={typed.kind}
        onChange={(e) => set({ kind: e.target.value as MachineKind })}
      />
      <TextField
        label="Rated pressure, gauge"
        placeholder="13 inH2O"
        value={typed.rated}
        onChange={(e) => set({ rated: e.target.value })}
      />
      <TextField
        label="Flow, hose open"
        placeholder="12 L/min"
        value={typed.flow}
        onChange={(e) => set({ flow: e.target.value })}
      />
      {typed.kind !== "plain" && (
        <TextField
          label="Ball division"
          placeholder="0.3 L/min"
          value={typed.division}
          onChange={(e) => set({ division: e.target.value })}
        />
      )}
      <TextField
        label="Auto-off, s"
        inputMode="numeric"
        value={typed.autoOff}
        onChange={(e) => set({ autoOff: e.target.value })}
      />
    </>
  );
}
