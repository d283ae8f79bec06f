import type { Page } from "@playwright/test";
import { openJob, panel, signIn } from "./steps";
import { expect, test } from "./test";

/** Holds the page's programs back until told to let them go. */
async function heldBack(page: Page): Promise<() => void> {
  let go = () => {};
  const gone = new Promise<void>((done) => {
    go = done;
  });
  await page.route("**/_next/static/chunks/*.js", async (route) => {
    await gone;
    await route.continue();
  });
  return go;
}

test("a tap before the page is ready is seen to wait and then done, once", async ({ page }) => {
  await signIn(page, "Maren Oake");
  const go = await heldBack(page);
  await page.goto("/", { waitUntil: "commit" });
  const theme = () => page.evaluate(() => document.documentElement.dataset.theme ?? "dim");
  const key = page.getByRole("button", { name: /^(Daylight|Dim bay)$/ });
  await panel(page, "More").click();
  await key.waitFor();
  const before = await theme();
  await key.click();
  await key.click();
  await expect(key).toHaveAttribute("data-waits", "");
  expect(await theme()).toBe(before);
  go();
  await expect.poll(theme).not.toBe(before);
  await expect(key).not.toHaveAttribute("data-waits", "");
  // From now on the page answers by itself.
  await key.click();
  await expect.poll(theme).toBe(before);
});

test("what is typed before the page is ready stays, and a form tapped then is not sent past the page", async ({ page }) => {
  await signIn(page, "Maren Oake");
  const go = await heldBack(page);
  await page.goto("/new", { waitUntil: "commit" });
  await page.getByLabel("Complaint, in the customer's words").pressSequentially("Whistles uphill");
  await page.getByRole("button", { name: "Open the job" }).click();
  expect(new URL(page.url()).search).toBe("");
  go();
  // The page refuses it itself: nobody said the displacement yet.
  await expect(page.getByText("Type the engine displacement").first()).toBeVisible();
  await expect(page.getByLabel("Complaint, in the customer's words")).toHaveValue("Whistles uphill");
  // A passphrase, too, which stands in a field of its own kind.
  const goOn = await heldBack(page);
  await page.goto("/unlock", { waitUntil: "commit" });
  await page.getByLabel(/passphrase/i).pressSequentially("gulls over");
  await page.getByRole("button", { name: "Connect" }).click();
  goOn();
  // It was typed: the shop without a gate asks for none.
  await expect(page.getByText("This shop asks for no passphrase")).toBeVisible();
  await expect(page.getByLabel(/passphrase/i)).toHaveValue("gulls over");
});

test("every page says when it answers: none keeps a tap for good", async ({ page }) => {
  await signIn(page, "Maren Oake");
  await openJob(page, "Hiss", "FW 71 RDY");
  const job = new URL(page.url()).pathname;
  for (const path of ["/", "/new", "/start?check=smoke", "/shop", "/unlock", job, `${job}/handover`, `${job}/live`]) {
    await page.goto(path);
    await expect.poll(() => page.evaluate(() => window.pelotaEarly?.ready), path).toBe(true);
  }
});
