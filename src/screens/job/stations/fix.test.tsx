import { act, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { NATURAL } from "@/core/core.fixture";
import type { Bodies } from "@/core/journal";
import { journalOf, onBench } from "../job.fixture";
import { useJob } from "../use-job";
import { FixStation } from "./fix";

const SPLIT: Bodies["finding"] = {
  joint: "pcv-hose",
  what: "split",
  confirmed: true,
  confirmedBy: "seen",
  evidence: [],
  failed: { why: "age" },
};
function found() {
  const journal = journalOf(NATURAL);
  journal.add("finding", SPLIT);
  return journal;
}

function FoundMeanwhile() {
  const { append } = useJob();
  return (
    <button type="button" onClick={() => void append({ kind: "finding", body: SPLIT })}>
      Found meanwhile
    </button>
  );
}

describe("a repair", () => {
  it("says at its field what is missing, and is recorded with what stays off", async () => {
    const { user, journal } = onBench(found(), <FixStation />);
    await user.click(screen.getByRole("button", { name: "Record the repair" }));
    const what = screen.getByRole("textbox", { name: "What was done" });
    expect(what.getAttribute("aria-invalid")).toBe("true");
    expect(document.activeElement).toBe(what);
    await user.type(what, "cleaned it");
    // Answered, a complaint is gone before the field is left: the button below does not move away under a finger.
    await waitFor(() => expect(what.getAttribute("aria-invalid")).not.toBe("true"));
    expect(document.activeElement).toBe(what);
    expect(await screen.findByText(/say whether it was cleaned, corrected or renewed/)).toBeTruthy();
    await user.type(screen.getByRole("textbox", { name: "Parts, one a line" }), "1 PCV hose");
    await user.type(screen.getByRole("textbox", { name: "Labour, minutes" }), "25 min");
    const off = within(screen.getByRole("group", { name: "Hoses, caps and plugs still off or in" }));
    await user.click(off.getAllByRole("button")[0] as HTMLElement);
    await user.type(off.getByRole("searchbox"), "oil cap{Enter}");
    await user.type(screen.getByRole("textbox", { name: /Covers and panels/ }), "engine cover");
    await user.click(screen.getByRole("button", { name: "Record the repair" }));
    expect(await screen.findByText(/25 min · 1 × PCV hose/)).toBeTruthy();
    expect(journal.entries.slice(-3).map((e) => [e.kind, e.body])).toMatchObject([
      ["displaced", { what: "Oil cap off", joint: "oil-cap" }],
      ["displaced", { what: "engine cover", elsewhere: true }],
      ["repair", { places: ["pcv-hose"], parts: [{ count: 1, name: "PCV hose" }], labourMinutes: 25 }],
    ]);
    expect(what).toHaveProperty("value", "");
  });

  it("takes a complaint back that is answered by what is found meanwhile, on this device or another", async () => {
    const { user, journal } = onBench(
      journalOf(NATURAL),
      <>
        <FixStation />
        <FoundMeanwhile />
      </>,
    );
    await user.type(screen.getByRole("textbox", { name: "What was done" }), "Hose renewed");
    await user.click(screen.getByRole("button", { name: "Record the repair" }));
    expect(await screen.findByText("Say where it was worked on, or that it was all over")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Found meanwhile" }));
    await waitFor(() => expect(screen.queryByText("Say where it was worked on, or that it was all over")).toBeNull());
    await user.click(screen.getByRole("button", { name: "Record the repair" }));
    await waitFor(() => expect(journal.entries.at(-1)).toMatchObject({ kind: "repair", body: { places: ["pcv-hose"] } }));
  });

  it("is recorded once, however often its key is pressed while that goes on", async () => {
    const { user, journal } = onBench(found(), <FixStation />);
    const what = screen.getByRole("textbox", { name: "What was done" });
    await user.type(what, "Hose renewed");
    const press = () => what.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", ctrlKey: true, bubbles: true }));
    // The second comes before anything of the first is drawn.
    act(() => {
      press();
      press();
    });
    expect(await screen.findByText("Hose renewed", { selector: "p" })).toBeTruthy();
    expect(journal.entries.filter((e) => e.kind === "repair")).toHaveLength(1);
  });

  it("keeps what was typed where it is refused, and says why", async () => {
    const { user } = onBench(found(), <FixStation />, "The shop's computer is busy");
    const what = screen.getByRole("textbox", { name: "What was done" });
    await user.type(what, "Hose renewed");
    await user.click(screen.getByRole("button", { name: "Record the repair" }));
    expect((await screen.findByText("The shop's computer is busy")).getAttribute("role")).toBe("alert");
    expect(what).toHaveProperty("value", "Hose renewed");
  });
});
