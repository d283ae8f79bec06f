"use client";

import { useState } from "react";
import { Button } from "@/ui/button";
import { Clock } from "@/ui/clock";
import { ErrorNote } from "@/ui/field";
import type { RunningClock } from "../overlay";
import { useJob } from "../use-job";

/** s before the tool lets go that the clock warns. */
const WARNS = 10;

/** The clock of a command that was given: it ends when the tool lets go by itself. */
export const commandClock = (commandedAt: number | undefined, seconds: number): RunningClock[] =>
  commandedAt === undefined
    ? []
    : [{ name: "Command times out", end: commandedAt + seconds * 1000, done: "let go", before: WARNS }];

/**
 * Commands an output now: it stands on the list of what is off the car until it is released, and its clock runs until the tool
 * lets go by itself; then the tool wants to be armed again.
 */
export function CommandNow({
  joint,
  what,
  seconds,
  commandedAt,
  onCommand,
  first,
}: {
  joint: string;
  what: string;
  seconds: number;
  commandedAt: number | undefined;
  onCommand: (at: number) => void;
  /** Fields that have to be said before, undefined where all is */
  first?: () => string | undefined;
}) {
  const { state, append } = useJob();
  const [error, setError] = useState<string>();
  const standing = state.offCar.find((i) => i.open && i.commanded && i.joint === joint);
  const command = async () => {
    const missing = first?.();
    if (missing) return setError(missing);
    // Its clock runs from the hand, not from the server's answer.
    const at = Date.now();
    const wrong = await append({ kind: "displaced", body: { what, joint, commanded: { seconds } } });
    setError(wrong);
    if (!wrong) onCommand(at);
  };
  return (
    <>
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-4">
        <Button look="primary" disabled={Boolean(standing)} onClick={() => void command()}>
          Command it now
        </Button>
        {commandedAt !== undefined && <Clock end={commandedAt + seconds * 1000} done="Command timed out: re-arm the tool" />}
        {standing && (
          <Button
            onClick={async () => setError(await append({ kind: "restored", body: { item: standing.entry } }))}
            aria-label={`Released: ${standing.what}`}
          >
            Released
          </Button>
        )}
      </div>
    </>
  );
}
