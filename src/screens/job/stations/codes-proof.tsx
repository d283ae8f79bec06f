"use client";

import { isForVapourMonitor } from "@/core/faults";
import { type Bodies, COMEBACK_COUNTS, driveForm, driven, quietAfter } from "@/core/journal";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import { FormFields } from "../../form/form-field";
import { usePreferences } from "../../session/preferences";
import { AppendButton } from "../append-button";
import { AnswerOfCar, FromTheCar } from "../practice/read-on-car";
import { shortTime } from "../short-time";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";
import { ComebackPlot } from "./comeback-plot";
import { MonitorProof, OwnMonitor } from "./monitor";
import { useWhen } from "./when";

/** Codes that were chased: cleared, driven, read again. Cleared alone says nothing. */
export function CodesProof({ toScan }: { toScan: () => void }) {
  const { state } = useJob();
  const { codes } = state.proof;
  const own = (code: string) => state.ownCodes.find((o) => o.code === code)?.because;
  return (
    <section aria-label="Codes" className="flex flex-col gap-3">
      <h3 className="text-lg font-bold">Codes</h3>
      <p className="text-muted">
        {state.codesClearedAt
          ? `Cleared ${shortTime(state.codesClearedAt)}. A light that is off right after clearing says nothing: drive it, then read every module again.`
          : "Not cleared yet. Clear once the repair is done, drive it, then read again."}
      </p>
      {codes.length > 0 && (
        <ul className="flex flex-wrap gap-x-6 gap-y-1">
          {codes.map((c) => (
            <li key={c.code}>
              <span className="font-mono font-bold">{c.code}</span>{" "}
              <span className={c.quiet ? "text-calm" : "text-amber"}>{c.quiet ? quietAfter(c) : "owed"}</span>
              {own(c.code) && !c.quiet && <span className="text-muted"> · probably ours: {own(c.code)}</span>}
              {c.permanent && <span className="text-muted"> · permanent until the car has seen it pass</span>}
            </li>
          ))}
        </ul>
      )}
      <ClearedAt />
      <Comeback />
      <DriveForm />
      {!state.practice && <OwnMonitor />}
      {state.practice ? <ReadAgain /> : <NoneIsBack toScan={toScan} />}
      {state.codes.some((c) => isForVapourMonitor(c.code) && !c.asideReason) || state.proof.monitor ? <MonitorProof /> : null}
    </section>
  );
}

/** Written down later, the clearing is put where it was: a drive counts from there on. */
function ClearedAt() {
  const when = useWhen("Cleared at");
  return (
    <div className="flex max-w-3xl flex-wrap items-start gap-3">
      <AppendButton
        className={when.open ? "mt-6" : ""}
        disabled={when.wrong}
        entries={[{ kind: "codes-cleared", body: {}, ...(when.at ? { at: when.at } : {}) }]}
        onDone={when.clear}
      >
        {when.at ? "Codes cleared then" : "Codes cleared now"}
      </AppendButton>
      {when.field}
    </div>
  );
}

function NoneIsBack({ toScan }: { toScan: () => void }) {
  const { state } = useJob();
  const when = useWhen("Read at");
  const codes = state.codes.filter((c) => c.asideReason !== undefined);
  return (
    <div className="flex flex-wrap items-start gap-3">
      <AppendButton
        className={when.open ? "mt-6" : ""}
        disabled={when.wrong}
        entries={[{ kind: "codes", body: { codes }, ...(when.at ? { at: when.at } : {}) }]}
        onDone={when.clear}
      >
        All modules re-read: no codes
      </AppendButton>
      {when.field}
      <Button className={when.open ? "mt-6" : ""} onClick={toScan}>
        A code came back
      </Button>
    </div>
  );
}

/** A practice car says by itself what its ECU holds; what was set aside stays so. */
function ReadAgain() {
  const { state, append } = useJob();
  const aside = new Map(state.codes.flatMap((c) => (c.asideReason === undefined ? [] : [[c.code, c.asideReason] as const])));
  return (
    <FromTheCar
      label="Re-read all modules"
      take={async (bay) => {
        const { codes } = (await bay.answer("codes")) as Bodies["codes"];
        const read = codes.map((c) => (aside.has(c.code) ? { ...c, asideReason: aside.get(c.code) as string } : c));
        return append({ kind: "codes", body: { codes: read } });
      }}
    />
  );
}

/** A fault that is not always there: how long it has stayed away, against what that takes. */
function Comeback() {
  const { state } = useJob();
  const { number } = usePreferences();
  const { comeback } = state;
  if (!comeback) return null;
  const { kind, again, enough, counted, needed, reasons } = comeback;
  const unit = kind === "sets-in" ? COMEBACK_COUNTS[kind] : `${COMEBACK_COUNTS[kind]} without it`;
  const tone = again ? "text-ember" : enough ? "text-calm" : "text-amber";
  return (
    <Note aria-label="A fault that comes and goes" tone="live" as="section" className="flex max-w-3xl flex-col gap-1">
      <h4 className={`text-lg font-bold ${tone}`}>
        {again ? "It came back" : enough ? "Watched long enough" : "Not yet"}: {number(counted, 0)} of{" "}
        {number(Math.ceil(needed), 0)} {unit}
      </h4>
      <div aria-hidden className="h-2 rounded-full bg-line">
        <div
          className={`h-full rounded-full ${again ? "bg-ember" : enough ? "bg-calm" : "bg-accent"}`}
          style={{ width: `${Math.min(100, (100 * counted) / needed)}%` }}
        />
      </div>
      <ComebackPlot {...comeback} />
      <ul>
        {reasons.map((r) => (
          <li key={r} className="text-muted first-letter:uppercase">
            {r}
          </li>
        ))}
      </ul>
    </Note>
  );
}

function DriveForm() {
  const { state } = useJob();
  const { format } = usePreferences();
  const form = useEntryForm(driveForm, "drive", undefined);
  const when = useWhen("Back at");
  return (
    <Form
      aria-label="Drive"
      className="grid max-w-3xl items-start gap-3 sm:grid-cols-2"
      onSubmit={async () => {
        const back = when.at ? new Date(when.at) : new Date();
        if (!when.wrong && (await form.submit((body) => [{ kind: "drive", at: driven(body, back), body }]))) when.clear();
      }}
    >
      {state.drives.length > 0 && (
        <ul className="text-muted sm:col-span-2">
          {state.drives.map((d) => (
            <li key={d.at}>
              Driven {d.minutes} min, {shortTime(d.at)}
              {d.coldStart ? ", from cold" : ""}
              {d.conditions ? `: ${d.conditions}` : ""}
              {d.cameBackAfter && <strong className="text-ember"> · came back after {format(d.cameBackAfter)}</strong>}
            </li>
          ))}
        </ul>
      )}
      <div className="sm:col-span-2 empty:hidden">
        <AnswerOfCar of="drive" form={form} label="Drive the car" />
      </div>
      <FormFields of={form} names={["minutes", "distance"]} />
      {!state.practice && <div className="self-end sm:col-span-2">{when.field}</div>}
      <div className="sm:col-span-2">
        <FormFields of={form} names={["conditions"]} />
      </div>
      <FormFields of={form} names={["cameBackAfter"]} />
      <FormFields of={form} names={["load", "coldStart", "keyCycle", "byCustomer"]} />
      <FormFields of={form} names={["start.coolant", "start.air", "pending"]} />
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div>
        <Button type="submit" disabled={form.busy}>
          Record the drive
        </Button>
      </div>
    </Form>
  );
}
