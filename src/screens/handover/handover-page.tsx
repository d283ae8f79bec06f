"use client";

import { format as formatDate } from "date-fns";
import { ArrowLeft, FileText, Printer } from "lucide-react";
import { useMemo } from "react";
import { intervalText, measureText } from "@/core/checks";
import {
  type Comparison,
  foldJob,
  type HandoverBlock,
  type HandoverLine,
  handoverSheet,
  type JournalEntry,
  type Summary,
} from "@/core/journal";
import type { Shop } from "@/core/shop/settings";
import { type AirMap, airMapOf, layoutOf, mapAround } from "@/core/vehicle";
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

/** The customer's page as it is printed, with its ways back and on. */
function Handover({ jobId, number, recorded, shop, customer }: Props & { recorded: readonly JournalEntry[] }) {
  const { format } = usePreferences();
  const state = useMemo(() => foldJob(recorded, shop, Date.now()), [recorded, shop]);
  const day = (iso: string) => formatDate(new Date(iso), "d MMM yyyy");
  const sheet = handoverSheet(state, { number, shop: shop.name, customer: customer?.name }, { day, reading: format });
  const map = state.vehicle && airMapOf(layoutOf(state.vehicle));
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
            <h1 className="text-2xl font-bold">{sheet.title}</h1>
            <p className="text-muted">{sheet.subtitle}</p>
          </div>
          <p className="sm:text-right print:text-right">
            <strong>{sheet.shop}</strong>
            {sheet.customer && <span className="block text-muted">for {sheet.customer}</span>}
          </p>
        </header>
        {sheet.blocks.map((block, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the sheet is drawn anew as a whole
          <Block key={i} block={block} jobId={jobId} map={map} />
        ))}
        <p className="border-t border-line pt-2 text-sm text-muted">{sheet.footnote}</p>
      </main>
    </div>
  );
}

function Block({ block, jobId, map }: { block: HandoverBlock; jobId: string; map: AirMap | undefined }) {
  if (block.kind === "notice")
    return (
      <Note tone="amber" tight>
        <Lines lines={block.lines} strong="text-amber" />
      </Note>
    );
  const title = <h2 className="mb-1 text-lg font-bold">{block.title}</h2>;
  if (block.kind === "part")
    return (
      <section>
        {title}
        <Lines lines={block.lines} />
      </section>
    );
  if (block.kind === "readings")
    return (
      <section className={block.further && "break-before-page"}>
        {title}
        {block.comparisons.length > 0 && <Comparisons list={block.comparisons} jobId={jobId} />}
        <Lines lines={block.lines} />
      </section>
    );
  return (
    <section className="grid gap-4 sm:grid-cols-[1fr_20rem] print:grid-cols-[1fr_8cm]">
      <div>
        {title}
        <Lines lines={block.lines} />
        {block.pictures.map((sha256) => (
          // biome-ignore lint/performance/noImgElement: the server has made the thumbnail already
          <img
            key={sha256}
            src={`/api/v1/jobs/${jobId}/pictures/${sha256}?thumbnail`}
            alt="The finding, as photographed"
            className="mt-2 mr-2 inline-block h-32 border border-line object-cover"
          />
        ))}
      </div>
      {map && <FoundOnMap map={map} block={block} />}
    </section>
  );
}

/** Lines of a block: what stands in a row of items is a list. */
function Lines({ lines, strong = "" }: { lines: readonly HandoverLine[]; strong?: string }) {
  const drawn = (l: HandoverLine) => (
    <>
      {l.strong && <strong className={strong}>{l.strong}</strong>}
      {l.text}
    </>
  );
  const items = lines.filter((l) => l.look === "item");
  return (
    <>
      {items.length > 0 && (
        <ul className="list-disc pl-5">
          {items.map((l) => (
            <li key={`${l.strong} ${l.text}`}>{drawn(l)}</li>
          ))}
        </ul>
      )}
      {lines
        .filter((l) => l.look !== "item")
        .map((l) => (
          <p
            key={`${l.strong} ${l.text}`}
            className={l.look === "muted" ? "text-muted" : l.look === "bold" ? "font-bold" : undefined}
          >
            {drawn(l)}
          </p>
        ))}
    </>
  );
}

/** The part of the air map that a finding lies in; nothing where it lies at no joint of it. */
function FoundOnMap({ map, block }: { map: AirMap; block: Extract<HandoverBlock, { kind: "finding" }> }) {
  const { format } = usePreferences();
  const extract = mapAround(map, block.joint, block.size && `≈ ${format(block.size, 1)}`);
  if (!extract) return null;
  return (
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
  );
}

function Comparisons({ list, jobId }: { list: readonly Comparison[]; jobId: string }) {
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
          {intervalText(m, number)}
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
