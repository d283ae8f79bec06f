"use client";

import { ArrowLeft, Keyboard } from "lucide-react";
import Link from "next/link";
import { useCallback, useDeferredValue, useMemo, useState } from "react";
import { type DeviceJournal, STATIONS, type StationId } from "@/core/journal";
import type { Shop } from "@/core/shop/settings";
import { FACT_NAMES, vehicleName } from "@/core/vehicle";
import { IconButton } from "@/ui/button";
import { ThemeSwitch } from "@/ui/theme-switch";
import { useKeys } from "../session/keys";
import { OpenJournal } from "../session/open-journal";
import { PersonButton } from "../session/person";
import { Waiting } from "../session/waiting";
import { AirMapView } from "./air-map/air-map";
import { Conditions } from "./conditions";
import { JournalButton } from "./journal-dialog";
import { KeysDialog } from "./keys-dialog";
import { Ledger } from "./ledger";
import { type Overlay, OverlayProvider } from "./overlay";
import { StationBoundary } from "./station-boundary";
import { CheckStation } from "./stations/check";
import { FindStation } from "./stations/find";
import { FixStation } from "./stations/fix";
import { HandoverStation } from "./stations/handover";
import { LookStation } from "./stations/look";
import { ProveStation } from "./stations/prove";
import { ScanStation } from "./stations/scan";
import { type Customer, StoryStation } from "./stations/story";
import { SuspectsStation } from "./stations/suspects";
import { JobProvider, useJob, useJournal } from "./use-job";
import { WorkLine } from "./work-line";

interface BenchProps {
  readonly jobId: string;
  readonly number: number;
  readonly shop: Shop;
  readonly customer: Customer | undefined;
}

/** A job's screen, once its journal is here. */
export function Bench(props: BenchProps) {
  return (
    <OpenJournal jobId={props.jobId} number={props.number}>
      {(journal) => <OpenBench {...props} journal={journal} />}
    </OpenJournal>
  );
}

/** Work line, air map, the station's work, ledger. */
function OpenBench({ jobId, number, journal, shop, customer }: BenchProps & { journal: DeviceJournal }) {
  const job = useJournal(jobId, journal, shop);
  const [station, setStation] = useState<StationId>(job.state.nextStation.station);
  const [overlay, setOverlay] = useState<Overlay>({});
  const [keys, setKeys] = useState(false);
  const store = useMemo(() => ({ overlay, setOverlay }), [overlay]);
  // The work line answers at once; a long station's work follows.
  const shown = useDeferredValue(station);
  const go = useCallback((next: StationId) => setStation(next), []);

  useKeys({
    ...Object.fromEntries(STATIONS.map((s, i) => [`station-${i + 1}`, () => go(s)])),
    keys: () => setKeys(true),
  });

  return (
    <JobProvider value={job}>
      <OverlayProvider value={store}>
        <div className="grid min-h-dvh grid-cols-1 lg:h-dvh lg:min-h-[42rem] lg:grid-cols-[6.5rem_minmax(0,1fr)_21rem] lg:grid-rows-[auto_auto_minmax(0,1fr)]">
          <WorkLine current={station} onOpen={go} />
          <Header number={number} onKeys={() => setKeys(true)} />
          <div className="border-b border-line lg:col-span-2 lg:col-start-2">
            <AirMapView />
          </div>
          <main key={shown} className="relative min-w-0 p-4 sm:p-5 lg:overflow-y-auto" aria-label="Now">
            <StationBoundary jobId={jobId}>
              <Station station={shown} go={go} customer={customer} />
            </StationBoundary>
          </main>
          <Ledger go={go} />
        </div>
        <KeysDialog open={keys} onOpenChange={setKeys} />
      </OverlayProvider>
    </JobProvider>
  );
}

function Header({ number, onKeys }: { number: number; onKeys: () => void }) {
  const { state } = useJob();
  const v = state.vehicle;
  const chased = state.codes.filter((c) => !c.asideReason);
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-1 lg:col-span-2 lg:col-start-2 lg:flex-nowrap">
      <Link
        href="/"
        aria-label="Bay board"
        className="-ml-2 inline-flex size-11 items-center justify-center rounded-md hover:bg-raised"
      >
        <ArrowLeft aria-hidden size={20} />
      </Link>
      <h1 className="text-xl font-bold whitespace-nowrap">Job {number}</h1>
      <p className="min-w-0 truncate text-muted">
        {v ? (
          <>
            {v.registration && <span className="text-ink">{v.registration} · </span>}
            {vehicleName(v)}
            {v.unknown && (
              <span className="text-amber"> · not known yet: {v.unknown.map((fact) => FACT_NAMES[fact]).join(", ")}</span>
            )}
          </>
        ) : (
          "Vehicle not described yet"
        )}
      </p>
      {chased.length > 0 && (
        <p className="min-w-0 truncate font-mono text-sm text-muted">{chased.map((c) => c.code).join(" ")}</p>
      )}
      <div className="ml-auto flex flex-wrap items-center gap-x-2 lg:shrink-0 lg:flex-nowrap">
        <Waiting brief />
        <Conditions />
        <JournalButton />
        <PersonButton />
        <span className="max-lg:hidden">
          <IconButton label="Keys" onClick={onKeys}>
            <Keyboard aria-hidden size={20} />
          </IconButton>
        </span>
        <ThemeSwitch />
      </div>
    </header>
  );
}

function Station({ station, go, customer }: { station: StationId; go: (s: StationId) => void; customer: Customer | undefined }) {
  switch (station) {
    case "story":
      return <StoryStation customer={customer} />;
    case "scan":
      return <ScanStation />;
    case "look":
      return <LookStation />;
    case "suspects":
      return <SuspectsStation go={go} />;
    case "check":
      return <CheckStation />;
    case "find":
      return <FindStation />;
    case "fix":
      return <FixStation />;
    case "prove":
      return <ProveStation go={go} />;
    case "handover":
      return <HandoverStation go={go} />;
  }
}
