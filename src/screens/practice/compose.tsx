"use client";

import { useEffect, useState } from "react";
import { type Family, SYMPTOMS } from "@/core/faults";
import { CODE_FAMILIES, CODE_SYMPTOMS } from "@/core/practice/code";
import { formatQuantity } from "@/core/units";
import { type VehicleRecord, vehicleFacts, vehicleName } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Chips } from "@/ui/choice";
import { SelectField } from "@/ui/field";
import { bayWorker } from "./bay-worker";
import { FAMILY_NAMES } from "./family-words";

const FAMILIES = CODE_FAMILIES.map((id) => [id, FAMILY_NAMES[id]] as const);
const SIZES = [
  ["1", "Hardly shows"],
  ["4", "As usual"],
  ["7", "Plain"],
] as const;
const NONE = "";

/** Puts a case together for somebody else: the car, its faults, what its owner tells; a code comes of it. */
export function Compose() {
  const [open, setOpen] = useState(false);
  const [family, setFamily] = useState<Family>("engine");
  const [vehicle, setVehicle] = useState(0);
  const [faults, setFaults] = useState<readonly [string, string]>(["0", NONE]);
  const [size, setSize] = useState("4");
  const [symptoms, setSymptoms] = useState<readonly string[]>([]);
  const [misleads, setMisleads] = useState(false);
  const [car, setCar] = useState<{ readonly facts: VehicleRecord; readonly causes: readonly string[] }>();
  const [code, setCode] = useState<string>();
  useEffect(() => {
    if (!open) return;
    let left = false;
    void bayWorker()
      .compose(family, vehicle)
      .then((answer) => {
        if (!left) setCar(answer);
      });
    return () => {
      left = true;
    };
  }, [open, family, vehicle]);
  const change = (run: () => void) => {
    run();
    setCode(undefined);
  };
  const make = async () => {
    const chosen = faults.filter((f) => f !== NONE).map((f) => ({ cause: Number(f), size: Number(size) / 7 }));
    const bits = CODE_SYMPTOMS.reduce((sum, id, i) => (symptoms.includes(id) ? sum + 2 ** i : sum), 0);
    setCode(await bayWorker().code({ family, vehicle, faults: chosen, symptoms: bits, misleads }));
  };
  const causes = car?.causes.map((name, i) => [String(i), name] as const) ?? [];
  return (
    <section aria-label="Compose a case" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="text-lg font-bold">Set a case for somebody</h2>
        <Button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Close" : "Compose a case"}
        </Button>
      </div>
      {open && (
        <div className="flex flex-col gap-3 border-l-4 border-edge pl-4">
          <div className="grid items-end gap-3 sm:grid-cols-2">
            <SelectField
              label="Family"
              options={FAMILIES}
              value={family}
              onChange={(e) =>
                change(() => {
                  setFamily(e.target.value as Family);
                  setFaults(["0", NONE]);
                })
              }
            />
            <div className="flex flex-wrap items-center gap-3">
              <p>
                {car && (
                  <>
                    {vehicleName(vehicleFacts(car.facts))}
                    <span className="text-muted">
                      , {car.facts.fuel}, {formatQuantity(car.facts.displacement)}
                    </span>
                  </>
                )}
              </p>
              <Button
                onClick={() =>
                  change(() => {
                    setVehicle((vehicle + 1) % 256);
                    setFaults(["0", NONE]);
                  })
                }
              >
                Another car
              </Button>
            </div>
            <SelectField
              label="What is wrong"
              options={causes}
              value={faults[0]}
              onChange={(e) => change(() => setFaults([e.target.value, faults[1]]))}
            />
            <SelectField
              label="And besides"
              options={[[NONE, "Nothing more"], ...causes.filter(([id]) => id !== faults[0])]}
              value={faults[1]}
              onChange={(e) => change(() => setFaults([faults[0], e.target.value]))}
            />
            <SelectField label="How bad" options={SIZES} value={size} onChange={(e) => change(() => setSize(e.target.value))} />
            <SelectField
              label="Something that misleads"
              options={[
                ["no", "Nothing"],
                ["yes", "A stray code, and a part changed before"],
              ]}
              value={misleads ? "yes" : "no"}
              onChange={(e) => change(() => setMisleads(e.target.value === "yes"))}
            />
          </div>
          <Chips
            label="What its owner tells"
            options={SYMPTOMS}
            value={symptoms}
            onChange={(next) => change(() => setSymptoms(next))}
          />
          <div className="flex flex-wrap items-center gap-4">
            <Button look="primary" disabled={!car} onClick={() => void make()}>
              Get the code
            </Button>
            {code && (
              <p role="status">
                Give them this code: <strong className="font-mono text-xl">{code}</strong>
              </p>
            )}
          </div>
        </div>
      )}
    </section>
  );
}
