import { screen, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { NATURAL } from "@/core/core.fixture";
import { journalOf, onBench } from "./job.fixture";
import { Ledger } from "./ledger";

describe("what is off the car", () => {
  it("is listed by hand with where its bolts lie, refused without a name, and back on by one key", async () => {
    const { user, journal } = onBench(journalOf(NATURAL), <Ledger go={() => {}} onSide={() => {}} />);
    await user.click(screen.getByRole("button", { name: "Something else removed" }));
    const dialog = within(screen.getByRole("dialog"));
    await user.click(dialog.getByRole("button", { name: "List it" }));
    expect(await dialog.findByRole("alert")).toBeTruthy();
    await user.type(dialog.getByRole("textbox", { name: "What was removed or fitted" }), "engine cover");
    await user.type(dialog.getByRole("textbox", { name: /Its bolts and clips/ }), "6 bolts, tray 2");
    await user.click(dialog.getByRole("button", { name: "List it" }));
    const back = await screen.findByRole("button", { name: "Refitted and seated: engine cover" });
    expect(screen.queryByRole("dialog")).toBeNull();
    expect(screen.getByText("6 bolts, tray 2")).toBeTruthy();
    expect(journal.entries.at(-1)?.body).toEqual({ what: "engine cover", kept: "6 bolts, tray 2", elsewhere: true });
    await user.click(back);
    expect(await screen.findByText("All 1 refitted.")).toBeTruthy();
  });
});
