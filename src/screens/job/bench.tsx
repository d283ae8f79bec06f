"use client";

import { ArrowLeft, Keyboard } from "lucide-react";
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { CHECK_IDS, CHECKS, type CheckId } from "@/core/checks";
import { type DeviceJournal, type JobState, STATIONS, type StationId } from "@/core/journal";
import type { Shop } from "@/core/shop/settings";
import type { Tally } from "@/core/suspects";
import { FACT_NAMES, vehicleName } from "@/core/vehicle";
import { IconButton } from "@/ui/button";
import { focusHeading } from "@/ui/focus-heading";
import { PageLink } from "@/ui/page-link";
import { ThemeSwitch } from "@/ui/theme-switch";
import { useKeys } from "../session/keys";
import { experienceLately, keepShop } from "../session/known-shop";
import { OpenJournal } from "../session/open-journal";
import { PersonButton } from "../session/person";
import { useTerms } from "../session/preferences";
import { Waiting } from "../session/waiting";
import { AirMapView } from "./air-map/air-map";
import { Conditions } from "./conditions";
import { EngineCardProvider } from "./engine-card";
import { JournalButton } from "./journal-dialog";
import { KeysDialog } from "./keys-dialog";
import { Ledger } from "./ledger";
import { NOW } from "./now";
import { Origin } from "./origin";
import { type Overlay, OverlayProvider } from "./overlay";
import { BayStrip } from "./practice/bay-strip";
import { BayProvider } from "./practice/use-bay";
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
import { type Go, JobProvider, useJob, useJournal } from "./use-job";
import { Walk } from "./walk";
import { WorkLine } from "./work-line";

interface BenchProps {
  readonly jobId: string;
  /** The server's; an imported job may have another than it was opened with */
  readonly number?: number;
  readonly shop: Shop;
  readonly customer?: Customer | undefined;
  /** Experience from the shop's own proved jobs of such a car */
  readonly experience?: Tally | undefined;
}

/** Where the skip link leads */

/** A job's screen, once its journal is here. */
export function Bench(props: BenchProps) {
  return (
    <OpenJournal jobId={props.jobId} number={props.number}>
      {(journal) => <OpenBench {...props} journal={journal} />}
    </OpenJournal>
  );
}

/** Where the bench is opened. */
interface Place {
  readonly station: StationId;
  readonly visit: number;
  readonly wanted: CheckId | undefined;
  /** The part or way in that the check is wanted at */
  readonly at?: string | undefined;
}

/** The check that the address asks for, where it is one: by its name, or as the best one next. */
function wantedCheck({ next }: Pick<JobState, "next">): CheckId | undefined {
  const asked = new URLSearchParams(location.search).get("check");
  if (asked === "best") return next.find((n) => CHECKS[n.check].shelf && !n.notNow)?.check;
  return CHECK_IDS.find((id) => id === asked);
}

/** Work line, air map, the station's work, ledger. */
function OpenBench({ jobId, number, journal, shop, customer, experience }: BenchProps & { journal: DeviceJournal }) {
  const job = useJournal(jobId, journal, shop, experience);
  useEffect(() => keepShop(shop), [shop]);
  useEffect(() => experienceLately.keep(jobId, experience), [jobId, experience]);
  // A job that was begun at an instrument opens there. Each visit is counted: a check that is asked for is found as it is kept
  // now, also where it stands already.
  const [place, setPlace] = useState(() => {
    const wanted = wantedCheck(job.state);
    return { station: wanted ? "check" : job.state.nextStation.station, visit: 0, wanted } as Place;
  });
  const [overlay, setOverlay] = useState<Overlay>({});
  const [keys, setKeys] = useState(false);
  const [side, setSide] = useState<HTMLElement | null>(null);
  const [instrument, setInstrument] = useState<CheckId>();
  const store = useMemo(() => ({ overlay, setOverlay, side }), [overlay, side]);
  // The work line answers at once; a long station's work follows.
  const shown = useDeferredValue(place);
  const go = useCallback<Go>(
    (station, wanted, at) =>
      // Where somebody stands already nothing moves, unless a check was asked for by name.
      setPlace((now) => (now.station === station && !wanted ? now : { station, visit: now.visit + 1, wanted, at })),
    [],
  );
  const showKeys = useCallback(() => setKeys(true), []);

  // Opened by itself, the station begins with what is in hand there.
  const open = useCallback((next: StationId) => go(next), [go]);

  useKeys({
    ...Object.fromEntries(STATIONS.map((s, i) => [`station-${i + 1}`, () => go(s)])),
    keys: showKeys,
  });

  // A station that is opened begins at its top, and its heading is what is read next.
  const before = useRef(shown);
  useEffect(() => {
    if (before.current === shown) return;
    before.current = shown;
    window.scrollTo({ top: 0 });
    focusHeading(`#${NOW} h2`);
  }, [shown]);

  return (
    <JobProvider value={job}>
      <OverlayProvider value={store}>
        <BayProvider>
          <EngineCardProvider>
            <div className="grid min-h-dvh grid-cols-1 lg:h-dvh lg:min-h-[42rem] lg:grid-cols-[6.5rem_minmax(0,1fr)_21rem] lg:grid-rows-[auto_auto_minmax(0,1fr)]">
              <a
                href={`#${NOW}`}
                className="sr-only focus:not-sr-only focus:absolute focus:z-20 focus:bg-accent focus:p-3 focus:text-on-accent"
              >
                To the work
              </a>
              <WorkLine current={place.station} onOpen={open} />
              <Header number={number ?? job.state.number} go={go} onKeys={showKeys} />
              <div className="border-b border-line lg:col-span-2 lg:col-start-2">
                <Origin />
                <BayStrip go={go} />
                <AirMapView station={shown.station} instrument={instrument} />
              </div>
              <main
                id={NOW}
                tabIndex={-1}
                key={shown.visit}
                className="relative min-w-0 p-4 sm:p-5 lg:overflow-y-auto"
                aria-label="Now"
              >
                <StationBoundary jobId={jobId}>
                  <Station
                    station={shown.station}
                    go={go}
                    wanted={shown.wanted}
                    at={shown.at}
                    onInstrument={setInstrument}
                    customer={customer}
                  />
                </StationBoundary>
              </main>
              <Ledger go={go} onSide={setSide} />
            </div>
            <Walk go={go} />
            <KeysDialog open={keys} onOpenChange={setKeys} />
          </EngineCardProvider>
        </BayProvider>
      </OverlayProvider>
    </JobProvider>
  );
}

const Header = memo(function Header({ number, go, onKeys }: { number: number; go: Go; onKeys: () => void }) {
  const terms = useTerms();
  const { state } = useJob();
  const v = state.vehicle;
  const chased = state.codes.filter((c) => !c.asideReason);
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-1 max-sm:gap-x-2 max-sm:px-1 lg:col-span-2 lg:col-start-2 lg:flex-nowrap">
      <PageLink
        href="/"
        aria-label="Bay board"
        className="-ml-2 inline-flex size-11 shrink-0 items-center max-sm:ml-0 justify-center rounded-md hover:bg-raised"
      >
        <ArrowLeft aria-hidden size={20} />
      </PageLink>
      <h1 className="text-xl font-bold whitespace-nowrap">
        {number ? `${state.practice ? "Practice" : "Job"} ${number}` : "No number yet"}
      </h1>
      <p className="min-w-0 truncate text-muted max-sm:flex-1">
        {v ? (
          <>
            {v.registration && <span className="text-ink">{v.registration} · </span>}
            {terms(vehicleName(v))}
            {v.unknown && (
              <span className="text-amber"> · not known yet: {v.unknown.map((fact) => FACT_NAMES[fact]).join(", ")}</span>
            )}
          </>
        ) : (
          "Vehicle not described yet"
        )}
      </p>
      {chased.length > 0 && (
        <p className="max-w-40 shrink-0 truncate font-mono text-sm text-muted max-sm:hidden">
          {chased.map((c) => c.code).join(" ")}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-2 empty:hidden max-sm:order-last max-sm:basis-full sm:ml-auto">
        <Waiting brief />
      </div>
      <div className="ml-auto flex shrink-0 items-center gap-x-2 max-sm:gap-x-0 sm:ml-0">
        <Conditions />
        <JournalButton go={go} />
        <PersonButton brief />
        <span className="max-lg:hidden">
          <IconButton label="Keys" onClick={onKeys}>
            <Keyboard aria-hidden size={20} />
          </IconButton>
        </span>
        <span className="max-sm:hidden">
          <ThemeSwitch />
        </span>
      </div>
    </header>
  );
});

interface StationProps {
  readonly station: StationId;
  readonly go: Go;
  readonly wanted: CheckId | undefined;
  readonly at: string | undefined;
  /** Told which instrument has the room; undefined when none has it any more */
  readonly onInstrument: (instrument?: CheckId) => void;
  readonly customer: Customer | undefined;
}

/** Drawn when it itself changes: the key of another station answers without it. */
const Station = memo(function Station({ station, go, wanted, at, onInstrument, customer }: StationProps) {
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
      return <CheckStation wanted={wanted} at={at} onInstrument={onInstrument} />;
    case "find":
      return <FindStation />;
    case "fix":
      return <FixStation />;
    case "prove":
      return <ProveStation go={go} />;
    case "handover":
      return <HandoverStation go={go} />;
  }
});
