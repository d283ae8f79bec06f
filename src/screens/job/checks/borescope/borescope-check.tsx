"use client";

import { type ReactNode, useState } from "react";
import { borescope, type Port } from "@/core/checks/borescope";
import { borescopeForm } from "@/core/checks/borescope/form";
import { fromSi, parseTrusted, toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { TextField } from "@/ui/field";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** Ports drawn as the eye sees them: each closed in by what is in it, straight and from the side. */
export function BorescopeCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("borescope", borescopeForm);
  const { context, holds, set } = check;
  const ports = holds<readonly Port[] | undefined>("ports") ?? [];
  const [name, setName] = useState("");
  const change = (i: number, next: Partial<Port>) => set({ ports: ports.map((p, k) => (k === i ? { ...p, ...next } : p)) });
  const add = () => {
    set({ ports: [...ports, { name: name.trim() || `Port ${ports.length + 1}`, straight: 100 }] });
    setName("");
  };
  return (
    <CheckFrame check={check} head={head} plan={borescope.plan(context, { joint: holds("joint") })}>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "when"]} />
      </div>
      <ul className="grid gap-4 sm:grid-cols-2">
        {ports.map((port, i) => (
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
              <TextField
                label={`${port.name}, tool in, mm`}
                inputMode="decimal"
                defaultValue={port.depth ? String(fromSi(toSi(port.depth), "mm").value) : ""}
                onBlur={(e) => {
                  const depth = parseTrusted(e.target.value, "toolDepth", "mm");
                  const { depth: _, ...rest } = port;
                  set({ ports: ports.map((p, k) => (k === i ? { ...rest, ...(depth ? { depth } : {}) } : p)) });
                }}
              />
            </div>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-3">
        <TextField
          label="Next port"
          value={name}
          placeholder={`Port ${ports.length + 1}`}
          onChange={(e) => setName(e.target.value)}
        />
        <Button onClick={add}>Add port</Button>
      </div>
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
