"use client";

import { Trash2 } from "lucide-react";
import { useState } from "react";
import { codeText, isVapourLeak } from "@/core/faults";
import type { CodeRead, CodeStatus } from "@/core/journal";
import type { Quantity } from "@/core/units";
import { parseTrusted } from "@/core/units";
import { Button, IconButton } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { typedQuantity } from "../fields";
import { StationFrame } from "../station-frame";
import { useForm } from "../use-form";
import { useJob } from "../use-job";
import { ObdImport } from "./obd-import";

const STATUSES: readonly (readonly [CodeStatus, string])[] = [
  ["current", "Current"],
  ["pending", "Pending"],
  ["stored", "Stored"],
  ["permanent", "Permanent"],
  ["history", "History"],
];

/** The leak a code's criteria name, typed with its unit. */
function LeakField({
  code,
  value,
  onChange,
}: {
  code: string;
  value: Quantity | undefined;
  onChange: (leak: Quantity | undefined) => void;
}) {
  const [typed, setTyped] = useState(typedQuantity(value));
  return (
    <QuantityField
      label={`${code}: leak its criteria name`}
      field="hole"
      example="0.5"
      unit="mm"
      units={["mm", "in", "thou"]}
      value={typed}
      onChange={(text) => {
        setTyped(text);
        onChange(parseTrusted(text, "hole", "mm"));
      }}
    />
  );
}

/** Every code of every module, with its freeze frame; unrelated ones set aside with a reason. */
export function ScanStation() {
  const { state } = useJob();
  const form = useForm("scan", {
    codes: [...state.codes] as CodeRead[],
    code: "",
    status: "current" as CodeStatus,
    freezeFrame: "",
  });
  const { draft, set } = form;
  const add = () => {
    const code = draft.code.trim().toUpperCase();
    if (!/^[A-Z0-9-]{2,12}$/.test(code)) return form.setError("A code is 2 to 12 letters and digits, like P0171");
    form.setError(undefined);
    const read: CodeRead = {
      code,
      status: draft.status,
      ...(draft.freezeFrame.trim() ? { freezeFrame: draft.freezeFrame.trim() } : {}),
    };
    set({ codes: [...draft.codes.filter((c) => c.code !== code), read], code: "", freezeFrame: "" });
  };
  const aside = (code: string, reason: string) =>
    set({
      codes: draft.codes.map((c) => {
        if (c.code !== code) return c;
        const { asideReason: _, ...rest } = c;
        return reason ? { ...rest, asideReason: reason } : rest;
      }),
    });
  const criteria = (code: string, change: { text?: string; leak?: Quantity | undefined }) =>
    set({
      codes: draft.codes.map((c) => {
        if (c.code !== code) return c;
        const { criteria: before, ...rest } = c;
        const { text, leak } = { ...before, ...change };
        return text || leak ? { ...rest, criteria: { ...(text ? { text } : {}), ...(leak ? { leak } : {}) } } : rest;
      }),
    });
  const changed = JSON.stringify(draft.codes) !== JSON.stringify(state.codes) || !state.codesRead;
  return (
    <StationFrame title="Scan" lead="Read every module. Set unrelated codes aside with a reason; do not chase them.">
      <form
        className="grid items-end gap-4 sm:grid-cols-[10rem_1fr_auto]"
        onSubmit={(e) => {
          e.preventDefault();
          add();
        }}
      >
        <TextField
          label="Code"
          className="font-mono uppercase"
          value={draft.code}
          onChange={(e) => set({ code: e.target.value })}
          placeholder="P0171"
        />
        <TextField
          label="Freeze frame (optional)"
          value={draft.freezeFrame}
          onChange={(e) => set({ freezeFrame: e.target.value })}
          placeholder="720 rpm, 92 °C, load 24 %"
        />
        <Button type="submit">Add code</Button>
        <div className="sm:col-span-3">
          <Choice label="Status" options={STATUSES} value={draft.status} onChange={(status) => set({ status })} />
        </div>
      </form>
      {draft.codes.length > 0 && (
        <ul className="flex flex-col divide-y divide-line border-y border-line">
          {draft.codes.map((c) => (
            <li key={c.code} className="grid items-center gap-x-4 gap-y-1 py-2 sm:grid-cols-[6rem_1fr_16rem_auto]">
              <span className={`font-mono text-xl font-bold ${c.asideReason ? "text-muted" : ""}`}>{c.code}</span>
              <span>
                {codeText(c.code)?.text ?? "Not in our list: look up the maker's text"}
                <span className="block text-sm text-muted">
                  {c.status}
                  {c.freezeFrame ? ` · ${c.freezeFrame}` : ""}
                </span>
              </span>
              <TextField
                label={`Set ${c.code} aside because`}
                value={c.asideReason ?? ""}
                onChange={(e) => aside(c.code, e.target.value)}
                placeholder="chase it"
              />
              {isVapourLeak(c.code) && (
                <div className="grid gap-3 sm:order-last sm:col-span-4 sm:grid-cols-2">
                  <LeakField code={c.code} value={c.criteria?.leak} onChange={(leak) => criteria(c.code, { leak })} />
                  <TextField
                    label={`${c.code}: what the ECU tests, when, and what it calls a fail`}
                    value={c.criteria?.text ?? ""}
                    onChange={(e) => criteria(c.code, { text: e.target.value })}
                    placeholder="cold start, 15 to 85 % fuel, vacuum lost within 10 s"
                  />
                </div>
              )}
              <IconButton label={`Remove ${c.code}`} onClick={() => set({ codes: draft.codes.filter((x) => x.code !== c.code) })}>
                <Trash2 aria-hidden size={18} />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <ObdImport
        onCodes={(found) => set({ codes: [...draft.codes, ...found.filter((f) => !draft.codes.some((c) => c.code === f.code))] })}
      />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-3">
        <Button
          look="primary"
          disabled={form.busy || !changed}
          onClick={() => void form.record({ kind: "codes", body: { codes: draft.codes } })}
        >
          {draft.codes.length === 0 ? "Record: no codes" : "Record the codes"}
        </Button>
        {!changed && <p className="text-muted">Recorded.</p>}
      </div>
    </StationFrame>
  );
}
