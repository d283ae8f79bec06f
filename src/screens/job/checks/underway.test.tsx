import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { CARS } from "../../../../demo/cars";
import { journalOf, onBench } from "../job.fixture";
import { CheckStation } from "../stations/check";
import { FindStation } from "../stations/find";

/** An answer of the server that comes when the test says so. */
function late() {
  let say: (wrong?: string) => void = () => {};
  const answer = new Promise<string | undefined>((done) => {
    say = done;
  });
  return { answer, say: (wrong?: string) => act(async () => say(wrong)) };
}
const deed = (what: () => unknown) =>
  act(async () => {
    what();
  });
const main = () => within(screen.getByRole("main"));
const box = (name: string) => main().getByRole("textbox", { name }) as HTMLInputElement;
const type = (name: string, value: string) => deed(() => fireEvent.change(box(name), { target: { value } }));
const press = (name: string) => deed(() => fireEvent.click(screen.getByRole("button", { name })));
const checks = (journal: { entries: readonly { kind: string }[] }) => journal.entries.filter((e) => e.kind === "check").length;
const station = (kind: "hold" | "vacuum") => <CheckStation wanted={kind} onInstrument={() => {}} />;

/** A hold that was read and is being recorded. */
async function held() {
  const { answer, say } = late();
  const journal = journalOf(CARS.godwit.facts);
  const page = onBench(journal, station("hold"), answer);
  await deed(() => fireEvent.change(main().getByLabelText("One division of its scale"), { target: { value: "0.1 inHg" } }));
  await type("Gauge, inHg vacuum", "20");
  vi.useFakeTimers({ toFake: ["Date"], now: Date.parse("2026-03-02T09:00:00Z") });
  await press("Take reading");
  vi.setSystemTime(Date.now() + 60_000);
  await press("Take reading");
  vi.useRealTimers();
  const left = () => screen.queryByText(/^Left alone:/)?.textContent;
  expect(left()).toMatch(/20\.0 inHg at 0 s/);
  await press("Record the check");
  return { page, journal, say, left };
}

describe("a check on its way into the journal", () => {
  it("takes nothing that would be neither in its record nor in the next one", async () => {
    const { page, journal, say, left } = await held();
    expect(screen.getByRole("button", { name: "Take reading" }).matches(":disabled")).toBe(true);
    await page.user.click(screen.getByRole("button", { name: "Take reading" }));
    await page.user.type(box("Gauge, inHg vacuum"), "9");
    expect(box("Gauge, inHg vacuum").value).toBe("20");
    await say();
    expect(left()).toMatch(/nothing yet/);
    await type("Gauge, inHg vacuum", "19");
    await press("Take reading");
    expect(left()).toMatch(/19\.0 inHg at 0 s/);
    expect(checks(journal)).toBe(1);
  });

  it("is still there when it was refused, and takes more", async () => {
    const { journal, say, left } = await held();
    await say("The server has no room left");
    expect(screen.getByText("The server has no room left")).toBeTruthy();
    expect(left()).toMatch(/20\.0 inHg at 0 s/);
    expect(box("Gauge, inHg vacuum").matches(":disabled")).toBe(false);
    expect(checks(journal)).toBe(0);
  });

  it("is recorded once and gone, also for whoever left its instrument and came back meanwhile", async () => {
    const { journal, say, left } = await held();
    const elsewhere = async (name: string) => {
      await press("Another instrument");
      const shelf = within(await screen.findByRole("dialog"));
      const key = await shelf.findByRole("button", { name: new RegExp(`^${name}`) });
      await deed(() => fireEvent.click(key));
      await screen.findByRole("heading", { name, level: 2 });
    };
    await elsewhere("Intake vacuum");
    await elsewhere("Hold test");
    expect(left()).toMatch(/20\.0 inHg at 0 s/);
    await press("Record the check");
    await say();
    await waitFor(() => expect(left()).toMatch(/nothing yet/));
    expect(checks(journal)).toBe(1);
    expect(Object.keys(localStorage).filter((k) => /^pelota\.draft\..*\.hold$/.test(k))).toEqual([]);
  });
});

it("a form on its way is locked as a whole, and free again", async () => {
  const { answer, say } = late();
  const journal = journalOf(CARS.godwit.facts);
  journal.add("codes", { codes: [{ code: "P0171", status: "current" }] });
  const page = onBench(journal, <FindStation />, answer);
  await type("What was found", "Duct split");
  await press("Record the finding");
  await page.user.type(box("What was found"), " under the clamp");
  expect(box("What was found").value).toBe("Duct split");
  await say();
  expect(box("What was found").value).toBe("");
  await page.user.type(box("What was found"), "Clamp loose");
  expect(box("What was found").value).toBe("Clamp loose");
});
