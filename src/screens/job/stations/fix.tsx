"use client";

import { v4 as uuid } from "uuid";
import { findingPlaces } from "@/core/faults";
import { BadInput } from "@/core/input";
import {
  ANYWHERE,
  type Bodies,
  CLEANED,
  linesOf,
  minutesOf,
  onlyCleaned,
  type Permanence,
  partsOf,
  torquesOf,
} from "@/core/journal";
import { Button } from "@/ui/button";
import { Choice, Tick } from "@/ui/choice";
import { ErrorNote, SelectField, TextArea, TextField } from "@/ui/field";
import { QuantityField } from "@/ui/quantity-field";
import { usePreferences } from "../../session/preferences";
import { AppendButton } from "../append-button";
import { readField } from "../fields";
import { Pictures, Thumbnails } from "../pictures";
import { PlacesField } from "../places-field";
import { StationFrame } from "../station-frame";
import { useForm } from "../use-form";
import { useJob } from "../use-job";
import { TeardownKit } from "./teardown-kit";

const PERMANENCE: readonly (readonly [Permanence, string])[] = [
  ["permanent", "Permanent"],
  ["temporary", "Temporary"],
  ["bypass", "Diagnostic bypass"],
];

/** The repair: what, how lasting, with what parts, time and go-ahead; and what else was changed on the way. */
export function FixStation() {
  const { state, context } = useJob();
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
    off: [] as string[],
    places: [] as string[],
    limit: "",
    substitute: "",
    medium: "",
    bears: "",
    suction: "",
    torques: "",
    fasteners: "",
    pictures: [] as string[],
  });
  const { draft, set } = form;
  const places = context ? findingPlaces(context.layout, context.vehicle) : [];
  const name = (joint: string) => places.find((p) => p.id === joint)?.name ?? "Another place";
  const finding = draft.finding || open[0]?.entry || "";
  const found = state.findings.find((f) => f.entry === finding)?.body.joint;
  const worked = draft.places.length > 0 ? draft.places : found ? [found] : [];
  const record = () => {
    let typed: Pick<Bodies["repair"], "parts" | "torques" | "labourMinutes">;
    try {
      typed = { parts: partsOf(draft.parts), torques: torquesOf(draft.torques), labourMinutes: minutesOf(draft.labour) };
    } catch (e) {
      if (e instanceof BadInput) return form.setError(e.message);
      throw e;
    }
    const { torques, ...rest } = typed;
    const temperature = draft.bears.trim() ? readField(draft.bears, "bearable", "°C") : undefined;
    const suction = draft.suction.trim() ? readField(draft.suction, "vacuum", "inHg") : undefined;
    const name = (id: string) => places.find((p) => p.id === id)?.name ?? id;
    void form.record(
      ...draft.off.map((joint) => ({ kind: "displaced" as const, body: { what: `${name(joint)} off`, joint } })),
      ...linesOf(draft.displaced).map((what) => ({ kind: "displaced" as const, body: { what, elsewhere: true as const } })),
      {
        id: uuid(),
        kind: "repair",
        body: {
          ...(finding ? { finding } : {}),
          what: draft.what.trim(),
          permanence: draft.permanence,
          places: worked,
          ...(draft.recheck ? { recheck: draft.recheck } : {}),
          ...(draft.limit.trim() ? { limit: draft.limit.trim() } : {}),
          ...(draft.substitute.trim()
            ? {
                substitute: {
                  what: draft.substitute.trim(),
                  ...(draft.medium.trim() ? { medium: draft.medium.trim() } : {}),
                  ...(temperature ? { temperature } : {}),
                  ...(suction ? { suction } : {}),
                },
              }
            : {}),
          ...rest,
          ...(draft.goAhead ? { goAhead: "The customer agreed" } : {}),
          otherChanges: linesOf(draft.otherChanges),
          ...(torques && torques.length > 0 ? { torques } : {}),
          ...(draft.fasteners.trim() ? { fasteners: draft.fasteners.trim() } : {}),
          ...(draft.pictures.length > 0 ? { pictures: draft.pictures } : {}),
        },
      },
    );
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
                  {r.body.limit ? `, ${r.body.limit}` : ""}
                  {r.body.recheck ? `, re-check on ${r.body.recheck}` : ""} · {r.body.labourMinutes} min
                  {r.body.parts.length > 0 ? ` · ${r.body.parts.map((p) => `${p.count} × ${p.name}`).join(", ")}` : ""}
                  {r.body.goAhead ? " · customer agreed" : ""}
                  {r.body.otherChanges.length > 0 ? ` · also changed: ${r.body.otherChanges.join(", ")}` : ""}
                  {r.body.torques ? ` · ${r.body.torques.map((t) => `${t.where} ${format(t.torque)}`).join(", ")}` : ""}
                  {r.body.fasteners ? ` · ${r.body.fasteners}` : ""}
                </p>
                <Thumbnails pictures={r.body.pictures ?? []} />
              </div>
              {!r.undone && <AppendButton entries={[{ kind: "undone", body: { repair: r.entry } }]}>Undone</AppendButton>}
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
        <div className="sm:col-span-2">
          <PlacesField
            label="Worked on, every place"
            places={[...places, { id: ANYWHERE, name: "All over, or nobody can say" }]}
            value={worked}
            onChange={(next) => set({ places: next })}
          />
        </div>
        <Choice
          label="How lasting"
          options={PERMANENCE}
          value={draft.permanence}
          onChange={(permanence) => set({ permanence })}
        />
        {draft.permanence === "permanent" && onlyCleaned({ what: draft.what, parts: linesOf(draft.parts) }) && (
          <p className="text-amber">{CLEANED}.</p>
        )}
        {draft.permanence === "temporary" && (
          <>
            <TextField type="date" label="Re-check on" value={draft.recheck} onChange={(e) => set({ recheck: e.target.value })} />
            <TextField
              label="Its limit"
              value={draft.limit}
              onChange={(e) => set({ limit: e.target.value })}
              placeholder="two weeks, no motorway"
            />
          </>
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
        <PlacesField
          label="Hoses, caps and plugs still off or in"
          places={context?.layout.joints ?? []}
          value={draft.off}
          onChange={(off) => set({ off })}
        />
        <TextArea
          label="Covers and panels not yet back, one a line"
          value={draft.displaced}
          onChange={(e) => set({ displaced: e.target.value })}
          placeholder="engine cover"
        />
        <TextField
          label="Substitute hose, sealant or glue, if one was used"
          value={draft.substitute}
          onChange={(e) => set({ substitute: e.target.value })}
          placeholder="fuel hose by the metre"
        />
        {draft.substitute.trim() !== "" && (
          <>
            <TextField
              label="What it may touch"
              value={draft.medium}
              onChange={(e) => set({ medium: e.target.value })}
              placeholder="fuel vapour"
            />
            <QuantityField
              label="Heat it bears"
              field="bearable"
              example="120"
              unit="°C"
              units={["°C", "°F"]}
              value={draft.bears}
              onChange={(bears) => set({ bears })}
            />
            <QuantityField
              label="Suction it bears"
              field="vacuum"
              example="25"
              unit="inHg"
              units={["inHg", "kPa", "mmHg"]}
              value={draft.suction}
              onChange={(suction) => set({ suction })}
            />
            <p className="text-muted sm:col-span-2">What is not known of a substitute makes the repair a temporary one.</p>
          </>
        )}
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
