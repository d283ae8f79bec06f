import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { contextOf, NATURAL, VAPOUR } from "@/core/core.fixture";
import { looksOf } from "@/core/journal";
import { JOB } from "@/core/journal/journal.fixture";
import { load, save } from "../../session/storage";
import { CORRECTS } from "../checks/use-record-check";
import { journalOf, onBench } from "../job.fixture";
import { JournalButton } from "../journal-dialog";
import { LookStation } from "./look";
import { ScanStation } from "./scan";

// The journal's list measures what is in sight; the test's page has no sizes, so everything is.
vi.mock("@tanstack/react-virtual", () => ({
  useVirtualizer: ({ count, getItemKey }: { count: number; getItemKey: (i: number) => string }) => ({
    getTotalSize: () => count * 68,
    measureElement: () => {},
    getVirtualItems: () => Array.from({ length: count }, (_, index) => ({ index, key: getItemKey(index), start: 68 * index })),
  }),
}));

const DRAFT = `pelota.draft.${JOB}.look`;

describe("the look", () => {
  it("records what was marked, with its notes, and nothing of what was not", async () => {
    const { user, journal } = onBench(journalOf(NATURAL), <LookStation />);
    const asked = looksOf(contextOf(NATURAL), { codes: [], ownCodes: [] }).asked.map(({ id }) => id);
    await user.click(screen.getByRole("button", { name: "Record the look" }));
    expect(screen.getByRole("alert").textContent).toContain("Nothing looked at yet");
    const [first, second] = screen.getAllByRole("radio", { name: "Not OK" });
    await user.click(first as HTMLElement);
    await user.type(screen.getByRole("textbox", { name: "What was found" }), " new clamps ");
    await user.click(second as HTMLElement);
    // The same place marked anew is one mark.
    await user.click(screen.getAllByRole("radio", { name: "OK" })[1] as HTMLElement);
    await user.click(screen.getByRole("button", { name: "Record the look" }));
    await waitFor(() => expect(journal.entries.at(-1)?.kind).toBe("judged"));
    expect(journal.entries.find((e) => e.kind === "check")?.body).toEqual({
      check: "look",
      record: {
        items: [
          { id: asked[0], state: "found", note: "new clamps" },
          { id: asked[1], state: "fine" },
        ],
        asked,
      },
    });
    await waitFor(() => expect(load(DRAFT)).toBeUndefined());
  });

  it("stands with whatever an older version or a damaged device kept of it", () => {
    for (const kept of [[], "x", { items: { filter: { state: "fine" } } }, { items: "no", pictures: 3 }]) {
      save(DRAFT, kept);
      const { unmount } = onBench(journalOf(NATURAL), <LookStation />);
      expect(screen.getByText(/^0 of \d+ marked$/)).toBeTruthy();
      unmount();
    }
  });

  it("is corrected in a copy at its own station", async () => {
    const journal = journalOf(NATURAL);
    const id = journal.add("check", { check: "look", record: { items: [{ id: "filter", state: "found", note: "oily" }] } });
    const went = vi.fn();
    const { user, unmount } = onBench(journal, <JournalButton go={went} />);
    await user.click(screen.getByRole("button", { name: "Journal" }));
    await user.click(screen.getByRole("button", { name: /^Strike out: Look and feel/ }));
    await user.click(screen.getByRole("button", { name: "Correct a copy instead" }));
    expect(went).toHaveBeenCalledWith("look", "look");
    expect(load<Record<string, unknown>>(DRAFT)?.[CORRECTS]).toMatchObject({ entry: id });
    unmount();
    const again = onBench(journal, <LookStation />);
    await again.user.clear(screen.getByRole("textbox", { name: "What was found" }));
    await again.user.type(screen.getByRole("textbox", { name: "What was found" }), "torn");
    await again.user.click(screen.getByRole("button", { name: "Record the look" }));
    await waitFor(() =>
      expect(journal.entries.find((e) => e.corrects === id)?.body).toMatchObject({
        record: { items: [{ id: "filter", state: "found", note: "torn" }] },
      }),
    );
  });
});

describe("the codes", () => {
  const codes = [
    { code: "P0442", status: "stored" as const, module: "engine", criteria: { leak: { value: 0.02, unit: "in" as const } } },
    { code: "P0171", status: "current" as const, freezeFrame: "720 rpm" },
  ];
  const bench = () => {
    const journal = journalOf(VAPOUR);
    journal.add("codes", { codes });
    return onBench(journal, <ScanStation />);
  };
  const recorded = (journal: ReturnType<typeof journalOf>) => journal.entries.findLast((e) => e.kind === "codes")?.body;

  it("stand as they were recorded, and what is said about one leaves the others alone", async () => {
    const { user, journal } = bench();
    expect(screen.getByRole("button", { name: "Record the codes" })).toHaveProperty("disabled", true);
    await user.type(screen.getByRole("textbox", { name: "P0171 not related: why" }), "cap was off");
    await user.click(screen.getByRole("button", { name: "Remove P0442" }));
    expect(screen.getByRole("textbox", { name: "P0171 not related: why" })).toHaveProperty("value", "cap was off");
    await user.click(screen.getByRole("button", { name: "Record the codes" }));
    await waitFor(() => expect(recorded(journal)).toEqual({ codes: [{ ...codes[1], asideReason: "cap was off" }] }));
  });

  it("that cannot be read are said at their field, and nothing is recorded without them", async () => {
    const { user, journal } = bench();
    const before = journal.entries.length;
    const leak = screen.getByRole("textbox", { name: "P0442: leak its criteria name" });
    await user.clear(leak);
    await user.type(leak, "half a furlong");
    await user.click(screen.getByRole("button", { name: "Record the codes" }));
    expect((await screen.findAllByRole("alert")).length).toBeGreaterThan(0);
    expect(journal.entries).toHaveLength(before);
  });

  it("typed and not added yet are recorded with the others, or refused where they are none", async () => {
    const { user, journal } = bench();
    await user.type(screen.getByRole("textbox", { name: "Code" }), "lean!");
    await user.click(screen.getByRole("button", { name: "Record the codes" }));
    expect((await screen.findAllByRole("alert"))[0]?.textContent).toContain("like P0171");
    await user.clear(screen.getByRole("textbox", { name: "Code" }));
    await user.type(screen.getByRole("textbox", { name: "Code" }), "p0300");
    await user.click(screen.getByRole("button", { name: "Record the codes" }));
    await waitFor(() => expect(recorded(journal)).toEqual({ codes: [...codes, { code: "P0300", status: "current" }] }));
  });
});
