"use client";

import { CircleCheck, CircleX } from "lucide-react";
import { CHECKS, jointName } from "@/core/checks";
import { type Block, complaintTriedForm, handoverOf, type ProvePart, STATION_NAMES, type Summary } from "@/core/journal";
import { inSentence } from "@/core/sentence";
import { PERHAPS_NOTHING } from "@/core/suspects";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { goToPart } from "@/ui/go-to-part";
import { Note } from "@/ui/note";
import { FormFields } from "../../form/form-field";
import { usePreferences } from "../../session/preferences";
import { AppendButton } from "../append-button";
import { AnswerOfCar } from "../practice/read-on-car";
import { shortTime } from "../short-time";
import { StationFrame } from "../station-frame";
import { useEntryForm } from "../use-entry-form";
import { type Go, useJob } from "../use-job";
import { CodesProof } from "./codes-proof";
import { Resets } from "./resets";
import { OrderTold, SetAside } from "./set-aside";
import { SideBySide } from "./side-by-side";

/** The same check, the same conditions, after the last repair; the complaint itself; and everything back on. */
export function ProveStation({ go }: { go: Go }) {
  const { state } = useJob();
  const blocks = state.blocks.close;
  const repaired = state.repairs.some((r) => !r.undone);
  const [first] = state.suspects;
  // That nothing is wrong is proved as a repair is, but for what showed a fault.
  const perhapsNothing = !repaired && first?.cause.trait === "healthy" && first.odds >= PERHAPS_NOTHING;
  return (
    <StationFrame title="Prove" lead="Only what happened after the last repair can prove that repair.">
      <section aria-label="What blocks closing">
        {blocks.length === 0 ? (
          <Note tone="calm" as="p" className="flex items-center gap-2 text-lg">
            <CircleCheck aria-hidden className="text-calm" /> Nothing blocks closing this job.
          </Note>
        ) : (
          <>
            <h3 className="mb-1 text-lg font-bold">This job cannot be closed yet</h3>
            <DividedList>
              {blocks.map((b) => (
                <li key={b.reason} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1 sm:flex-nowrap">
                  <CircleX aria-hidden size={20} className="shrink-0 text-ember" />
                  {/* On a phone its key stands below it: beside it a sentence would be a column of words. */}
                  <span className="mr-auto min-w-0 grow basis-[calc(100%-2.5rem)] sm:basis-0">
                    {b.reason}
                    {b.onRoad && <span className="block text-muted">Shown by driving: the car can be handed over</span>}
                  </span>
                  {b.station !== "prove" && (
                    <Button className="shrink-0 max-sm:ml-8" onClick={() => go(b.station)}>
                      {STATION_NAMES[b.station]}
                    </Button>
                  )}
                  {b.step && <StepKey step={b.step} go={go} />}
                  {b.part && <PartKey part={b.part} />}
                </li>
              ))}
            </DividedList>
          </>
        )}
      </section>
      <OrderTold />
      {state.wouldAsk.length > 0 && (
        <section aria-label="Would now ask" className="border-l-4 border-edge px-4 py-3">
          <p className="font-bold">Closed under older rules; today's would ask:</p>
          <ul className="list-disc pl-5">
            {state.wouldAsk.map((b) => (
              <li key={b.reason}>{b.reason}</li>
            ))}
          </ul>
        </section>
      )}
      {state.confounded.length > 0 && (
        <Note aria-label="Cause unproved" tone="amber" as="section">
          <p className="text-lg font-bold text-amber">Cured, cause unproved</p>
          <p>Between the bad and the good reading more than one thing changed: {state.confounded.join("; ")}.</p>
          <p className="text-muted">
            To know which one did it, swap one back and repeat the check: bad again, it was the cure. The handover page says so
            otherwise.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            {state.confounded.map((change) =>
              state.offCar.some((i) => i.open && i.swappedBack === change) ? (
                <p key={change} className="text-amber">
                  Back as it was: {change}. Repeat the check now.
                </p>
              ) : (
                <AppendButton
                  key={change}
                  entries={[
                    { kind: "displaced", body: { what: `old state back to prove the cause: ${change}`, swappedBack: change } },
                  ]}
                >
                  Swapped back: {change}
                </AppendButton>
              ),
            )}
          </div>
        </Note>
      )}
      {repaired && (
        <>
          <RepeatTheChecks go={go} />
          <SideBySide />
          <TryComplaint />
          <Resets />
          <CodesProof toScan={() => go("scan")} />
        </>
      )}
      {perhapsNothing && (
        <>
          <TryComplaint />
          <CodesProof toScan={() => go("scan")} />
        </>
      )}
      {(repaired || state.findings.length > 0) && <SetAside />}
    </StationFrame>
  );
}

/** Opens the check that answers what is owed, set up as it was when it failed. */
function StepKey({ step: { check, place }, go }: { step: NonNullable<Block["step"]>; go: Go }) {
  const { layout } = useJob();
  const { name, station } = CHECKS[check];
  const at = layout && place ? `, ${inSentence(jointName(layout, place))}` : "";
  return (
    <Button className="shrink-0 max-sm:ml-8" onClick={() => go(station ?? "check", check, place)}>
      {name}
      {at}
    </Button>
  );
}

/** Where on this page, or in the ledger beside it, each part of the proof is done. */
const PARTS: Readonly<Record<ProvePart, readonly [key: string, labelled: string]>> = {
  "off-car": ["Go to off the car", "Off the car"],
  complaint: ["Go to the complaint", "Try the complaint again"],
  codes: ["Go to the codes", "Codes"],
  drive: ["Go to the drive", "Drive"],
  monitor: ["Go to the monitor", "The car's own EVAP monitor"],
  resets: ["Go to the resets", "ECU resets"],
};

/** Leads to the part of the proof that does something about it. */
function PartKey({ part }: { part: ProvePart }) {
  const [key, labelled] = PARTS[part];
  return (
    <Button className="shrink-0 max-sm:ml-8" onClick={() => goToPart(labelled)}>
      {key}
    </Button>
  );
}

/** The complaint itself, tried once more. */
function TryComplaint() {
  const { state } = useJob();
  const form = useEntryForm(complaintTriedForm, "complaint", undefined);
  return (
    <Form
      aria-label="Try the complaint again"
      className="flex max-w-2xl flex-col gap-3"
      onSubmit={() => void form.submit((body) => [{ kind: "complaint-tried", body }])}
    >
      <h3 className="text-lg font-bold">Try the complaint again</h3>
      {state.story && <p className="text-muted">“{state.story.complaint}”</p>}
      {state.complaint && (
        <p>
          Last tried: {state.complaint.result === "gone" ? "gone" : "remains"}, {state.complaint.how}
          {state.complaint.afterRepair === "after" || state.repairs.length === 0
            ? ""
            : " (before the last repair: does not count)"}
        </p>
      )}
      <AnswerOfCar of="complaint-tried" form={form} label="Try it on the car" />
      <FormFields of={form} names={["how", "result"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" disabled={form.busy}>
          Record the try
        </Button>
      </div>
    </Form>
  );
}

/** Each measured check before and after the last repair, side by side. */
function RepeatTheChecks({ go }: { go: Go }) {
  const { state } = useJob();
  const { sentence } = usePreferences();
  const comparisons = handoverOf(state).comparisons.filter((c) => CHECKS[c.check].station === undefined);
  const said = (summary: Summary | undefined, none: string) =>
    summary ? (
      <>
        <strong>{summary.word}</strong>: {sentence(summary.headline)}
        <span className="block text-sm text-muted">{shortTime(summary.at)}</span>
      </>
    ) : (
      <span className="text-amber">{none}</span>
    );
  return (
    <section aria-label="Repeat the checks" className="flex flex-col gap-2">
      <h3 className="text-lg font-bold">Repeat the checks</h3>
      {comparisons.length > 0 && (
        <table className="w-full text-left">
          <thead>
            <tr className="border-b border-line text-sm text-muted">
              <th className="py-1 pr-3 font-normal">Check</th>
              <th className="pr-3 font-normal">Before the repair</th>
              <th className="font-normal">After the last repair</th>
            </tr>
          </thead>
          <tbody>
            {comparisons.map((c) => (
              <tr key={c.key} className="border-b border-line align-top">
                <th scope="row" className="pr-3 font-normal">
                  <button
                    type="button"
                    onClick={() => go("check", c.check)}
                    className="min-h-11 cursor-pointer text-left underline decoration-edge underline-offset-4 hover:decoration-ink"
                  >
                    {c.name}
                  </button>
                </th>
                <td className="py-2 pr-3">{said(c.before, "not measured")}</td>
                <td className="py-2">{said(c.after, "not repeated yet")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div>
        <Button onClick={() => go("check")}>To the instruments</Button>
      </div>
    </section>
  );
}
