"use client";

import { useMemo } from "react";
import type { CheckContext } from "@/core/checks";
import { findingPlaces } from "@/core/faults";
import { CONFIRMATIONS, FAILURE_CAUSES, findingFacts, findingForm, placeName, RESIDUES } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../../form/form-field";
import { useKeys } from "../../session/keys";
import { usePreferences } from "../../session/preferences";
import { focusAfterwards } from "../now";
import { Pictures, picturesIn, Thumbnails } from "../pictures";
import { StationFrame } from "../station-frame";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";
import { Decline } from "./set-aside";

/** Pin it to one joint: the finding names its place, its evidence and whether a cap-off confirmed it. */
export function FindStation() {
  const { state, context } = useJob();
  const { format } = usePreferences();
  const places = context ? findingPlaces(context.layout, context.vehicle) : [];
  return (
    <StationFrame
      title="Find"
      lead="Lower the flow to narrow in. Cap it off on both sides and see the reading recover: that confirms. A spot is not the whole story."
    >
      {state.findings.length > 0 && (
        <DividedList>
          {state.findings.map((f) => (
            <li key={f.entry} className="py-3">
              <p className="text-lg font-bold">
                {placeName(f.body.joint, places)}
                {f.body.size && <span className="ml-2 text-ember">≈ {format(f.body.size)}</span>}
              </p>
              <p>{f.body.what}</p>
              <p className="text-muted">
                {f.body.confirmed ? CONFIRMATIONS[f.body.confirmedBy ?? "capped-off"] : "Not confirmed yet"}
                {f.body.failed ? ` · why: ${inSentence(FAILURE_CAUSES[f.body.failed.why])}` : ""}
                {f.body.failed?.against ? `, ${f.body.failed.against}` : ""} ·{" "}
                {f.repairedBy ? "repaired" : f.setAside ? `left: ${f.setAside.reason}` : "not repaired yet"}
              </p>
              {f.body.residue && <p className="text-muted">{RESIDUES[f.body.residue]}</p>}
              <Thumbnails pictures={f.body.pictures ?? []} />
              {!f.repairedBy && !f.setAside && <Decline finding={f.entry} />}
            </li>
          ))}
        </DividedList>
      )}
      {context ? (
        <FindingForm context={context} />
      ) : (
        <p className="text-muted">Describe the vehicle first: its places are known by its facts.</p>
      )}
    </StationFrame>
  );
}

function FindingForm({ context }: { context: CheckContext }) {
  const { state } = useJob();
  const known = useMemo(() => findingFacts(state, context), [state, context]);
  const form = useEntryForm(findingForm, "finding", known);
  const pictures = picturesIn(form.value("pictures"));
  const record = async () => {
    const focus = focusAfterwards();
    if (await form.submit((body) => [{ kind: "finding", body }])) focus();
  };
  useKeys({ record: () => void record() });
  return (
    <Form className="flex max-w-2xl flex-col gap-4" onSubmit={() => void record()}>
      <FormFields of={form} names={["joint", "what", "size", "residue", "confirmedBy", "failed.why", "failed.against"]} />
      <Pictures value={pictures} onChange={(next) => form.set({ pictures: next })} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" look="primary" disabled={form.busy}>
          Record the finding
        </Button>
      </div>
    </Form>
  );
}
