"use client";

import { ListOrdered } from "lucide-react";
import { type ReactNode, useDeferredValue, useMemo, useState } from "react";
import { CHECKS, type CheckId, judgeCheck, type Plan, stillNeeded } from "@/core/checks";
import { setupOf, soakDoubt } from "@/core/journal";
import type { FillSetup } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { ConfirmButton } from "@/ui/confirm-button";
import { ErrorNote } from "@/ui/field";
import { Locked } from "@/ui/locked";
import { Note } from "@/ui/note";
import { useTerms } from "../../session/preferences";
import { AppendButton } from "../append-button";
import { Cautions } from "../cautions";
import type { Overlay } from "../overlay";
import { Pictures } from "../pictures";
import { ReadOnCar } from "../practice/read-on-car";
import { useJob } from "../use-job";
import { VerdictList, VerdictPanel } from "../verdict";
import { Conclusion } from "./conclusion";
import { StillNeeded } from "./still-needed";
import type { CheckInHand } from "./use-check-form";
import { useFinish } from "./use-finish";
import { usePlace } from "./use-place";
import { displacedEntry } from "./use-record-check";

/**
 * The frame every instrument stands in: its steps and cautions, what setting it up takes off the car, the instrument
 * itself, and the verdict as it stands, or what is still missing.
 */
export function CheckFrame<Name extends string>({
  check,
  head,
  plan,
  at,
  choose,
  setup,
  clocks,
  onDone,
  children,
}: {
  check: CheckInHand<object, Name>;
  head: ReactNode;
  plan: Plan;
  /** Where the instrument is at on the air map, when its form does not ask */
  at?: string | undefined;
  /** Takes another place by tapping it there, when its form does not ask */
  choose?: (joint: string) => void;
  /** Joints it puts pressure on: drawn over the map */
  setup?: FillSetup;
  clocks?: Overlay["clocks"];
  /** When it is recorded or discarded, besides the form */
  onDone?: () => void;
  children: ReactNode;
}) {
  const { kind, context, form, formState, filled } = check;
  const { state } = useJob();
  const [told, setTold] = useState(false);
  const terms = useTerms();
  // What is typed answers at once; what it proves follows.
  const record = useDeferredValue(filled.record);
  const verdict = useMemo(() => record && judgeCheck(kind, record, context), [kind, record, context]);
  const asks = (Object.keys(form.fields) as Name[]).find((name) => form.fields[name].type === "place");
  usePlace(
    at ?? (asks && check.value<string>(asks)),
    (joint) => check.known.places.some((p) => p.id === joint.id),
    choose ?? (asks && ((id) => check.set({ [asks]: id } as { [N in Name]?: unknown }))),
    { clocks, setup },
  );
  // A check's own command is no trouble; which one that is, only its record tells.
  const own = record ? setupOf({ check: kind, record }) : undefined;
  const telling = own || !CHECKS[kind].ownCommands;
  const standing = telling ? state.offCar.filter((i) => i.open && i.commanded && !own?.has(i.joint ?? "")) : [];
  const fresh = plan.displaces.filter((d) => !d.commanded && !state.offCar.some((i) => i.open && i.what === d.what));
  const { pictures, corrects, error, finish, done } = useFinish(check, check.complain, {
    onDone,
    possible: !plan.refused,
    takenOff: fresh,
  });
  return (
    <div className="flex max-w-5xl flex-col gap-5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 max-sm:gap-x-1">
        {head}
        {!plan.refused && (
          <Button look="bare" aria-expanded={told} aria-label="How it is done" onClick={() => setTold(!told)}>
            <ListOrdered aria-hidden size={18} /> <span className="max-sm:sr-only">How it is done</span>
          </Button>
        )}
      </div>
      {plan.refused ? (
        <Note tone="amber">
          <p className="text-lg font-bold text-amber">{CHECKS[kind].name} says nothing on this vehicle</p>
          <p>{plan.refused}</p>
        </Note>
      ) : (
        <>
          {told && (
            <ol className="list-decimal border-l-4 border-edge py-1 pl-10">
              {plan.steps.map((s) => (
                <li key={s.text}>{terms(s.text)}</li>
              ))}
            </ol>
          )}
          <Cautions ids={plan.cautions} />
          <PlanWarnings plan={plan} kind={kind} />
          <TakenOff fresh={fresh} />
          {corrects && <CopyNote />}
          <Locked when={check.busy}>
            <ReadOnCar check={check} />
            {children}
            <Pictures value={pictures} onChange={(next) => check.set({ pictures: next } as { [N in Name]?: unknown })} />
          </Locked>
          {standing.length > 0 && (
            <ErrorNote>
              Still commanded: {standing.map((i) => i.what).join(", ")}. Release it first: what is read beside it proves nothing.
            </ErrorNote>
          )}
          {error && <ErrorNote>{error}</ErrorNote>}
          <Conclusion
            verdict={
              verdict ? (
                <VerdictPanel check={kind} verdict={verdict} title="Verdict so far" />
              ) : (
                <StillNeeded form={form} state={formState} errors={filled.errors ?? []} onFocus={check.focus} />
              )
            }
            actions={
              <>
                <Button look="primary" onClick={() => void finish()}>
                  Record the check
                </Button>
                <ConfirmButton
                  ask="Discard this check?"
                  why="What was typed and read here is not recorded yet, and would be gone."
                  sure="Discard it"
                  onSure={done}
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

/** Above a check that is filled from a recorded one. */
export function CopyNote() {
  return (
    <Note role="status" tone="amber" as="p" tight className="text-amber">
      A copy of what was recorded, to be corrected. The time of the check stays; the first line stays visible.
    </Note>
  );
}

/** Faults that would spoil the verdict as things stand, before anything is set up. */
export function PlanWarnings({ plan, kind }: { plan: Plan; kind: CheckId }) {
  const { context, state } = useJob();
  const [open, soak] = useMemo(
    () => (context ? [stillNeeded(kind, context), soakDoubt(kind, state, context.limits, Date.now())] : []),
    [kind, context, state],
  );
  const warnings = [...(plan.warnings ?? []), ...(soak ? [`${soak}.`] : []), ...(open ? [`${open}: say it under Story.`] : [])];
  if (warnings.length === 0) return null;
  return (
    <Note role="status" tone="amber" tight className="text-amber">
      {warnings.map((w) => (
        <p key={w} className="first-letter:uppercase">
          {w}
        </p>
      ))}
    </Note>
  );
}

/** Parts that setting up takes off the car: listed by one key as they come off, at the latest with the check. */
function TakenOff({ fresh }: { fresh: Plan["displaces"] }) {
  if (fresh.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <p className="text-muted">
        Fit or remove: <span className="text-ink">{fresh.map((d) => d.what).join(", ")}</span>
      </p>
      <AppendButton entries={fresh.map(displacedEntry)}>Removed</AppendButton>
    </div>
  );
}
