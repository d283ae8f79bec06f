"use client";

import { type ReactNode, useState } from "react";
import { type OutputRecord, output } from "@/core/checks/output";
import { outputForm } from "@/core/checks/output/form";
import { parseBare } from "@/core/units";
import { Button } from "@/ui/button";
import { Clock } from "@/ui/clock";
import { ErrorNote } from "@/ui/field";
import { FormFields } from "../../../form/form-field";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

/** A command to one output: its clock runs from the command until the tool lets go; what answered is tapped. */
export function OutputCheck({ head }: { head: ReactNode }) {
  const { state, append } = useJob();
  const check = useCheckForm("output", outputForm);
  const { context, holds, set, known } = check;
  const [error, setError] = useState<string>();
  const joint = holds<string>("joint");
  const limit = parseBare(holds<string>("limit")) ?? context.limits.outputTime.value;
  const commandedAt = holds<number | undefined>("commandedAt");
  const name = known.places.find((j) => j.id === joint)?.name ?? joint;
  const standing = state.offCar.find((i) => i.open && i.commanded && i.joint === joint);
  const command = async () => {
    if (!(check.latest<string | undefined>("expected") ?? "").trim())
      return setError("Say first what should happen: then nobody sees what he hopes for");
    const wrong = await append({
      kind: "displaced",
      body: { what: `${name} commanded ${check.latest<string>("command")}`, joint, commanded: { seconds: limit } },
    });
    setError(wrong);
    if (!wrong) set({ commandedAt: Date.now(), seen: undefined, seenAfter: undefined });
  };
  const answered = (seen: OutputRecord["seen"]) => {
    if (commandedAt !== undefined) set({ seen, seenAfter: Math.round((Date.now() - commandedAt) / 100) / 10 });
  };
  return (
    <CheckFrame
      check={check}
      head={head}
      plan={{ ...output.plan(context, { joint, limit }), displaces: [] }}
      clocks={
        commandedAt === undefined
          ? []
          : [{ name: "The tool lets go", end: commandedAt + limit * 1000, done: "let go", before: 10 }]
      }
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "output", "command", "limit", "expected", "rearmed"]} />
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-4">
        <Button look="primary" disabled={Boolean(standing)} onClick={() => void command()}>
          Command it now
        </Button>
        {commandedAt !== undefined && <Clock end={commandedAt + limit * 1000} done="The tool has let go" />}
        {standing && (
          <Button
            onClick={async () => setError(await append({ kind: "restored", body: { item: standing.entry } }))}
            aria-label={`Released: ${standing.what}`}
          >
            Released
          </Button>
        )}
      </div>
      <FormFields of={check} names={["seen"]} onChange={(_, seen) => answered(seen as OutputRecord["seen"])} />
      <FormFields of={check} names={["note"]} />
    </CheckFrame>
  );
}
