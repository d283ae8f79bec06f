import type { BrowserContext, Page } from "@playwright/test";
import { button, idOf, instrument, keptOn, main, openJob, pick, setConditions, signIn, startClock, station } from "./steps";
import { CLOCKED, expect, test } from "./test";

const reopened = async (context: BrowserContext, url: string) => {
  for (const page of context.pages()) await page.close();
  const page = await context.newPage();
  await page.goto(url);
  return page;
};

test("forms left half filled are there on return", async ({ context, page: first }) => {
  await signIn(first, "Wren Alder");
  await first.goto("/new");
  await first.getByLabel("Complaint, in the customer's words").fill("Whistles on the");
  await first.getByText("More about the car").click();
  await first.getByLabel("Make", { exact: true }).fill("Ostrin");
  let page = await reopened(context, "/new");
  await expect(page.getByLabel("Complaint, in the customer's words")).toHaveValue("Whistles on the");
  await expect(page.getByLabel("Make", { exact: true })).toHaveValue("Ostrin");
  await page.goto("/");
  await openJob(page, "Whistles on the hill", "FW 20 DRF");
  const url = page.url();

  await button(page, "Set conditions").click();
  await page.getByLabel("Ambient pressure, absolute", { exact: true }).fill("1006 h");
  await page.keyboard.press("Escape");
  await station(page, "Find");
  await page.getByLabel("What was found").fill("Duct split und");
  await station(page, "Fix");
  await page.getByLabel("What was done").fill("Duct ren");
  await station(page, "Look");
  await page.getByRole("radio", { name: "Not OK" }).first().click();
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  await page.getByRole("radio", { name: "Typed by hand" }).click();
  await page.getByLabel("Engine speed, rpm").fill("720");

  page = await reopened(context, url);
  await button(page, "Set conditions").click();
  await expect(page.getByLabel("Ambient pressure, absolute", { exact: true })).toHaveValue("1006 h");
  await page.keyboard.press("Escape");
  await station(page, "Find");
  await expect(page.getByLabel("What was found").first()).toHaveValue("Duct split und");
  await station(page, "Fix");
  await expect(page.getByLabel("What was done")).toHaveValue("Duct ren");
  await station(page, "Look");
  await expect(page.getByRole("radio", { name: "Not OK" }).first()).toBeChecked();
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  await expect(page.getByLabel("Engine speed, rpm")).toHaveValue("720");
});

test("a smoke run goes on where it was when the browser is closed in the middle", async ({ context, page: first }) => {
  await signIn(first, "Wren Alder");
  await openJob(first, "Hiss", "FW 21 DRF");
  await setConditions(first);
  await station(first, "Check");
  await instrument(first, "Smoke run");
  await first.getByRole("radio", { name: "Stand at zero" }).click();
  await button(first, "Heater on, to the machine proof").click();
  await first.getByLabel("Pressure with the hose clamped", { exact: true }).fill("12.6 inH2O");
  await first.getByRole("radio", { name: "Sat at the bottom" }).click();
  await first.getByRole("radio", { name: "Came" }).click();
  await button(first, "Hose on: start the run").click();
  const ball = first.getByRole("slider", { name: /Flow ball/ });
  await ball.focus();
  await first.keyboard.press("PageDown");
  await first.keyboard.press("PageDown");
  await expect(ball).toHaveAttribute("aria-valuenow", "9.6");

  const page = await reopened(context, first.url());
  await station(page, "Check");
  await instrument(page, "Smoke run");
  await expect(page.getByRole("slider", { name: /Flow ball/ })).toHaveAttribute("aria-valuenow", "9.6");
  await expect(page.getByRole("complementary", { name: "Ledger" }).getByRole("timer").first()).toBeVisible();
  await expect(page.getByRole("complementary", { name: "Ledger" }).getByText("Plug at Tailpipe")).toBeVisible();
});

test("two tabs of a device share one count and one outbox: neither loses what the other made", async ({ context, page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 25 DRF");
  const other = await context.newPage();
  await other.goto(page.url());
  await station(page, "Find");
  await station(other, "Find");
  await context.setOffline(true);
  const finds = async (tab: Page, where: string, what: string) => {
    await pick(tab, "Where", where);
    await tab.getByLabel("What was found").fill(what);
    await button(tab, "Record the finding").click();
  };
  await finds(page, "Oil cap", "Cap seal hard");
  await expect(main(other).getByText("Cap seal hard")).toBeVisible();
  await finds(other, "Dipstick seal", "Tube loose");
  await expect(page.getByText("2 not sent yet")).toBeVisible();
  const counts = (await keptOn(page)).map((k) => k.entry.deviceSeq);
  expect(new Set(counts).size).toBe(2);
  await page.close();
  await context.setOffline(false);
  await expect(other.getByText(/not sent yet/)).toHaveCount(0);
  await other.reload();
  await station(other, "Find");
  await expect(main(other).getByText("Cap seal hard")).toBeVisible();
  await expect(main(other).getByText("Tube loose")).toBeVisible();
});

test("damaged drafts, and drafts of older shapes, break no station: what cannot be drawn offers to be thrown away", async ({
  page,
}) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 28 DRF");
  const id = idOf(page);
  const forms =
    "story vehicle conditions scan trims trim-point look finding repair drive readiness monitor complaint handover outcome set-aside note customer smoke vacuum";
  // Every field of every check is tried by itself; here is what a whole station makes of it.
  const damages = [
    '"text"',
    '{"what":5,"text":{},"joint":[],"places":"all","samples":{"0":1},"points":7,"items":"x","codes":{"a":1},"startedAt":{}}',
  ];
  for (const damage of damages) {
    await page.evaluate(
      ([job, names, text]) => {
        for (const name of (names as string).split(" ")) localStorage.setItem(`pelota.draft.${job}.${name}`, text as string);
      },
      [id, forms, damage],
    );
    await page.reload();
    for (const name of ["Story", "Scan", "Look", "Suspects", "Check", "Find", "Fix", "Prove", "Hand over"]) {
      await station(page, name);
      await expect(main(page)).toBeVisible();
      const discard = button(page, "Throw away what was being typed");
      if (await discard.count()) await discard.click();
      await expect(main(page).getByRole("heading").first()).toBeVisible();
      await expect(page.getByText("This page broke")).toHaveCount(0);
    }
  }
  await station(page, "Find");
  await page.getByLabel("What was found").fill("Clamp loose");
  await page.reload();
  await station(page, "Find");
  await expect(page.getByLabel("What was found")).toHaveValue("Clamp loose");
});

test("while the server takes its time a check is recorded once, and what is read next is kept", CLOCKED, async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 25 DRF");
  await setConditions(page);
  await station(page, "Check");
  await instrument(page, "Hold test");
  let held = Promise.resolve();
  const holdUp = () => {
    let letGo = () => {};
    held = new Promise((done) => {
      letGo = done;
    });
    return letGo;
  };
  await page.route(/\/entries/, async (route) => {
    if (route.request().method() === "POST") await held;
    await route.continue();
  });
  // A key that is tapped twice asks for one thing.
  const listing = holdUp();
  await button(page, "Removed").dblclick();
  listing();
  const back = page.getByRole("complementary", { name: "Ledger" }).getByRole("button", { name: /^Refitted/ });
  await expect(back).not.toHaveCount(0);
  const listed = await back.count();
  expect(new Set(await back.allInnerTexts()).size).toBe(listed);

  const gauge = page.getByLabel("Gauge, inHg vacuum", { exact: true });
  const take = button(page, "Take reading");
  await gauge.fill("20");
  await take.click();
  await page.clock.fastForward(1100);
  await gauge.fill("19.9");
  await take.click();
  const recording = holdUp();
  await button(page, "Record the check").dblclick();
  // Gone elsewhere and back: it is on its way still.
  await station(page, "Find");
  await station(page, "Check");
  await instrument(page, "Hold test");
  await gauge.fill("18");
  await take.click();
  await expect(main(page).getByText(/^Left alone: 18\.0 inHg at 0 s$/)).toBeVisible();
  expect(await keptOn(page)).not.toEqual([]);
  recording();
  await expect.poll(() => keptOn(page)).toEqual([]);
  await expect(main(page).getByText(/^Left alone: 18\.0 inHg at 0 s$/)).toBeVisible();
  const journal: { kind: string }[] = await (await page.request.get(`/api/v1/jobs/${idOf(page)}/entries`)).json();
  expect(journal.filter((e) => e.kind === "check")).toHaveLength(1);
});

test("where this device's storage is full nothing is recorded, what was typed stays, and it goes once there is room", async ({
  page,
}) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 17 FUL");
  const storage = await page.context().newCDPSession(page);
  const origin = new URL(page.url()).origin;
  await storage.send("Storage.overrideQuotaForOrigin", { origin, quotaSize: 1 });
  await page.getByRole("button", { name: "Journal" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("textbox", { name: "Note" }).fill("Written on a full device");
  await button(page, "Add the note").click();
  await expect(dialog.getByRole("alert")).toContainText("The storage of this device is full: nothing was recorded");
  await expect(dialog.getByRole("textbox", { name: "Note" })).toHaveValue("Written on a full device");
  await expect(page.getByText(/not sent yet/)).toHaveCount(0);
  await storage.send("Storage.overrideQuotaForOrigin", { origin });
  await button(page, "Add the note").click();
  await expect(dialog.getByText("Note: Written on a full device")).toHaveCount(1);
  await expect(dialog.getByRole("textbox", { name: "Note" })).toHaveValue("");
});
