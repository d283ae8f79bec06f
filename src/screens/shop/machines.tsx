"use client";

import { useMemo, useState } from "react";
import { inSentence } from "@/core/sentence";
import {
  type Calibration,
  calibrationForm,
  MACHINE_KINDS,
  type Machine,
  machineForm,
  type Proof,
  proofDrift,
  SERVICE_KINDS,
  serviceForm,
} from "@/core/shop/settings";
import { formatQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { FormFields } from "../form/form-field";
import { usePreferences } from "../session/preferences";
import { CalibrationChart } from "./calibration-chart";
import { MACHINE_FIELDS } from "./machine-fields";
import type { ShopPartProps } from "./part";
import { useShopForm } from "./use-shop-form";

/** Smoke machines: what their makers say, their own calibration, their service, and how their proofs went. */
export function Machines({
  shop,
  save,
  proofs,
}: ShopPartProps & { readonly proofs: Readonly<Record<string, readonly Proof[]>> }) {
  const form = useShopForm(machineForm, "machine", undefined);
  const add = () => form.submit((machine) => save({ ...shop, machines: [...shop.machines, machine] }));
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
      <Form className="grid items-start gap-3 sm:grid-cols-2 lg:grid-cols-4" onSubmit={() => void add()}>
        <FormFields of={form} names={MACHINE_FIELDS} />
        <Button type="submit" className="sm:mt-6">
          Add machine
        </Button>
      </Form>
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
            const saved = await change({ ...machine, calibration });
            if (saved) setOpen(undefined);
            return saved;
          }}
        />
      )}
      {open === "service" && <ServiceLog machine={machine} proofs={proofs} change={change} />}
    </li>
  );
}

/** Ball heights with known holes on the hose. */
function CalibrationForm({ machine, onSave }: { machine: Machine; onSave: (calibration: Calibration) => Promise<boolean> }) {
  const known = useMemo(() => ({ machine }), [machine]);
  const form = useShopForm(calibrationForm, `calibration.${machine.id}`, known);
  return (
    <Form className="grid max-w-xl gap-3" onSubmit={() => void form.submit(onSave)}>
      <FormFields of={form} names={["pressure", "points"]} />
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
  const form = useShopForm(serviceForm, `service.${machine.id}`, undefined);
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
        className="flex flex-wrap items-start gap-3"
        onSubmit={() => void form.submit((done) => change({ ...machine, service: [...machine.service, done] }))}
      >
        <FormFields of={form} names={["what", "note"]} />
        <Button type="submit" className="sm:mt-6">
          Add to the log of {machine.name}
        </Button>
      </Form>
    </div>
  );
}
