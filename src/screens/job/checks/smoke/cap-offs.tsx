"use client";
import { EVAP_ZONES } from "@/core/vehicle";

import { Button } from "@/ui/button";
import { Tick } from "@/ui/choice";
import { SelectField, TextField } from "@/ui/field";
import { useJob } from "../../use-job";
import type { SmokeHandle } from "./use-smoke-run";

/** Suspects capped off one by one, on both sides: where the ball falls, there it is; a blank is proved first. */
export function CapOffs({ run }: { run: SmokeHandle }) {
  const { layout } = useJob();
  const { draft, set, units } = run;
  const joints = layout?.joints.filter((j) => EVAP_ZONES.includes(j.from)) ?? [];
  const free = joints.filter((j) => !draft.capOffs.some((c) => c.joint === j.id));
  const change = (i: number, next: Partial<(typeof draft.capOffs)[number]>) =>
    set({ capOffs: draft.capOffs.map((c, k) => (k === i ? { ...c, ...next } : c)) });
  return (
    <section aria-label="Capped off" className="flex flex-col gap-3">
      {draft.capOffs.map((c, i) => (
        <div key={c.joint} className="grid items-end gap-3 border-l-4 border-edge pl-4 sm:grid-cols-4">
          <SelectField
            label="Capped off at"
            options={joints.filter((j) => j.id === c.joint || free.includes(j)).map((j) => [j.id, j.name] as const)}
            value={c.joint}
            onChange={(e) => change(i, { joint: e.target.value })}
          />
          {(
            [
              ["before", "Ball before"],
              ["hoseSide", "Hose side shut"],
              ["portSide", "Port side shut"],
            ] as const
          ).map(([key, label]) => (
            <TextField
              key={key}
              label={`${label}, ${units.flow}`}
              inputMode="decimal"
              value={c[key]}
              onChange={(e) => change(i, { [key]: e.target.value })}
            />
          ))}
          <div className="sm:col-span-3">
            <Tick
              label="The blank was proved: it does not weep by itself"
              checked={c.blankProved}
              onChange={(blankProved) => change(i, { blankProved })}
            />
          </div>
          <Button look="bare" onClick={() => set({ capOffs: draft.capOffs.filter((_, k) => k !== i) })}>
            Remove
          </Button>
        </div>
      ))}
      <div>
        <Button
          disabled={free.length === 0}
          onClick={() =>
            set({
              capOffs: [
                ...draft.capOffs,
                { joint: free[0]?.id ?? "", before: String(draft.flow), hoseSide: "", portSide: "", blankProved: false },
              ],
            })
          }
        >
          Cap a suspect off
        </Button>
      </div>
    </section>
  );
}
