"use client";

import { useState } from "react";
import { BadInput } from "@/core/input";
import { inSentence } from "@/core/sentence";
import {
  type Calibration,
  calibrationPoints,
  MACHINE_KINDS,
  type Machine,
  type Proof,
  proofDrift,
  SERVICE_KINDS,
  type ServiceKind,
} from "@/core/shop/settings";
import { formatQuantity, parseQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, TextArea, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { usePreferences } from "../session/preferences";
import { CalibrationChart } from "./calibration-chart";
import { MachineFields, machineOf, NO_MACHINE } from "./machine-fields";
import type { ShopPartProps } from "./part";

/** Smoke machines: what their makers say, their own calibration, their service, and how their proofs went. */
export function Machines({
  shop,
  save,
  proofs,
}: ShopPartProps & { readonly proofs: Readonly<Record<string, readonly Proof[]>> }) {
  const [draft, setDraft] = useState(NO_MACHINE);
  const [error, setError] = useState("");
  const add = async () => {
    const machine = machineOf(draft);
    if (typeof machine === "string") return setError(machine);
    setError("");
    if (await save({ ...shop, machines: [...shop.machines, machine] })) setDraft(NO_MACHINE);
  };
  const change = (machine: Machine) => save({ ...shop, machines: shop.machines.map((m) => (m.id === machine.id ? machine : m)) });
  return (
    <section aria-label="Smoke machines" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Smoke machines</h2>
      <DividedList>
        {shop.machines.map((m) => (
          <MachineRow
            key={m.id}
            machine={m}
            proofs={proofs[m.name] ?? []}
            change={change}
            remove={() => void save({ ...shop, machines: shop.machines.filter((x) => x.id !== m.id) })}
          />
        ))}
        {shop.machines.length === 0 && (
          <li className="py-3 text-muted">None described yet. Until then a usual machine is assumed, and runs say so.</li>
        )}
      </DividedList>
      <Form className="grid items-end gap-3 sm:grid-cols-2 lg:grid-cols-4" onSubmit={() => void add()}>
        <MachineFields typed={draft} onChange={setDraft} />
        <Button type="submit">Add machine</Button>
      </Form>
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}

function MachineRow({
  machine,
  proofs,
  change,
  remove,
}: {
  machine: Machine;
  proofs: readonly Proof[];
  change: (machine: Machine) => Promise<boolean>;
  remove: () => void;
}) {
  const { number } = usePreferences();
  const drift = proofDrift(proofs);
  const [open, setOpen] = useState<"calibration" | "service">();
  return (
    <li className="flex flex-col gap-3 py-3">
      <div className="flex flex-wrap items-center gap-3">
        <span className="mr-auto">
          <strong>{machine.name}</strong>{" "}
          <span className="text-muted">
            {inSentence(MACHINE_KINDS[machine.kind])} · {formatQuantity({ ...machine.ratedPressure, kind: "gauge" })} ·{" "}
            {formatQuantity(machine.maxFlow)} with the hose open
            {machine.division && `, read to ${formatQuantity(machine.division)}`} · stops by itself after {machine.autoOff} s
          </span>
        </span>
        <Button
          onClick={() => setOpen(open === "calibration" ? undefined : "calibration")}
          aria-expanded={open === "calibration"}
        >
          Calibrate {machine.name}
        </Button>
        <Button onClick={() => setOpen(open === "service" ? undefined : "service")} aria-expanded={open === "service"}>
          Service of {machine.name}
        </Button>
        <Button onClick={remove}>Remove {machine.name}</Button>
      </div>
      {drift && (
        <Note role="status" tone="amber" as="p">
          <strong className="text-amber">Its proof drifts:</strong> down by {number(100 * drift.fall, 0)} % of its rated pressure
          over the last {proofs.length} proofs, {number(100 * drift.last, 0)} % at the last one. Look at fluid, filter and hose
          before it fails a run.
        </Note>
      )}
      {machine.calibration && <CalibrationChart calibration={machine.calibration} unit={machine.maxFlow.unit} />}
      {open === "calibration" && (
        <CalibrationForm
          machine={machine}
          onSave={async (calibration) => {
            if (await change({ ...machine, calibration })) setOpen(undefined);
          }}
        />
      )}
      {open === "service" && <ServiceLog machine={machine} proofs={proofs} change={change} />}
    </li>
  );
}

const today = () => new Date().toISOString().slice(0, 10);

/** Ball heights with known holes on the hose, one a line: "0.020 in 3.1". */
function CalibrationForm({ machine, onSave }: { machine: Machine; onSave: (calibration: Calibration) => Promise<void> }) {
  const known = machine.calibration;
  const [pressure, setPressure] = useState(formatQuantity(known?.pressure ?? machine.ratedPressure).replace(/ gauge$/, ""));
  const [lines, setLines] = useState(
    known ? known.points.map((p) => `${p.diameter.value} ${p.diameter.unit} ${p.height}`).join("\n") : "",
  );
  const [error, setError] = useState("");
  const record = () => {
    const at = parseQuantity(pressure, { dimension: "pressure", unit: machine.ratedPressure.unit, kind: "gauge" });
    if (!at.ok) return setError(`Pressure: ${at.message}`);
    try {
      const points = calibrationPoints(lines);
      setError("");
      void onSave({ on: today(), pressure: at.value, points });
    } catch (e) {
      if (!(e instanceof BadInput)) throw e;
      setError(e.message);
    }
  };
  return (
    <Form className="grid max-w-xl gap-3" onSubmit={() => record()}>
      <TextField
        label="Pressure while the holes were open, gauge"
        value={pressure}
        onChange={(e) => setPressure(e.target.value)}
      />
      <TextArea
        label="Reference hole and ball height, one a line"
        placeholder={"0.010 in 0.9\n0.020 in 3.1\n0.040 in 9.6"}
        value={lines}
        onChange={(e) => setLines(e.target.value)}
      />
      {error && <ErrorNote>{error}</ErrorNote>}
      <div>
        <Button type="submit">Save the calibration</Button>
      </div>
    </Form>
  );
}

function ServiceLog({
  machine,
  proofs,
  change,
}: {
  machine: Machine;
  proofs: readonly Proof[];
  change: (machine: Machine) => Promise<boolean>;
}) {
  const { number } = usePreferences();
  const [what, setWhat] = useState<ServiceKind>("fluid");
  const [note, setNote] = useState("");
  return (
    <div className="flex flex-col gap-3">
      <ul className="flex flex-col">
        {machine.service.toReversed().map((s) => (
          <li key={`${s.on} ${s.what} ${s.note}`} className="py-1">
            <span className="text-muted">{s.on}</span> {SERVICE_KINDS[s.what]}
            {s.note && `: ${s.note}`}
          </li>
        ))}
        {machine.service.length === 0 && <li className="text-muted">Nothing written down yet.</li>}
      </ul>
      {proofs.length > 0 && (
        <p className="text-muted">
          Proofs so far, of rated pressure:{" "}
          {proofs
            .slice(-10)
            .map((p) => `${number(100 * p.share, 0)} %`)
            .join(", ")}
          .
        </p>
      )}
      <Form
        className="flex flex-wrap items-end gap-3"
        onSubmit={() => {
          void change({ ...machine, service: [...machine.service, { on: today(), what, note: note.trim() }] }).then(
            (saved) => saved && setNote(""),
          );
        }}
      >
        <Choice
          label="What was done"
          options={Object.entries(SERVICE_KINDS) as [ServiceKind, string][]}
          value={what}
          onChange={setWhat}
        />
        <TextField label="Note" value={note} onChange={(e) => setNote(e.target.value)} />
        <Button type="submit">Add to the log of {machine.name}</Button>
      </Form>
    </div>
  );
}
