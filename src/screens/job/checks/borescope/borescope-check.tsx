"use client";

import { Trash2 } from "lucide-react";
import { type ReactNode, useState } from "react";
import { type BorescopeRecord, borescope, type Port, portKey } from "@/core/checks/borescope";
import { borescopeForm } from "@/core/checks/borescope/fields";
import { fromSi, parseTrusted, toSi } from "@/core/units";
import { Button, IconButton } from "@/ui/button";
import { TextField } from "@/ui/field";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** A port on its way: graded straight and from the side one after the other, neither stands for anything before. */
type PortInHand = Omit<Port, "straight"> & { readonly straight?: number };

const FIRST: readonly PortInHand[] = [{ name: "Port 1" }];

/** Ports drawn as the eye sees them: each closed in by what is in it, straight and from the side. */
export function BorescopeCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("borescope", borescopeForm);
  const { context, value, set } = check;
  const { state } = useJob();
  const joint = value<string | undefined>("joint");
  const [name, setName] = useState("");
  const before = state.checks.findLast((c) => c.check === "borescope" && (c.record as BorescopeRecord).joint === joint);
  const graded = (before?.record as BorescopeRecord | undefined)?.ports ?? [];
  const begun = value<readonly PortInHand[] | undefined>("ports") ?? [];
  // One port is there to be graded; where some were before, they are taken again.
  const ports = begun.length === 0 && graded.length === 0 ? FIRST : begun;
  const change = (i: number, port: PortInHand) => set({ ports: ports.map((p, k) => (k === i ? port : p)) });
  const add = () => {
    set({ ports: [...ports, { name: name.trim() || `Port ${ports.length + 1}` }] });
    setName("");
  };
  const missing = graded.filter((g) => !ports.some((p) => portKey(p.name) === portKey(g.name)));
  return (
    <CheckFrame check={check} head={head} plan={borescope.plan(context, { joint: joint ?? "" })}>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "when"]} />
      </div>
      {missing.length > 0 && (
        <div>
          <Button
            onClick={() =>
              set({ ports: [...ports, ...missing.map(({ name, depth }) => ({ name, ...(depth ? { depth } : {}) }))] })
            }
          >
            The same ports as last time: {missing.map((p) => p.name).join(", ")}
          </Button>
        </div>
      )}
      <ul className="grid gap-4 sm:grid-cols-2">
        {ports.map((port, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a port keeps its place in the row, names may repeat
          <li key={i} className="flex items-start gap-4 bg-raised p-3">
            <PortPicture port={port} />
            <PortFields
              port={port}
              last={graded.find((g) => portKey(g.name) === portKey(port.name))}
              change={(next) => change(i, next)}
              takeOut={() => set({ ports: ports.filter((_, k) => k !== i) })}
            />
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

function PortFields({
  port,
  last,
  change,
  takeOut,
}: {
  port: PortInHand;
  /** As it was when it was looked into last */
  last: Port | undefined;
  change: (port: PortInHand) => void;
  takeOut: () => void;
}) {
  const { number } = usePreferences();
  const [wrong, setWrong] = useState<string>();
  return (
    <div className="flex min-w-0 grow flex-col gap-2">
      <div className="flex items-center justify-between">
        <p className="font-bold">{port.name}</p>
        <IconButton label={`Take ${port.name} out`} onClick={takeOut}>
          <Trash2 aria-hidden size={18} />
        </IconButton>
      </div>
      {last && (
        <p className="text-sm text-muted">
          Last time {number(last.straight, 0)} % straight
          {last.side === undefined ? "" : `, ${number(last.side, 0)} % from the side`}
          {last.depth && `, tool ${number(1000 * toSi(last.depth), 0)} mm in`}
        </p>
      )}
      <Share label={`${port.name}, straight`} value={port.straight} onChange={(straight) => change({ ...port, straight })} />
      <Share label={`${port.name}, from the side`} value={port.side} onChange={(side) => change({ ...port, side })} />
      <TextField
        label={`${port.name}, tool in, mm`}
        inputMode="decimal"
        defaultValue={port.depth ? String(fromSi(toSi(port.depth), "mm").value) : ""}
        error={wrong}
        onBlur={(e) => {
          const typed = e.target.value.trim();
          const depth = parseTrusted(typed, "toolDepth", "mm");
          setWrong(typed && !depth ? `"${typed}" is no depth: a number of mm, as 182` : undefined);
          const { depth: _, ...rest } = port;
          change({ ...rest, ...(depth ? { depth } : {}) });
        }}
      />
    </div>
  );
}

/** Where the hand begins: no grade yet. */
const BEGINS = 50;

function Share({ label, value, onChange }: { label: string; value: number | undefined; onChange: (value: number) => void }) {
  const { number } = usePreferences();
  return (
    <label className="block">
      <span className="flex justify-between text-sm text-muted">
        {label}{" "}
        {value === undefined ? <span>not graded yet</span> : <strong className="text-ink">{number(value, 0)} % open</strong>}
      </span>
      <input
        type="range"
        aria-label={label}
        aria-valuetext={value === undefined ? "not graded yet" : `${number(value, 0)} % open`}
        min={0}
        max={100}
        step={5}
        value={value ?? BEGINS}
        className={`h-11 w-full accent-[var(--accent)] ${value === undefined ? "opacity-50" : ""}`}
        onChange={(e) => onChange(Number(e.target.value))}
        // Left where it begins, it is a grade too once the hand was on it.
        onPointerUp={(e) => onChange(Number(e.currentTarget.value))}
      />
    </label>
  );
}

/** A port as seen: the dark part is open. */
function PortPicture({ port: { straight, side } }: { port: PortInHand }) {
  const seen = [straight, side].filter((share) => share !== undefined);
  if (seen.length === 0)
    return (
      <svg viewBox="-30 -30 60 60" className="size-16 shrink-0" aria-hidden>
        <circle r={27} fill="none" stroke="var(--edge)" strokeWidth={3} strokeDasharray="6 6" />
      </svg>
    );
  const open = Math.min(...seen) / 100;
  return (
    <svg viewBox="-30 -30 60 60" className="size-16 shrink-0" aria-hidden>
      <circle r={27} fill="var(--amber)" stroke="var(--edge)" strokeWidth={3} />
      <circle r={27 * Math.sqrt(open)} cx={0} cy={(1 - Math.sqrt(open)) * 8} fill="var(--bg)" />
    </svg>
  );
}
