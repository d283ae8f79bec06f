import type { Page } from "@playwright/test";
import { button, idOf, instrument, main, pick, signIn, station } from "./steps";
import { expect } from "./test";

export const bay = (page: Page) => page.getByRole("region", { name: "Practice bay" });
export const blocks = (page: Page) => main(page).getByRole("region", { name: "What blocks closing" });
/** Entries of a kind that the server has. */
async function recorded(page: Page, kind: string): Promise<number> {
  const all = (await (await page.request.get(`/api/v1/jobs/${idOf(page)}/entries`)).json()) as { kind: string }[];
  return all.filter((e) => e.kind === kind).length;
}
/** Does something that makes an entry, and waits until the server has it. */
export async function makes(page: Page, kind: string, act: () => Promise<void>): Promise<void> {
  const before = await recorded(page, kind);
  await act();
  await expect.poll(() => recorded(page, kind)).toBeGreaterThan(before);
}

export async function rollIn(page: Page, code: string): Promise<void> {
  await signIn(page, "Wren Alder");
  await page.goto("/practice");
  await page.getByLabel("The case's code").fill(code);
  await button(page, "Play this code").click();
  await expect(page.getByRole("heading", { name: /^Practice \d+$/ })).toBeVisible();
}

/** Codes and conditions, as every case begins. */
export async function readIn(page: Page): Promise<void> {
  await station(page, "Scan");
  await button(page, "Read the codes on the car").click();
  await expect(main(page).getByText(/^P\d/).first()).toBeVisible();
  await makes(page, "codes", () => button(page, "Record the codes").click());
  await button(page, "Set conditions").click();
  await button(page, "Read them in the bay").click();
  await expect(page.getByLabel("Bay temperature", { exact: true })).not.toHaveValue("");
  await makes(page, "conditions", () => button(page, "Record conditions").click());
  await expect(page.getByRole("dialog")).toHaveCount(0);
}

/** An instrument read on the car and recorded, and what the bay says of it. */
export async function check(page: Page, name: string, says: RegExp, setUp: () => Promise<void> = async () => {}): Promise<void> {
  await station(page, "Check");
  await instrument(page, name);
  await setUp();
  await readHere(page);
  await expect(bay(page).getByRole("status")).toContainText(says);
}

/** The instrument in hand, read on the car and recorded. */
export async function readHere(page: Page): Promise<void> {
  await main(page)
    .getByRole("button", { name: /^(Read|Run) it on the car$/ })
    .click();
  const key = page.getByRole("button", { name: /^Record the (check|run)$/ });
  await expect(key).toBeVisible();
  await expect(main(page).getByText("Reading…")).toHaveCount(0);
  // What takes its time comes as it does at a car; here nobody waits for it.
  const skip = main(page).getByRole("button", { name: "Skip to its end" });
  if ((await skip.count()) > 0) await skip.click();
  await expect(page.getByRole("region", { name: /^Verdict/ }).first()).toBeVisible();
  await makes(page, "check", () => key.click());
}

export async function repair(page: Page, where: string, what: string): Promise<void> {
  await station(page, "Find");
  await pick(page, "Where", where);
  await page.getByLabel("What was found").fill(what);
  await page.getByLabel("Confirmed", { exact: true }).selectOption("seen");
  await makes(page, "finding", () => button(page, "Record the finding").click());
  await station(page, "Fix");
  await page.getByLabel("What was done").fill(`${what}: renewed`);
  await page.getByLabel("Labour, minutes").fill("20");
  await page.getByLabel("The customer gave the go-ahead").check();
  await makes(page, "repair", () => button(page, "Record the repair").click());
}

export async function drive(page: Page): Promise<void> {
  await button(page, "Drive the car").click();
  await expect(page.getByLabel("Driven, minutes")).not.toHaveValue("");
  await makes(page, "drive", () => button(page, "Record the drive").click());
}
export async function wait(page: Page, how: string): Promise<void> {
  await button(page, "Skip a wait").click();
  await makes(page, "bay", () => page.getByRole("dialog").getByRole("button", { name: how }).click());
}

/** The complaint, cleared codes, a drive, every module read again. */
export async function proveBase(page: Page): Promise<void> {
  await station(page, "Prove");
  await button(page, "Try it on the car").click();
  await expect(page.getByLabel("How it was tried")).not.toHaveValue("");
  await makes(page, "complaint-tried", () => button(page, "Record the try").click());
  await makes(page, "codes-cleared", () => button(page, "Codes cleared now").click());
  await drive(page);
  await makes(page, "codes", () => button(page, "Re-read all modules").click());
}

export async function closeAndLook(page: Page): Promise<void> {
  await station(page, "Prove");
  await expect(blocks(page).getByText("Nothing blocks closing this job.")).toBeVisible();
  await station(page, "Hand over");
  await page.getByLabel("What the customer should know").fill("Found, renewed and measured.");
  await makes(page, "handover", () => button(page, "Hand over").click());
  const told = main(page).getByRole("region", { name: "What was wrong" });
  await expect(told.getByText("Found and cured")).toBeVisible();
  await makes(page, "outcome", () => button(page, "A week later").click());
  await expect(told.getByText("A week later nothing had come back")).toBeVisible();
}
