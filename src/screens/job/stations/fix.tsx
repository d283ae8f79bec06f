"use client";

import { v4 as uuid } from "uuid";
import type { Permanence } from "@/core/journal";
import { findingPlaces } from "@/core/suspects";
import { parseQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice, Tick } from "@/ui/choice";
import { ErrorNote, SelectField, TextArea, TextField } from "@/ui/field";
import { usePreferences } from "../../session/preferences";
import { Pictures, Thumbnails } from "../pictures";
import { StationFrame } from "../station-frame";
import { useForm } from "../use-form";
import { useJob } from "../use-job";
import { TeardownKit } from "./teardown-kit";

const PERMANENCE: readonly (readonly [Permanence, string])[] = [
  ["permanent", "Permanent"],
  ["temporary", "Temporary"],
  ["bypass", "Diagnostic bypass"],
];

const lines = (text: string) =>
  text
    .split("\n")
    .map((l) => l.trim())
    .filter(Boolean);

/** What is cleaned, freed or put back in is not new. */
const CLEANED = /\b(clean|refit|freed?\b|re-?seat)/i;

/** The repair: what, how lasting, with what parts, time and go-ahead; and what else was changed on the way. */
export function FixStation() {
  const { state, context, append } = useJob();
  const { format } = usePreferences();
  const open = state.findings.filter((f) => !f.repairedBy);
  const form = useForm("repair", {
    finding: "",
    what: "",
    permanence: "permanent" as Permanence,
    recheck: "",
    labour: "",
    parts: "",
    goAhead: false,
    otherChanges: "",
    displaced: "",
    torques: "",
    fasteners: "",
    pictures: [] as string[],
  });
  const { draft, set } = form;
  const places = context ? findingPlaces(context.layout, context.vehicle) : [];
  const name = (joint: string) => places.find((p) => p.id === joint)?.name ?? "Another place";
  const finding = draft.finding || open[0]?.entry || "";
  const record = () => {
    const parts = lines(draft.parts).map((line) => {
      const m = /^(\d+)\s*[×x*]?\s+(.*)$/.exec(line);
      return m ? { count: Number(m[1]), name: m[2] as string } : { count: 1, name: line };
    });
    const torques = [];
    for (const line of lines(draft.torques)) {
      const m = /^(.*?)[\s:]+([\d.,]+\s*\S+)$/.exec(line);
      const torque = m && parseQuantity(m[2] as string, { dimension: "torque", unit: "N·m" });
      if (!m || !torque?.ok) return form.setError(`"${line}": write the fastener, then its torque, like manifold nuts 20 N·m`);
      torques.push({ where: m[1] as string, torque: torque.value });
    }
    const labour = draft.labour.trim() === "" ? 0 : Number(draft.labour.replace(",", "."));
    if (!Number.isFinite(labour)) return form.setError("Labour is a number of minutes, like 45");
    const id = uuid();
    void form.record(...lines(draft.displaced).map((what) => ({ kind: "displaced" as const, body: { what } })), {
      id,
      kind: "repair",
      body: {
        ...(finding ? { finding } : {}),
        what: draft.what.trim(),
        permanence: draft.permanence,
        ...(draft.recheck ? { recheck: draft.recheck } : {}),
        labourMinutes: labour,
        parts,
        ...(draft.goAhead ? { goAhead: "The customer agreed" } : {}),
        otherChanges: lines(draft.otherChanges),
        ...(torques.length > 0 ? { torques } : {}),
        ...(draft.fasteners.trim() ? { fasteners: draft.fasteners.trim() } : {}),
        ...(draft.pictures.length > 0 ? { pictures: draft.pictures } : {}),
      },
    });
  };
  return (
    <StationFrame
      title="Fix"
      lead="Compare the new part with the old one. Look at neighbour hoses of the same age while they can be reached."
    >
      {state.repairs.length > 0 && (
        <ul className="flex flex-col divide-y divide-line border-y border-line">
          {state.repairs.map((r) => (
            <li
              key={r.entry}
              className={`flex flex-wrap items-center gap-x-4 gap-y-1 py-3 ${r.undone ? "text-muted line-through" : ""}`}
            >
              <div className="mr-auto">
                <p className="font-bold">{r.body.what}</p>
                <p className="text-muted">
                  {PERMANENCE.find(([p]) => p === r.body.permanence)?.[1]}
                  {r.body.recheck ? `, re-check on ${r.body.recheck}` : ""} · {r.body.labourMinutes} min
                  {r.body.parts.length > 0 ? ` · ${r.body.parts.map((p) => `${p.count} × ${p.name}`).join(", ")}` : ""}
                  {r.body.goAhead ? " · customer agreed" : ""}
                  {r.body.otherChanges.length > 0 ? ` · also changed: ${r.body.otherChanges.join(", ")}` : ""}
                  {r.body.torques ? ` · ${r.body.torques.map((t) => `${t.where} ${format(t.torque)}`).join(", ")}` : ""}
                  {r.body.fasteners ? ` · ${r.body.fasteners}` : ""}
                </p>
                <Thumbnails pictures={r.body.pictures ?? []} />
              </div>
              {r.body.permanence === "bypass" && !r.undone && (
                <Button onClick={() => void append({ kind: "undone", body: { repair: r.entry } })}>Undone</Button>
              )}
            </li>
          ))}
        </ul>
      )}
      <TeardownKit place={state.findings.find((f) => f.entry === finding)?.body.joint} />
      <form
        className="grid max-w-3xl gap-4 sm:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault();
          record();
        }}
      >
        <div className="sm:col-span-2">
          <SelectField
            label="Repairs which finding"
            options={[
              ...open.map((f) => [f.entry, `${name(f.body.joint)}: ${f.body.what}`] as const),
              ["", "No finding recorded"] as const,
            ]}
            value={finding}
            onChange={(e) => set({ finding: e.target.value })}
          />
        </div>
        <div className="sm:col-span-2">
          <TextArea
            label="What was done"
            value={draft.what}
            onChange={(e) => set({ what: e.target.value })}
            placeholder="Manifold gasket renewed, bolts in sequence"
          />
        </div>
        <Choice
          label="How lasting"
          options={PERMANENCE}
          value={draft.permanence}
          onChange={(permanence) => set({ permanence })}
        />
        {draft.permanence === "permanent" && CLEANED.test(draft.what) && (
          <p className="text-amber">A part that was cleaned or refitted is a temporary repair: give it a re-check date.</p>
        )}
        {draft.permanence === "temporary" && (
          <TextField type="date" label="Re-check on" value={draft.recheck} onChange={(e) => set({ recheck: e.target.value })} />
        )}
        <TextField
          label="Labour, minutes"
          inputMode="numeric"
          value={draft.labour}
          onChange={(e) => set({ labour: e.target.value })}
        />
        <TextArea
          label="Parts, one a line"
          value={draft.parts}
          onChange={(e) => set({ parts: e.target.value })}
          placeholder={"1 manifold gasket\n6 bolts"}
        />
        <TextArea
          label="Also changed along the way, one a line"
          value={draft.otherChanges}
          onChange={(e) => set({ otherChanges: e.target.value })}
          placeholder="air filter renewed"
        />
        <TextArea
          label="Taken off and not yet back, one a line"
          value={draft.displaced}
          onChange={(e) => set({ displaced: e.target.value })}
          placeholder="engine cover"
        />
        <TextArea
          label="Torques, one a line"
          value={draft.torques}
          onChange={(e) => set({ torques: e.target.value })}
          placeholder={"manifold nuts 20 N·m\nthrottle body 9 N·m"}
        />
        <TextArea
          label="Fasteners: clamps moved over, seals oiled, latches tugged, bolts renewed"
          value={draft.fasteners}
          onChange={(e) => set({ fasteners: e.target.value })}
        />
        <div className="sm:col-span-2">
          <Pictures value={draft.pictures} onChange={(pictures) => set({ pictures })} />
        </div>
        <Tick label="The customer gave the go-ahead" checked={draft.goAhead} onChange={(goAhead) => set({ goAhead })} />
        {form.error && <ErrorNote>{form.error}</ErrorNote>}
        <div className="sm:col-span-2">
          <Button type="submit" look="primary" disabled={form.busy}>
            Record the repair
          </Button>
        </div>
      </form>
    </StationFrame>
  );
}
