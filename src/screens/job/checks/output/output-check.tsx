"use client";

import { type ReactNode, useState } from "react";
import { type OutputRecord, output } from "@/core/checks/output";
import { Button } from "@/ui/button";
import { Choice, Tick } from "@/ui/choice";
import { Clock } from "@/ui/clock";
import { ErrorNote, TextField } from "@/ui/field";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { JointField, useJoints } from "../joint-field";
import { readNumber } from "../read-number";
import { useCheckDraft } from "../use-check-draft";
import { usePlace } from "../use-place";

const EMPTY = {
  joint: "",
  output: "",
  command: "on",
  limit: "",
  rearmed: false,
  expected: "",
  note: "",
  commandedAt: null as number | null,
  seen: undefined as OutputRecord["seen"] | undefined,
  seenAfter: 0,
};

/** A command to one output: its clock runs from the command until the tool lets go; what answered is tapped. */
export function OutputCheck({ head }: { head: ReactNode }) {
  const { context, state, append } = useJob();
  const { draft, set, clear } = useCheckDraft("output", EMPTY);
  const [error, setError] = useState<string>();
  const joints = useJoints("output");
  const best = state.next.find((n) => n.check === "output")?.place;
  const joint = draft.joint || best || joints[0]?.id || "";
  const limit = readNumber(draft.limit) ?? context?.limits.outputTime.value ?? 30;
  const { commandedAt } = draft;
  usePlace(
    joint,
    (j) => joints.some((x) => x.id === j.id),
    (id) => set({ joint: id }),
    commandedAt === null ? [] : [{ name: "The tool lets go", end: commandedAt + limit * 1000, done: "let go", before: 10 }],
  );
  if (!context) return null;
  const name = joints.find((j) => j.id === joint)?.name ?? joint;
  const standing = state.offCar.find((i) => i.open && i.commanded && i.joint === joint);
  const command = async () => {
    if (!draft.expected.trim()) return setError("Say first what should happen: then nobody sees what he hopes for");
    const wrong = await append({
      kind: "displaced",
      body: { what: `${name} commanded ${draft.command}`, joint, commanded: { seconds: limit } },
    });
    setError(wrong);
    if (!wrong) set({ commandedAt: Date.now(), seen: undefined });
  };
  const see = (seen: OutputRecord["seen"]) =>
    set({ seen, seenAfter: commandedAt === null ? 0 : Math.round((Date.now() - commandedAt) / 100) / 10 });
  const record = (): OutputRecord | string => {
    if (commandedAt === null) return "Command it, then tap what answered.";
    if (!draft.seen) return "What answered?";
    return {
      joint,
      output: draft.output.trim() || name,
      command: draft.command.trim() || "on",
      limit,
      rearmed: draft.rearmed,
      expected: draft.expected.trim(),
      seen: draft.seen,
      ...(draft.note.trim() ? { note: draft.note.trim() } : {}),
      seenAfter: draft.seenAfter,
    };
  };
  return (
    <CheckFrame
      kind="output"
      head={head}
      plan={{ ...output.plan(context, { joint, limit }), displaces: [] }}
      record={record()}
      startedAt={draft.startedAt}
      onDone={clear}
    >
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <JointField label="Part" joints={joints} value={joint} onChange={(id) => set({ joint: id })} />
        <TextField
          label="What the tool calls it"
          value={draft.output}
          placeholder={name}
          onChange={(e) => set({ output: e.target.value })}
        />
        <TextField label="Commanded state" value={draft.command} onChange={(e) => set({ command: e.target.value })} />
        <TextField
          label="The tool lets go after, s"
          inputMode="numeric"
          value={draft.limit}
          placeholder={String(context.limits.outputTime.value)}
          onChange={(e) => set({ limit: e.target.value })}
          hint={context.limits.outputTime.source}
        />
        <TextField
          label="What should happen"
          value={draft.expected}
          placeholder="lever pulls in, idle changes"
          onChange={(e) => set({ expected: e.target.value })}
        />
        <Tick
          label="Re-armed: key cycle or engine start since the last command"
          checked={draft.rearmed}
          onChange={(rearmed) => set({ rearmed })}
        />
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-4">
        <Button look="primary" disabled={Boolean(standing)} onClick={() => void command()}>
          Command it now
        </Button>
        {commandedAt !== null && <Clock end={commandedAt + limit * 1000} done="The tool has let go" />}
        {standing && (
          <Button
            onClick={async () => setError(await append({ kind: "restored", body: { item: standing.entry } }))}
            aria-label={`Released: ${standing.what}`}
          >
            Released
          </Button>
        )}
      </div>
      {commandedAt !== null && (
        <>
          <Choice
            label="What answered"
            options={[
              ["as-expected", "As expected"],
              ["nothing", "Nothing"],
              ["other", "Something else"],
            ]}
            value={draft.seen}
            onChange={see}
          />
          <TextField label="Note" value={draft.note} onChange={(e) => set({ note: e.target.value })} />
        </>
      )}
    </CheckFrame>
  );
}
