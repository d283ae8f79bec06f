"use client";

import { format as formatDate } from "date-fns";
import { ArrowLeft, FileText, Printer } from "lucide-react";
import { type ReactNode, useMemo } from "react";
import { measureText } from "@/core/checks";
import { findingPlaces } from "@/core/faults";
import {
  type Comparison,
  findingSurety,
  foldJob,
  handoverOf,
  type JournalEntry,
  ON_FIRST_SHEET,
  type Summary,
} from "@/core/journal";
import type { Shop } from "@/core/shop/settings";
import { airMapOf, layoutOf, mapAround, vehicleName } from "@/core/vehicle";
import { Button, buttonClass, LinkButton } from "@/ui/button";
import { Note } from "@/ui/note";
import { Burst, NameOnMap } from "../job/air-map/marks";
import { OpenJournal } from "../session/open-journal";
import { usePreferences } from "../session/preferences";

interface Props {
  readonly jobId: string;
  readonly number: number;
  readonly shop: Shop;
  readonly customer: { readonly name: string; readonly contact: string } | undefined;
}

/** The page for the customer, of what the server has recorded: nothing that still waits on this device. */
export function HandoverPage(props: Props) {
  return (
    <OpenJournal jobId={props.jobId} number={props.number} newest>
      {({ recorded }) => <Handover {...props} recorded={recorded} />}
    </OpenJournal>
  );
}

/** One page: complaint, before and after, finding with its picture, what was done, left and to watch. */
function Handover({ jobId, number, recorded, shop, customer }: Props & { recorded: readonly JournalEntry[] }) {
  const { format } = usePreferences();
  const state = useMemo(() => foldJob(recorded, shop, Date.now()), [recorded, shop]);
  const page = handoverOf(state);
  const v = state.vehicle;
  const map = v ? airMapOf(layoutOf(v)) : undefined;
  const places = v ? findingPlaces(layoutOf(v), v) : [];
  const day = (iso: string) => formatDate(new Date(iso), "d MMM yyyy");
  return (
    <div className="mx-auto max-w-[52rem] p-4 sm:p-8 print:p-0">
      <nav className="no-print mb-6 flex flex-wrap gap-3">
        <LinkButton href={`/jobs/${jobId}`} look="bare">
          <ArrowLeft aria-hidden size={18} /> Back to the job
        </LinkButton>
        <span className="grow" />
        <Button onClick={() => window.print()}>
          <Printer aria-hidden size={18} /> Print
        </Button>
        <a className={buttonClass()} href={`/api/v1/jobs/${jobId}/handover`} download>
          <FileText aria-hidden size={18} /> PDF
        </a>
      </nav>
      <main className="flex flex-col gap-5 print:gap-3 print:text-[10.5pt]">
        <header className="flex flex-wrap items-end justify-between gap-x-6 border-b-2 border-ink pb-2">
          <div>
            <h1 className="text-2xl font-bold">{v ? [vehicleName(v), v.registration].filter(Boolean).join(" · ") : "Vehicle"}</h1>
            <p className="text-muted">
              {state.practice ? "Practice" : "Job"} {number}
              {state.handover ? ` · handed over ${day(state.handover.at)} by ${state.handover.by}` : " · not handed over yet"}
              {v?.odometer ? ` · ${format(v.odometer)}` : ""}
            </p>
          </div>
          <p className="sm:text-right print:text-right">
            <strong>{shop.name}</strong>
            {customer?.name && <span className="block text-muted">for {customer.name}</span>}
          </p>
        </header>
        {state.practice && (
          <Note tone="amber" as="p" tight>
            <strong className="text-amber">Practice.</strong> Case {state.practice}, a simulated car: this page is about no real
            one.
          </Note>
        )}
        {state.handover?.conditional && (
          <Note tone="amber" as="p" tight>
            <strong className="text-amber">Conditional handover.</strong> The proof is not complete: see below what is still owed.
          </Note>
        )}
        <Part title="Complaint">{state.story?.complaint ?? "Not written down."}</Part>
        <Part title="How far it is proved">{page.proved}</Part>
        {page.temporary.length > 0 && (
          <Note tone="amber" tight>
            {page.temporary.map((t) => (
              <p key={t.what}>
                <strong className="text-amber">Temporary{t.recheck && `, to be looked at again by ${day(t.recheck)}`}</strong>
                {t.limit && ` (only ${t.limit})`}: {t.what}
              </p>
            ))}
          </Note>
        )}
        {page.inspected && (
          <Part title="Inspected">
            <p>Tight: {page.inspected.tight.join(", ") || "nothing was proved so"}.</p>
            {page.inspected.leaking.length > 0 && <p className="font-bold">Leaking: {page.inspected.leaking.join(", ")}.</p>}
            <p className="text-muted">Not reached, so not known: {page.inspected.notReached.join(", ") || "nothing"}.</p>
          </Part>
        )}
        <section>
          <h2 className="mb-1 text-lg font-bold">Measured before and after</h2>
          <Comparisons list={page.comparisons.slice(0, ON_FIRST_SHEET)} jobId={jobId} />
          {[...page.codes, page.monitor]
            .filter((line) => line !== undefined)
            .map((line) => (
              <p key={line}>{line}</p>
            ))}
        </section>
        {state.findings.map((f) => {
          const extract = map && mapAround(map, f.body.joint, f.body.size && `≈ ${format(f.body.size, 1)}`);
          return (
            <section key={f.entry} className="grid gap-4 sm:grid-cols-[1fr_20rem] print:grid-cols-[1fr_8cm]">
              <div>
                <h2 className="mb-1 text-lg font-bold">Found</h2>
                <p>
                  <strong>{extract?.at.joint.name ?? places.find((p) => p.id === f.body.joint)?.name ?? "Another place"}</strong>
                  {f.body.size && ` (equivalent hole ≈ ${format(f.body.size)})`}: {f.body.what}
                </p>
                <p className="text-muted">{findingSurety(f.body)}</p>
                {(f.body.pictures ?? []).slice(0, 2).map((sha256) => (
                  // biome-ignore lint/performance/noImgElement: the server has made the thumbnail already
                  <img
                    key={sha256}
                    src={`/api/v1/jobs/${jobId}/pictures/${sha256}?thumbnail`}
                    alt="The finding, as photographed"
                    className="mt-2 mr-2 inline-block h-32 border border-line object-cover"
                  />
                ))}
              </div>
              {map && extract && (
                <svg
                  viewBox={`${extract.view.x} ${extract.view.y} ${extract.view.w} ${extract.view.h}`}
                  className="w-full border border-line"
                  role="img"
                  aria-label={`Air map around ${extract.at.joint.name}`}
                >
                  {map.zones.flatMap((z) =>
                    z.boxes.map((b) => (
                      <rect
                        key={`${z.zone} ${b.x} ${b.y}`}
                        x={b.x}
                        y={b.y}
                        width={b.w}
                        height={b.h}
                        rx={4}
                        fill="var(--raised)"
                        stroke="var(--edge)"
                      />
                    )),
                  )}
                  {extract.zones.map((z) => (
                    <NameOnMap key={z.id} name={z} colour="var(--ink)" />
                  ))}
                  <Burst place={extract.at} />
                  <NameOnMap name={extract.name} colour="var(--ember)" bold />
                </svg>
              )}
            </section>
          );
        })}
        {state.repairs.length > 0 && (
          <Part title="Done">
            <ul className="list-disc pl-5">
              {page.done.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
            {state.complaint && (
              <p>
                The complaint was tried again ({state.complaint.how}): {state.complaint.result === "gone" ? "gone" : "it remains"}
                .
              </p>
            )}
          </Part>
        )}
        {page.modified.length > 0 && (
          <Part title="Changed for good">
            <ul className="list-disc pl-5">
              {page.modified.map((m) => (
                <li key={m}>{m}</li>
              ))}
            </ul>
          </Part>
        )}
        {(page.setAside.length > 0 || page.unproved.length > 0) && (
          <Part title="Left open">
            <ul className="list-disc pl-5">
              {page.setAside.map((s) => (
                <li key={s.what}>
                  <strong>{s.what}</strong> left as it is: {s.reason}
                  {s.risk && `. Risk: ${s.risk}`}
                  {s.decision && `. Decided: ${s.decision}`}
                  {s.date && `. Looked at again by ${day(s.date)}`}
                </li>
              ))}
              {page.unproved.map((u) => (
                <li key={u}>{u}</li>
              ))}
            </ul>
          </Part>
        )}
        {state.handover && (
          <Part title="To know and to watch">
            <p>{state.handover.summary}</p>
            {state.handover.watch && <p>Watch: {state.handover.watch}</p>}
            {state.handover.comeBack && <p>Come back: {state.handover.comeBack}</p>}
            {state.handover.call && <p>We ask how it held on {day(state.handover.call)}.</p>}
          </Part>
        )}
        {page.outcomes.length > 0 && (
          <Part title="Since then">
            {page.outcomes.map((o) => (
              <p key={`${o.at} ${o.says}`}>
                {day(o.at)}: {o.says}
              </p>
            ))}
          </Part>
        )}
        {page.comparisons.length > ON_FIRST_SHEET && (
          <section className="break-before-page">
            <h2 className="mb-1 text-lg font-bold">Further readings</h2>
            <Comparisons list={page.comparisons.slice(ON_FIRST_SHEET)} jobId={jobId} />
          </section>
        )}
        <p className="border-t border-line pt-2 text-sm text-muted">
          Leak sizes are equivalent sharp-edged holes (discharge coefficient 0.61); intervals hold the truth in 95 of 100 cases.
        </p>
      </main>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-1 text-lg font-bold">{title}</h2>
      <div>{children}</div>
    </section>
  );
}

function Comparisons({ list, jobId }: { list: readonly Comparison[]; jobId: string }) {
  if (list.length === 0) return <p>No check told anything yet.</p>;
  return (
    <table className="w-full table-fixed text-left align-top">
      <thead>
        <tr className="border-b border-line text-sm text-muted">
          <th className="w-28 py-1 pr-3 font-normal">Check</th>
          <th className="pr-3 font-normal">Before the repair</th>
          <th className="font-normal">After the repair</th>
        </tr>
      </thead>
      <tbody>
        {list.map((c) => (
          <tr key={c.key} className="border-b border-line align-top">
            <th scope="row" className="py-2 pr-3 font-normal">
              {c.name}
            </th>
            <Cell summary={c.before} none="not measured" jobId={jobId} />
            <Cell summary={c.after} none="not repeated" jobId={jobId} />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Cell({ summary, none, jobId }: { summary: Summary | undefined; none: string; jobId: string }) {
  const { number, reading, sentence } = usePreferences();
  if (!summary) return <td className="py-2 pr-3 text-muted">{none}</td>;
  return (
    <td className="py-2 pr-3">
      {summary.word && <strong>{summary.word}: </strong>}
      {sentence(summary.headline)}
      {summary.measures.slice(0, 2).map((m) => (
        <span key={m.name} className="block text-sm text-muted">
          {m.name}: {measureText(m, { quantity: reading, number })}
        </span>
      ))}
      {summary.pictures.slice(0, 1).map((sha256) => (
        // biome-ignore lint/performance/noImgElement: the server has made the thumbnail already
        <img
          key={sha256}
          src={`/api/v1/jobs/${jobId}/pictures/${sha256}?thumbnail`}
          alt="The reading, as photographed"
          className="mt-1 h-24 border border-line object-cover"
        />
      ))}
    </td>
  );
}
