"use client";

import { type ReactNode, useState } from "react";
import { type BorescopeRecord, borescope, type Port } from "@/core/checks/borescope";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { TextField } from "@/ui/field";
import { usePreferences } from "../../../session/preferences";
import { Pictures } from "../../pictures";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { JointField, useJoints } from "../joint-field";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = {
  joint: "",
  when: "as-found" as BorescopeRecord["when"],
  ports: [] as Port[],
  pictures: [] as string[],
};

/** Ports drawn as the eye sees them: each closed in by what is in it, straight and from the side. */
export function BorescopeCheck({ head }: { head: ReactNode }) {
  const { context, state } = useJob();
  const { draft, set, clear } = useCheckDraft("borescope", EMPTY);
  const joints = useJoints("borescope");
  const best = state.next.find((n) => n.check === "borescope")?.place;
  const joint = draft.joint || best || joints[0]?.id || "";
  usePlace(
    joint,
    (j) => joints.some((x) => x.id === j.id),
    (id) => set({ joint: id }),
  );
  const [name, setName] = useState("");
  if (!context) return null;
  const change = (i: number, next: Partial<Port>) => set({ ports: draft.ports.map((p, k) => (k === i ? { ...p, ...next } : p)) });
  const record: BorescopeRecord | string =
    draft.ports.length === 0
      ? "Add the ports you look into, one by one."
      : { joint, when: draft.when, ports: draft.ports, pictures: draft.pictures };
  const add = () => {
    set({ ports: [...draft.ports, { name: name.trim() || `Port ${draft.ports.length + 1}`, straight: 100 }] });
    setName("");
  };
  return (
    <CheckFrame
      kind="borescope"
      head={head}
      plan={borescope.plan(context, { joint })}
      record={record}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <JointField label="Passage" joints={joints} value={joint} onChange={(id) => set({ joint: id })} />
        <Choice
          label="When"
          options={[
            ["as-found", "As found"],
            ["after-cleaning", "After cleaning"],
          ]}
          value={draft.when}
          onChange={(when) => set({ when })}
        />
      </div>
      <ul className="grid gap-4 sm:grid-cols-2">
        {draft.ports.map((port, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a port keeps its place in the row, names may repeat
          <li key={i} className="flex items-center gap-4 bg-raised p-3">
            <PortPicture port={port} />
            <div className="min-w-0 grow">
              <p className="font-bold">{port.name}</p>
              <Share label={`${port.name}, straight`} value={port.straight} onChange={(straight) => change(i, { straight })} />
              {port.side === undefined ? (
                <Button onClick={() => change(i, { side: port.straight })}>Seen from the side too</Button>
              ) : (
                <Share label={`${port.name}, from the side`} value={port.side} onChange={(side) => change(i, { side })} />
              )}
            </div>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-3">
        <TextField
          label="Next port"
          value={name}
          placeholder={`Port ${draft.ports.length + 1}`}
          onChange={(e) => setName(e.target.value)}
        />
        <Button onClick={add}>Add port</Button>
      </div>
      <Pictures value={draft.pictures} onChange={(pictures) => set({ pictures })} />
    </CheckFrame>
  );
}

function Share({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => void }) {
  const { number } = usePreferences();
  return (
    <label className="block">
      <span className="flex justify-between text-sm text-muted">
        {label} <strong className="text-ink">{number(value, 0)} % open</strong>
      </span>
      <input
        type="range"
        aria-label={label}
        min={0}
        max={100}
        step={5}
        value={value}
        className="h-11 w-full accent-[var(--accent)]"
        onChange={(e) => onChange(Number(e.target.value))}
      />
    </label>
  );
}

/** A port as seen: the dark part is open. */
function PortPicture({ port }: { port: Port }) {
  const open = Math.min(port.straight, port.side ?? port.straight) / 100;
  return (
    <svg viewBox="-30 -30 60 60" className="size-16 shrink-0" aria-hidden>
      <circle r={27} fill="var(--amber)" stroke="var(--edge)" strokeWidth={3} />
      <circle r={27 * Math.sqrt(open)} cx={0} cy={(1 - Math.sqrt(open)) * 8} fill="var(--bg)" />
    </svg>
  );
}
