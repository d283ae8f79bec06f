"use client";

import { findingPlaces } from "@/core/faults";
import { CONFIRMATIONS, type Confirmation, ELSEWHERE, FAILURE_CAUSES, type FailureCause } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { parseQuantity } from "@/core/units";
import { Button } from "@/ui/button";
import { ErrorNote, SelectField, TextArea, TextField } from "@/ui/field";
import { usePreferences } from "../../session/preferences";
import { Pictures, Thumbnails } from "../pictures";
import { StationFrame } from "../station-frame";
import { useForm } from "../use-form";
import { useJob } from "../use-job";

/** Pin it to one joint: the finding names its place, its evidence and whether a cap-off confirmed it. */
export function FindStation() {
  const { state, context } = useJob();
  const { format } = usePreferences();
  const suggested = state.checks
    .flatMap((c) => c.verdict.zones.flatMap((z) => (z.state === "leaking" && z.joint ? [z.joint] : [])))
    .at(-1);
  const form = useForm("finding", {
    joint: "",
    what: "",
    size: "",
    confirmedBy: "" as Confirmation | "",
    why: "unknown" as FailureCause,
    against: "",
    pictures: [] as string[],
  });
  const { draft, set } = form;
  const joint = draft.joint || suggested || "";
  const places = context ? findingPlaces(context.layout, context.vehicle) : [];
  const placeName = (id: string) => places.find((p) => p.id === id)?.name ?? "Another place";
  const options = [
    ["", "Choose a place"] as const,
    ...places.map((p) => [p.id, p.name] as const),
    [ELSEWHERE, "Another place"] as const,
  ];
  const record = () => {
    const size = draft.size.trim() ? parseQuantity(draft.size, { dimension: "length", unit: "mm" }) : undefined;
    if (size && !size.ok) return form.setError(`Size: ${size.message}`);
    const evidence = state.checks.filter((c) => c.verdict.outcome === "fail").map((c) => c.entry);
    void form.record({
      kind: "finding",
      body: {
        joint,
        what: draft.what.trim(),
        evidence,
        confirmed: draft.confirmedBy !== "",
        ...(draft.confirmedBy ? { confirmedBy: draft.confirmedBy } : {}),
        failed: { why: draft.why, ...(draft.against.trim() ? { against: draft.against.trim() } : {}) },
        ...(draft.pictures.length > 0 ? { pictures: draft.pictures } : {}),
        ...(size?.ok ? { size: size.value } : {}),
      },
    });
  };
  return (
    <StationFrame
      title="Find"
      lead="Lower the flow to narrow in. Cap it off on both sides and see the reading recover: that confirms. A spot is not the whole story."
    >
      {state.findings.length > 0 && (
        <ul className="flex flex-col divide-y divide-line border-y border-line">
          {state.findings.map((f) => (
            <li key={f.entry} className="py-3">
              <p className="text-lg font-bold">
                {placeName(f.body.joint)}
                {f.body.size && <span className="ml-2 text-ember">≈ {format(f.body.size)}</span>}
              </p>
              <p>{f.body.what}</p>
              <p className="text-muted">
                {f.body.confirmed ? CONFIRMATIONS[f.body.confirmedBy ?? "capped-off"] : "Not confirmed yet"}
                {f.body.failed ? ` · why: ${inSentence(FAILURE_CAUSES[f.body.failed.why])}` : ""}
                {f.body.failed?.against ? `, ${f.body.failed.against}` : ""} ·{" "}
                {f.repairedBy ? "repaired" : f.setAside ? `left: ${f.setAside.reason}` : "not repaired yet"}
              </p>
              <Thumbnails pictures={f.body.pictures ?? []} />
            </li>
          ))}
        </ul>
      )}
      <form
        className="flex max-w-2xl flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          record();
        }}
      >
        <SelectField
          label="Where"
          options={options}
          value={joint}
          onChange={(e) => set({ joint: e.target.value })}
          hint={suggested && !draft.joint ? "Where a check pointed last" : undefined}
        />
        <TextArea
          label="What was found"
          value={draft.what}
          onChange={(e) => set({ what: e.target.value })}
          placeholder="Gasket squeezed out at runner 2, 30 mm of it missing"
        />
        <TextField
          label="Size, if measured (sharp-edged hole)"
          value={draft.size}
          onChange={(e) => set({ size: e.target.value })}
          placeholder="2.0 mm"
        />
        <SelectField
          label="Confirmed"
          options={[["", "Not yet"], ...Object.entries(CONFIRMATIONS)]}
          value={draft.confirmedBy}
          onChange={(e) => set({ confirmedBy: e.target.value as Confirmation | "" })}
        />
        <SelectField
          label="Why it failed"
          options={Object.entries(FAILURE_CAUSES)}
          value={draft.why}
          onChange={(e) => set({ why: e.target.value as FailureCause })}
        />
        <TextField
          label="What is done against it"
          value={draft.against}
          onChange={(e) => set({ against: e.target.value })}
          placeholder="hose routed clear of the bracket"
        />
        <Pictures value={draft.pictures} onChange={(pictures) => set({ pictures })} />
        {form.error && <ErrorNote>{form.error}</ErrorNote>}
        <div>
          <Button type="submit" look="primary" disabled={form.busy}>
            Record the finding
          </Button>
        </div>
      </form>
    </StationFrame>
  );
}
