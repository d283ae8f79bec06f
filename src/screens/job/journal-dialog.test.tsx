import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { vacuum } from "@/core/checks/records.fixture";
import { NATURAL } from "@/core/core.fixture";
import { foldJob } from "@/core/journal";
import { JOB, SHOP } from "@/core/journal/journal.fixture";
import { load, save } from "../session/storage";
import { CORRECTS } from "./checks/use-record-check";
import { journalOf, onBench } from "./job.fixture";
import { JournalButton } from "./journal-dialog";
import { CheckStation } from "./stations/check";

// The list measures what is in sight; the test's page has no sizes, so everything is.
vi.mock("@tanstack/react-virtual", () => ({
  useVirtualizer: ({ count, getItemKey }: { count: number; getItemKey: (i: number) => string }) => ({
    getTotalSize: () => count * 68,
    measureElement: () => {},
    getVirtualItems: () => Array.from({ length: count }, (_, index) => ({ index, key: getItemKey(index), start: 68 * index })),
  }),
}));

function withCheck() {
  const journal = journalOf(NATURAL);
  const id = journal.add("check", { check: "vacuum", record: vacuum });
  return { journal, id };
}
const outcomes = (entries: Parameters<typeof foldJob>[0]) =>
  foldJob(entries, SHOP, Date.parse("2026-03-02T18:00:00Z")).checks.map((c) => [c.check, c.verdict.outcome]);

describe("a wrong line", () => {
  it("shows what it says before it is taken out, and is put back as it was", async () => {
    const { journal } = withCheck();
    const { user } = onBench(journal, <JournalButton go={() => {}} />);
    const before = outcomes(journal.entries);
    await user.click(screen.getByRole("button", { name: "Journal" }));
    await user.click(screen.getByRole("button", { name: /^Strike out: Intake vacuum/ }));
    expect(screen.getByText(/^It reads:/).textContent).toContain("Intake vacuum:");
    await user.type(screen.getByRole("textbox", { name: "Why it is wrong" }), "other car");
    await user.click(
      within(screen.getByRole("textbox", { name: "Why it is wrong" }).closest("form") as HTMLElement).getByRole("button", {
        name: "Strike out",
      }),
    );
    await waitFor(() => expect(outcomes(journal.entries)).toEqual([]));
    await user.click(screen.getByRole("button", { name: /^Put back: / }));
    await waitFor(() => expect(outcomes(journal.entries)).toEqual(before));
    await waitFor(() => expect(screen.queryByRole("button", { name: /^Put back: / })).toBeNull());
  });

  it("is corrected in a copy: same time, same line, nothing lost, and no new check", async () => {
    const { journal, id } = withCheck();
    const went = vi.fn();
    const { user, unmount } = onBench(journal, <JournalButton go={went} />);
    await user.click(screen.getByRole("button", { name: "Journal" }));
    await user.click(screen.getByRole("button", { name: /^Strike out: Intake vacuum/ }));
    await user.click(screen.getByRole("button", { name: "Correct a copy instead" }));
    expect(went).toHaveBeenCalledWith("check", "vacuum");
    expect(load<Record<string, unknown>>(`pelota.draft.${JOB}.vacuum`)?.[CORRECTS]).toMatchObject({ entry: id });
    unmount();
    const bench = onBench(journal, <CheckStation wanted="vacuum" onInstrument={() => {}} />);
    expect(screen.getByText(/^A copy of what was recorded/)).toBeDefined();
    const box = screen.getByRole("textbox", { name: "Vacuum at idle" });
    await waitFor(() => expect(box).toHaveProperty("value", "19.5 inHg"));
    await bench.user.clear(box);
    await bench.user.type(box, "12 inHg");
    await bench.user.click(screen.getByRole("button", { name: "Record the check" }));
    await waitFor(() => expect(journal.entries.at(-1)?.kind).toBe("judged"));
    const root = journal.entries.find((e) => e.id === id);
    expect(journal.entries.at(-2)).toMatchObject({ kind: "check", corrects: id, at: root?.at });
    // What it was read under is what it was, not what the bay is like now.
    expect(journal.entries.at(-2)?.body).toMatchObject({ record: { ambient: vacuum.ambient } });
    expect(outcomes(journal.entries)).toEqual([["vacuum", "fail"]]);
  });

  it("is not copied over a check that is in hand: that would be lost", async () => {
    const { journal } = withCheck();
    save(`pelota.draft.${JOB}.vacuum`, { vacuum: "7", startedAt: "2026-03-02T09:00:00Z" });
    const went = vi.fn();
    const { user } = onBench(journal, <JournalButton go={went} />);
    await user.click(screen.getByRole("button", { name: "Journal" }));
    await user.click(screen.getByRole("button", { name: /^Strike out: Intake vacuum/ }));
    await user.click(screen.getByRole("button", { name: "Correct a copy instead" }));
    expect(went).not.toHaveBeenCalled();
    expect(screen.getByText(/is in hand: record or discard that first/)).toBeDefined();
    expect(load<{ vacuum: string }>(`pelota.draft.${JOB}.vacuum`)?.vacuum).toBe("7");
  });
});
