"use client";

import { useMemo } from "react";
import {
  CULPRITS,
  METHODS,
  PERMANENCE,
  type RepairState,
  regenerationLine,
  repairFacts,
  repairForm,
  stillOff,
} from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../../form/form-field";
import { useKeys } from "../../session/keys";
import { usePerson } from "../../session/person";
import { usePreferences } from "../../session/preferences";
import { AppendButton } from "../append-button";
import { RepairsBefore } from "../engine-card";
import { focusAfterwards } from "../now";
import { Pictures, picturesIn, Thumbnails } from "../pictures";
import { StationFrame } from "../station-frame";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";
import { TeardownKit } from "./teardown-kit";

/** The repair: what, how lasting, with what parts, time and go-ahead; and what else was changed on the way. */
export function FixStation() {
  const { state, context } = useJob();
  const known = useMemo(() => repairFacts(state, context), [state, context]);
  const form = useEntryForm(repairForm, "repair", known);
  const pictures = picturesIn(form.value("pictures"));
  const record = async () => {
    const focus = focusAfterwards();
    const done = await form.submit((body, draft) => [
      ...stillOff(draft, known).map((displaced) => ({ kind: "displaced" as const, body: displaced })),
      { kind: "repair", body },
    ]);
    if (done) focus();
  };
  useKeys({ record: () => void record() });
  return (
    <StationFrame
      title="Fix"
      lead="Compare the new part with the old one. Look at neighbour hoses of the same age while they can be reached."
    >
      {state.repairs.length > 0 && (
        <DividedList>
          {state.repairs.map((r) => (
            <RepairLine key={r.entry} repaired={r} />
          ))}
        </DividedList>
      )}
      <RepairsBefore />
      <TeardownKit place={known.open.find((f) => f.entry === form.value("finding"))?.place} />
      <Form className="flex max-w-3xl flex-col gap-4" onSubmit={() => void record()}>
        <FormFields of={form} names={["finding", "what", "places", "method", "cleanProof", "culprit"]} />
        <div className="grid items-start gap-4 sm:grid-cols-2">
          <FormFields
            of={form}
            names={[
              "regeneration.by",
              "regeneration.hottest",
              "regeneration.sootBefore",
              "regeneration.sootAfter",
              "permanence",
              "recheck",
              "limit",
              "labourMinutes",
              "parts",
              "otherChanges",
              "off",
              "displaced",
              "substitute.what",
              "substitute.medium",
              "substitute.temperature",
              "substitute.suction",
              "torques",
              "fasteners",
            ]}
          />
        </div>
        <Pictures value={pictures} onChange={(next) => form.set({ pictures: next })} />
        <FormFields of={form} names={["agreed"]} />
        {form.error && <ErrorNote>{form.error}</ErrorNote>}
        <div>
          <Button type="submit" look="primary" disabled={form.busy}>
            Record the repair
          </Button>
        </div>
      </Form>
    </StationFrame>
  );
}

/** A repair as it was recorded. */
function RepairLine({ repaired: { entry, by, body, undone, proposed } }: { repaired: RepairState }) {
  const { format } = usePreferences();
  const { mayNot } = usePerson();
  const said = [
    [body.method && METHODS[body.method], PERMANENCE[body.permanence], body.limit, body.recheck && `re-check on ${body.recheck}`]
      .filter(Boolean)
      .join(", "),
    body.culprit && `loaded by: ${inSentence(CULPRITS[body.culprit])}`,
    body.regeneration && regenerationLine(body.regeneration),
    body.labourMinutes > 0 && `${body.labourMinutes} min`,
    body.parts.map((p) => `${p.count} × ${p.name}`).join(", "),
    body.goAhead && "customer agreed",
    body.otherChanges.length > 0 && `also changed: ${body.otherChanges.join(", ")}`,
    body.torques?.map((t) => `${t.where} ${format(t.torque)}`).join(", "),
    body.fasteners,
  ].filter(Boolean);
  return (
    <li className={`flex flex-wrap items-center gap-x-4 gap-y-1 py-3 ${undone ? "text-muted line-through" : ""}`}>
      <div className="mr-auto">
        <p className="font-bold">{body.what}</p>
        <p className="text-muted">{said.join(" · ")}</p>
        <Thumbnails pictures={body.pictures ?? []} />
        {proposed && !undone && (
          <p className="text-amber">
            {by} proposes it as permanent.{" "}
            {mayNot("sign-repair") ? "A technician or a lead looks at it and signs." : "Look at it, then sign."}
          </p>
        )}
      </div>
      {proposed && !undone && !mayNot("sign-repair") && (
        <AppendButton entries={[{ kind: "signed", body: { repair: entry } }]}>Sign it as permanent</AppendButton>
      )}
      {!undone && <AppendButton entries={[{ kind: "undone", body: { repair: entry } }]}>Undone</AppendButton>}
    </li>
  );
}
