"use client";

import type { ReactNode } from "react";
import { type OutputRecord, output } from "@/core/checks/output";
import { outputForm } from "@/core/checks/output/fields";
import { parseBare } from "@/core/units";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { CommandNow, commandClock } from "../command-now";
import { useCheckForm } from "../use-check-form";

/** A command to one output: its clock runs from the command until the tool lets go; what answered is tapped. */
export function OutputCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("output", outputForm);
  const { context, value, set, known } = check;
  const joint = value<string>("joint");
  const limit = parseBare(value<string>("limit")) ?? context.limits.outputTime.value;
  const commandedAt = value<number | undefined>("commandedAt");
  const name = known.places.find((j) => j.id === joint)?.name ?? joint;
  const answered = (seen: OutputRecord["seen"]) => {
    if (commandedAt !== undefined) set({ seen, seenAfter: Math.round((Date.now() - commandedAt) / 100) / 10 });
  };
  return (
    <CheckFrame
      check={check}
      head={head}
      plan={{ ...output.plan(context, { joint, limit }), displaces: [] }}
      clocks={commandClock(commandedAt, limit)}
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "output", "command", "limit", "expected", "rearmed"]} />
      </div>
      <CommandNow
        joint={joint}
        what={`${name} commanded ${value<string>("command")}`}
        seconds={limit}
        commandedAt={commandedAt}
        first={() =>
          (check.latest<string | undefined>("expected") ?? "").trim()
            ? undefined
            : "Say first what should happen: then nobody sees what he hopes for"
        }
        onCommand={(at) => set({ commandedAt: at, seen: undefined, seenAfter: undefined })}
      />
      <FormFields of={check} names={["seen"]} onChange={(_, seen) => answered(seen as OutputRecord["seen"])} />
      <FormFields of={check} names={["note"]} />
    </CheckFrame>
  );
}
