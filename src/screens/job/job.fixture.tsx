import { render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ReactNode, useMemo, useState } from "react";
import { contextOf } from "@/core/checks";
import { foldJob, type JournalEntry } from "@/core/journal";
import { JOB, minute, SHOP, Writer } from "@/core/journal/journal.fixture";
import { airMapOf, type VehicleRecord } from "@/core/vehicle";
import type { NewEntry } from "../session/device";
import { PreferencesProvider } from "../session/preferences";
import { OverlayProvider } from "./overlay";
import { type Job, JobProvider } from "./use-job";

const NOW = Date.parse(minute(600));

/** A journal on a described car, its conditions set. */
export function journalOf(facts: VehicleRecord): Writer {
  const journal = new Writer();
  journal.add("opened", { number: 7 });
  journal.add("vehicle", facts);
  journal.add("conditions", {
    ambient: { value: 1006, unit: "hPa", kind: "absolute" },
    bayTemperature: { value: 17, unit: "°C" },
    engine: "warm",
  });
  return journal;
}

/** Answer of the server to what is appended: nothing against it, or what is wrong; at once, or when it answers */
type Answer = string | undefined | Promise<string | undefined>;

/** Stands where the bench would: a job whose journal lives in this page alone. */
function TestJob({ journal, answer, children }: { journal: Writer; answer: Answer; children: ReactNode }) {
  const [entries, setEntries] = useState<readonly JournalEntry[]>(journal.entries);
  const [side, setSide] = useState<HTMLElement | null>(null);
  const [overlay, setOverlay] = useState({});
  const job = useMemo((): Job => {
    const state = foldJob(entries, SHOP, NOW);
    const context = state.vehicle && contextOf(state.vehicle, SHOP);
    return {
      id: JOB,
      state,
      shop: SHOP,
      layout: context?.layout,
      context,
      map: context && airMapOf(context.layout),
      entries,
      append: async (...wanted: NewEntry[]) => {
        const refused = await answer;
        if (refused) return refused;
        for (const { kind, body, ...more } of wanted) journal.add(kind, body as never, more);
        setEntries([...journal.entries]);
        return undefined;
      },
      settled: async () => journal.entries,
    };
  }, [entries, journal, answer]);
  const store = useMemo(() => ({ overlay, setOverlay, side }), [overlay, side]);
  return (
    <PreferencesProvider>
      <JobProvider value={job}>
        <OverlayProvider value={store}>
          <main>{children}</main>
          <aside ref={setSide} />
        </OverlayProvider>
      </JobProvider>
    </PreferencesProvider>
  );
}

/** Puts a part of the bench on a page, and hands over what a technician does with it. */
export function onBench(journal: Writer, children: ReactNode, answer?: Answer) {
  const page = render(
    <TestJob journal={journal} answer={answer}>
      {children}
    </TestJob>,
  );
  return { ...page, user: userEvent.setup(), journal };
}
