"use client";

import { ArrowLeft } from "lucide-react";
import { useState } from "react";
import type { HouseMethods, LimitId, Machine, Shop } from "@/core/shop/settings";
import { DEFAULT_LIMITS } from "@/core/shop/settings";
import { formatQuantity, parseNumber, parseQuantity, type UnitId } from "@/core/units";
import { Button, LinkButton } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote, SelectField, TextField } from "@/ui/field";
import { ThemeSwitch } from "@/ui/theme-switch";
import { sendJson } from "../session/api";
import { PersonButton } from "../session/person";
import { type Preferences, usePreferences } from "../session/preferences";

/** How each limit is typed: shown = SI · scale + offset. */
const LIMIT_FIELDS: Record<LimitId, { name: string; unit: string; scale: number; offset: number }> = {
  trimGood: { name: "Total trim, good within ±", unit: "%", scale: 100, offset: 0 },
  trimAct: { name: "Total trim, act beyond ±", unit: "%", scale: 100, offset: 0 },
  warmCoolant: { name: "Coolant warm enough for trims", unit: "°C", scale: 1, offset: -273.15 },
  steadyRpm: { name: "Steady engine speed, ±", unit: "rpm", scale: 1, offset: 0 },
  steadyMaf: { name: "Steady air flow, ±", unit: "%", scale: 100, offset: 0 },
  steadyTime: { name: "Shortest steady window", unit: "s", scale: 1, offset: 0 },
  machineProof: { name: "Smoke machine proof, share of rating", unit: "%", scale: 100, offset: 0 },
  smokeAutoOff: { name: "Auto-off when a machine states none", unit: "s", scale: 1, offset: 0 },
};

/** The shop: machines, house methods, limits with their source, and this device's units. */
export function ShopScreen({ initial }: { initial: Shop }) {
  const [shop, setShop] = useState(initial);
  const [error, setError] = useState("");
  const [said, setSaid] = useState("");
  const save = async (next: Shop) => {
    setError("");
    setSaid("");
    try {
      setShop(await sendJson<Shop>("PUT", "shop", next));
      setSaid("Saved.");
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-8 p-4 sm:p-6">
      <header className="flex flex-wrap items-center gap-3">
        <LinkButton href="/" look="bare">
          <ArrowLeft aria-hidden size={18} /> Bay board
        </LinkButton>
        <h1 className="mr-auto text-2xl font-bold">Shop</h1>
        <p role="status" className="text-calm">
          {said}
        </p>
        <PersonButton />
        <ThemeSwitch />
      </header>
      {error && <ErrorNote>{error}</ErrorNote>}
      <main className="flex flex-col gap-8">
        <ShopName shop={shop} save={save} />
        <Machines shop={shop} save={save} />
        <House shop={shop} save={save} />
        <LimitList shop={shop} save={save} />
        <Units />
      </main>
    </div>
  );
}

interface PartProps {
  readonly shop: Shop;
  readonly save: (next: Shop) => void;
}

function ShopName({ shop, save }: PartProps) {
  const [name, setName] = useState(shop.name);
  return (
    <form
      className="flex max-w-xl items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        save({ ...shop, name });
      }}
    >
      <div className="grow">
        <TextField label="Name of the shop, as it stands on papers" value={name} onChange={(e) => setName(e.target.value)} />
      </div>
      <Button type="submit">Save</Button>
    </form>
  );
}

const NO_MACHINE = { name: "", rated: "", flow: "", autoOff: "300" };

function Machines({ shop, save }: PartProps) {
  const [draft, setDraft] = useState(NO_MACHINE);
  const [error, setError] = useState("");
  const add = () => {
    const rated = parseQuantity(draft.rated, { dimension: "pressure", unit: "inH2O", kind: "gauge" });
    const flow = parseQuantity(draft.flow, { dimension: "volume-flow", unit: "L/min" });
    if (!rated.ok) return setError(`Rated pressure: ${rated.message}`);
    if (!flow.ok) return setError(`Flow: ${flow.message}`);
    const machine: Machine = {
      id: `m${Date.now().toString(36)}`,
      name: draft.name.trim(),
      ratedPressure: rated.value,
      maxFlow: flow.value,
      autoOff: Number(draft.autoOff),
    };
    setError("");
    setDraft(NO_MACHINE);
    save({ ...shop, machines: [...shop.machines, machine] });
  };
  return (
    <section aria-label="Smoke machines" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Smoke machines</h2>
      <ul className="flex flex-col divide-y divide-line border-y border-line">
        {shop.machines.map((m) => (
          <li key={m.id} className="flex flex-wrap items-center gap-3 py-2">
            <span className="mr-auto">
              <strong>{m.name}</strong>{" "}
              <span className="text-muted">
                {formatQuantity({ ...m.ratedPressure, kind: "gauge" })} · {formatQuantity(m.maxFlow)} with the hose open · stops
                by itself after {m.autoOff} s
              </span>
            </span>
            <Button onClick={() => save({ ...shop, machines: shop.machines.filter((x) => x.id !== m.id) })}>
              Remove {m.name}
            </Button>
          </li>
        ))}
        {shop.machines.length === 0 && (
          <li className="py-3 text-muted">None described yet. Until then a usual machine is assumed, and runs say so.</li>
        )}
      </ul>
      <form
        className="grid items-end gap-3 sm:grid-cols-5"
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        <TextField label="Machine" value={draft.name} onChange={(e) => setDraft({ ...draft, name: e.target.value })} />
        <TextField
          label="Rated pressure, gauge"
          placeholder="13 inH2O"
          value={draft.rated}
          onChange={(e) => setDraft({ ...draft, rated: e.target.value })}
        />
        <TextField
          label="Flow, hose open"
          placeholder="12 L/min"
          value={draft.flow}
          onChange={(e) => setDraft({ ...draft, flow: e.target.value })}
        />
        <TextField
          label="Auto-off, s"
          inputMode="numeric"
          value={draft.autoOff}
          onChange={(e) => setDraft({ ...draft, autoOff: e.target.value })}
        />
        <Button type="submit">Add machine</Button>
      </form>
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}

function House({ shop, save }: PartProps) {
  const set = (change: Partial<HouseMethods>) => save({ ...shop, house: { ...shop.house, ...change } });
  return (
    <section aria-label="House methods" className="flex flex-col gap-4">
      <h2 className="text-xl font-bold">House methods</h2>
      <Choice
        label="Total trim from short- and long-term"
        options={[
          ["product", "Product, (1 + s)(1 + l)"],
          ["sum", "Sum, s + l"],
        ]}
        value={shop.house.totalTrim}
        onChange={(totalTrim) => set({ totalTrim })}
      />
    </section>
  );
}

function LimitList({ shop, save }: PartProps) {
  const shown = (id: LimitId) => {
    const f = LIMIT_FIELDS[id];
    return String(Math.round((shop.limits[id].value * f.scale + f.offset) * 100) / 100);
  };
  const [typed, setTyped] = useState(
    () => Object.fromEntries(Object.keys(LIMIT_FIELDS).map((id) => [id, shown(id as LimitId)])) as Record<LimitId, string>,
  );
  const [error, setError] = useState("");
  const record = () => {
    const limits = { ...shop.limits };
    for (const id of Object.keys(LIMIT_FIELDS) as LimitId[]) {
      const f = LIMIT_FIELDS[id];
      const n = parseNumber(typed[id]);
      if (!n.ok) return setError(`${f.name}: ${n.message}`);
      const value = (n.value - f.offset) / f.scale;
      const isDefault = Math.abs(value - DEFAULT_LIMITS[id].value) < 1e-9;
      limits[id] = { value, source: isDefault ? DEFAULT_LIMITS[id].source : "set by this shop" };
    }
    setError("");
    save({ ...shop, limits });
  };
  return (
    <section aria-label="Limits" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Limits</h2>
      <p className="text-muted">Shop defaults until you set your own. The maker's data goes before any of them.</p>
      <form
        className="grid gap-4 sm:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault();
          record();
        }}
      >
        {(Object.keys(LIMIT_FIELDS) as LimitId[]).map((id) => (
          <TextField
            key={id}
            label={`${LIMIT_FIELDS[id].name} (${LIMIT_FIELDS[id].unit})`}
            inputMode="decimal"
            value={typed[id]}
            onChange={(e) => setTyped({ ...typed, [id]: e.target.value })}
            hint={shop.limits[id].source}
          />
        ))}
        <div className="sm:col-span-2">
          {error && <ErrorNote>{error}</ErrorNote>}
          <Button type="submit">Save the limits</Button>
        </div>
      </form>
    </section>
  );
}

const units = (...ids: UnitId[]) => ids.map((u) => [u, u] as const);

function Units() {
  const { preferences, change } = usePreferences();
  const pick = (key: Exclude<keyof Preferences, "keys">, label: string, options: readonly (readonly [string, string])[]) => (
    <SelectField label={label} options={options} value={preferences[key]} onChange={(e) => change({ [key]: e.target.value })} />
  );
  return (
    <section aria-label="Units on this device" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Units on this device</h2>
      <p className="text-muted">A reading is always shown in the unit it was taken in as well.</p>
      <div className="grid gap-4 sm:grid-cols-5">
        {pick("pressure", "Pressure", units("psi", "kPa", "mbar", "hPa", "inH2O", "bar"))}
        {pick("flow", "Flow", units("L/min", "cc/min", "SCFH"))}
        {pick("length", "Size", units("mm", "in", "thou"))}
        {pick("temperature", "Temperature", units("°C", "°F"))}
        {pick("decimal", "Decimal sign", [
          [".", "Point, 0.4"],
          [",", "Comma, 0,4"],
        ])}
      </div>
    </section>
  );
}
