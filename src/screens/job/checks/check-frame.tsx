"use client";

import { type ReactNode, useMemo, useState } from "react";
import { CHECKS, type CheckId, judgeCheck, type Plan, stillNeeded } from "@/core/checks";
import { BadInput, validate } from "@/core/input";
import { setupOf, soakDoubt } from "@/core/journal";
import { Button } from "@/ui/button";
import { ConfirmButton } from "@/ui/confirm-button";
import { ErrorNote } from "@/ui/field";
import { AppendButton } from "../append-button";
import { Cautions } from "../cautions";
import { useJob } from "../use-job";
import { VerdictList, VerdictPanel } from "../verdict";
import { Conclusion } from "./conclusion";
import { useRecordCheck } from "./use-record-check";

/**
 * The frame every instrument stands in: its steps and cautions, what setting it up takes off the car, the instrument
 * itself, and the verdict as it stands. `record` is what was read so far, or what is still missing.
 */
export function CheckFrame({
  kind,
  head,
  plan,
  record,
  startedAt,
  onDone,
  children,
}: {
  kind: CheckId;
  head: ReactNode;
  plan: Plan;
  record: object | string;
  /** ISO time of the first reading; empty while there is none */
  startedAt: string;
  onDone: () => void;
  children: ReactNode;
}) {
  const { context, state } = useJob();
  const save = useRecordCheck();
  const [error, setError] = useState<string>();
  const [told, setTold] = useState(false);
  const read = useMemo(() => {
    if (typeof record === "string" || !context) return { missing: typeof record === "string" ? record : "" };
    try {
      validate(CHECKS[kind].schema, record);
      return { record, verdict: judgeCheck(kind, record, context) };
    } catch (e) {
      if (e instanceof BadInput) return { missing: e.message };
      throw e;
    }
  }, [kind, record, context]);
  // A check's own command is no trouble; which one that is, only its record tells.
  const own = read.record ? setupOf({ check: kind, record: read.record }) : undefined;
  const telling = own || !CHECKS[kind].ownCommands;
  const standing = telling ? state.offCar.filter((i) => i.open && i.commanded && !own?.has(i.joint ?? "")) : [];
  const finish = async () => {
    if (!read.record) return;
    const to = new Date().toISOString();
    const wrong = await save(kind, read.record, { from: startedAt || to, to });
    setError(wrong);
    if (!wrong) onDone();
  };
  return (
    <div className="flex max-w-5xl flex-col gap-5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        {head}
        {!plan.refused && (
          <Button look="bare" aria-expanded={told} onClick={() => setTold(!told)}>
            How it is done
          </Button>
        )}
      </div>
      {plan.refused ? (
        <div className="border-l-4 border-amber bg-amber-soft px-4 py-3">
          <p className="text-lg font-bold text-amber">{CHECKS[kind].name} says nothing on this vehicle</p>
          <p>{plan.refused}</p>
        </div>
      ) : (
        <>
          {told && (
            <ol className="list-decimal border-l-4 border-edge py-1 pl-10">
              {plan.steps.map((s) => (
                <li key={s.text}>{s.text}</li>
              ))}
            </ol>
          )}
          <Cautions ids={plan.cautions} />
          <PlanWarnings plan={plan} kind={kind} />
          <TakenOff plan={plan} />
          {children}
          {standing.length > 0 && (
            <ErrorNote>
              Still commanded: {standing.map((i) => i.what).join(", ")}. Release it first: what is read beside it proves nothing.
            </ErrorNote>
          )}
          {error && <ErrorNote>{error}</ErrorNote>}
          <Conclusion
            verdict={
              read.verdict ? (
                <VerdictPanel check={kind} verdict={read.verdict} title="Verdict so far" />
              ) : (
                <p role="status" className="border-l-4 border-edge px-4 py-3 text-muted">
                  {read.missing}
                </p>
              )
            }
            actions={
              <>
                <Button look="primary" disabled={!read.verdict} onClick={() => void finish()}>
                  Record the check
                </Button>
                <ConfirmButton
                  ask="Discard this check?"
                  why="What was typed and read here is not recorded yet, and would be gone."
                  sure="Discard it"
                  onSure={onDone}
                >
                  Discard
                </ConfirmButton>
              </>
            }
          />
        </>
      )}
      <VerdictList kind={kind} />
    </div>
  );
}

/** What would spoil the verdict as things stand, before anything is set up. */
export function PlanWarnings({ plan, kind }: { plan: Plan; kind: CheckId }) {
  const { context, state } = useJob();
  const open = context && stillNeeded(kind, context);
  const soak = context && soakDoubt(kind, state, context.limits, Date.now());
  const warnings = [...(plan.warnings ?? []), ...(soak ? [`${soak}.`] : []), ...(open ? [`${open}: say it under Story.`] : [])];
  if (warnings.length === 0) return null;
  return (
    <div role="status" className="border-l-4 border-amber bg-amber-soft px-4 py-2 text-amber">
      {warnings.map((w) => (
        <p key={w} className="first-letter:uppercase">
          {w}
        </p>
      ))}
    </div>
  );
}

/** What setting up takes off the car: put on the list with one key, so that nothing is forgotten on it. */
function TakenOff({ plan }: { plan: Plan }) {
  const { state } = useJob();
  const open = state.offCar.filter((i) => i.open);
  const fresh = plan.displaces.filter((d) => !open.some((i) => i.what === d.what));
  if (fresh.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <p className="text-muted">
        Setting up takes off: <span className="text-ink">{fresh.map((d) => d.what).join(", ")}</span>
      </p>
      <AppendButton
        entries={fresh.map((d) => ({ kind: "displaced", body: { what: d.what, ...(d.joint ? { joint: d.joint } : {}) } }))}
      >
        It is off: list it
      </AppendButton>
    </div>
  );
}
