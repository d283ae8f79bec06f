import type { Page } from "@playwright/test";
import type { Entry } from "@/core/journal";
import { button, idOf, inAs, keptOn, main, openJob, pick, signedBy, signIn, startClock, station } from "./steps";
import { CLOCKED, expect, installClock, standStill, test } from "./test";

const note = async (page: Page, text: string) => {
  if ((await page.getByRole("dialog").count()) === 0) await page.getByRole("button", { name: /^Journal$|not taken$/ }).click();
  await page.getByLabel("Note", { exact: true }).fill(text);
  await button(page, "Add the note").click();
};
const recorded = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/v1/jobs/${id}/entries`)).json()) as Entry[];
const entries = "**/api/v1/jobs/*/entries*";

test(
  "an entry is kept before it is sent: a tab closed while the server is silent loses nothing, and the board sends it",
  CLOCKED,
  async ({ context, page }) => {
    await signIn(page, "Wren Alder");
    await openJob(page, "Hiss", "FW 61 OUT");
    const id = idOf(page);
    // The server takes the request and never answers.
    await context.route(entries, (route) => (route.request().method() === "POST" ? undefined : route.continue()));
    await note(page, "Made in the last moment");
    await expect.poll(async () => (await keptOn(page)).length).toBe(1);
    await page.close();
    await context.unroute(entries);
    const board = await context.newPage();
    // The tab that was sending is gone; what it had taken on is free again once its time is over.
    await installClock(board, new Date(Date.now() + 40_000));
    await board.goto("/");
    await expect.poll(async () => (await keptOn(board)).length).toBe(0);
    expect((await recorded(board, id)).filter((e) => JSON.stringify(e.body).includes("Made in the last moment"))).toHaveLength(1);
  },
);

test(
  "a page that is left while it sends holds nothing up: the next page of its tab sends at once, by a clock that stands",
  CLOCKED,
  async ({ context, page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await openJob(page, "Hiss", "FW 65 OUT");
    const id = idOf(page);
    // The first request is never answered, and never heard of again.
    let sent = 0;
    await context.route(entries, (route) => (route.request().method() === "POST" && ++sent === 1 ? undefined : route.continue()));
    await note(page, "Left in the middle");
    await expect.poll(async () => (await keptOn(page))[0]?.lease !== undefined).toBe(true);
    // Stopped two seconds on, long before what was taken on would be free by itself.
    await standStill(page, 2000);
    await page.reload();
    await note(page, "Made after it");
    const texts = async () =>
      (await recorded(page, id)).flatMap((e) => (e.kind === "note" ? [(e.body as { text: string }).text] : []));
    await expect.poll(texts).toEqual(["Left in the middle", "Made after it"]);
    await expect.poll(async () => (await keptOn(page)).length).toBe(0);
  },
);

test("an answer that is cut off on its way counts as none: nothing breaks, and the entry is there once", async ({
  context,
  page,
}) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 67 OUT");
  const id = idOf(page);
  let cut = 0;
  await context.route(entries, async (route) => {
    if (cut++ >= 4) return route.continue();
    // Recorded by the server; only half of what it says comes through.
    const text = await (await route.fetch()).text();
    return route.fulfill({ status: 200, body: text.slice(0, text.length / 2) });
  });
  await note(page, "Half heard");
  await expect(page.getByLabel("Note", { exact: true })).toHaveValue("");
  await expect(page.getByText(/could not keep/)).toHaveCount(0);
  await expect.poll(async () => (await keptOn(page)).length).toBe(0);
  await expect(page.getByRole("dialog").getByText("Note: Half heard")).toHaveCount(1);
  expect((await recorded(page, id)).filter((e) => JSON.stringify(e.body).includes("Half heard"))).toHaveLength(1);
});

test("a tab that is closed while it sends holds up no other: what it had taken on goes out from there at once", async ({
  context,
  page,
}) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 68 OUT");
  const id = idOf(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole("button", { name: "Journal" })).toBeVisible();
  await page.route(entries, (route) => (route.request().method() === "POST" ? undefined : route.continue()));
  await note(page, "Taken on and left");
  await expect.poll(async () => (await keptOn(other))[0]?.lease !== undefined).toBe(true);
  await page.close({ runBeforeUnload: true });
  // Long before what it had taken on would be free by itself.
  await expect.poll(async () => (await keptOn(other)).length, { timeout: 20_000 }).toBe(0);
  expect((await recorded(other, id)).filter((e) => JSON.stringify(e.body).includes("Taken on and left"))).toHaveLength(1);
});

test("what one tab records another tab of the device shows at once, and never loses sight of", async ({ context, page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 66 OUT");
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByRole("button", { name: "Journal" }).click();
  await note(page, "Seen in both");
  await expect(other.getByRole("dialog").getByText("Note: Seen in both")).toBeVisible({ timeout: 10_000 });
});

test(
  "no answer of a server in trouble loses an entry: it waits, says so on every page, and goes out",
  CLOCKED,
  async ({ context, page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await openJob(page, "Hiss", "FW 62 OUT");
    const id = idOf(page);
    const answers = [500, 401, 429, 507];
    await context.route(entries, (route) => {
      const status = route.request().method() === "POST" ? answers.shift() : undefined;
      return status ? route.fulfill({ status, json: { error: { message: "Not now" } } }) : route.continue();
    });
    await note(page, "First of two");
    await expect(page.getByText("1 not sent yet")).toBeVisible();
    await note(page, "Second of two");
    await expect(page.getByText("2 not sent yet")).toBeVisible();
    await page.goto("/");
    await expect(page.getByText(/2 not sent yet, the oldest from \d\d:\d\d/)).toBeVisible();
    await expect(async () => {
      await page.clock.fastForward(130_000);
      expect(await keptOn(page)).toEqual([]);
    }).toPass({ intervals: [500], timeout: 60_000 });
    await expect(page.getByText(/not sent yet/)).toHaveCount(0);
    const texts = (await recorded(page, id)).flatMap((e) => (e.kind === "note" ? [(e.body as { text: string }).text] : []));
    expect(texts).toEqual(["First of two", "Second of two"]);
  },
);

test(
  "entries made without a connection go out when it is back; what is refused then is kept and said",
  CLOCKED,
  async ({ context, page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await openJob(page, "Hiss", "FW 22 DRF");
    await station(page, "Find");
    await context.setOffline(true);
    await pick(page, "Where", "Oil cap");
    await page.getByLabel("What was found").fill("Cap seal hard");
    await button(page, "Record the finding").click();
    await expect(main(page).getByText("Cap seal hard")).toBeVisible();
    await expect(page.getByText("1 not sent yet")).toBeVisible();
    // Meanwhile the same id arrives from elsewhere with other contents: the device's own must not be lost.
    const id = idOf(page);
    const [mine] = await keptOn(page);
    const rival = { ...mine?.entry, body: { ...(mine?.entry.body as object), what: "Something else" } };
    expect(
      (await page.request.post(`/api/v1/jobs/${id}/entries`, { data: signedBy(await inAs(page, "Wren Alder"), rival) })).status(),
    ).toBe(200);
    await context.setOffline(false);
    await page.clock.fastForward(6000);
    await expect(page.getByText("1 not sent yet")).toHaveCount(0);
    await page.getByRole("button", { name: "1 not taken" }).click();
    await expect(page.getByRole("dialog").getByRole("alert")).toContainText("The server did not take “Found: Cap seal hard”");
    await button(page, "Discard it").click();
    await expect(page.getByRole("dialog").getByRole("alert")).toHaveCount(0);
  },
);

test("what names a refused entry waits with it, and both go out when it is sent again", CLOCKED, async ({ context, page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 63 OUT");
  const id = idOf(page);
  await context.setOffline(true);
  await station(page, "Find");
  await pick(page, "Where", "Oil cap");
  await page.getByLabel("What was found").fill("Cap seal hard");
  await button(page, "Record the finding").click();
  await station(page, "Fix");
  await page.getByLabel("What was done").fill("Cap renewed");
  await button(page, "Record the repair").click();
  await expect(page.getByText("2 not sent yet")).toBeVisible();
  let refuse = true;
  await context.route(entries, (route) =>
    refuse && route.request().method() === "POST"
      ? route.fulfill({ status: 409, json: { error: { message: "It changed meanwhile" } } })
      : route.continue(),
  );
  await context.setOffline(false);
  await page.clock.fastForward(130_000);
  await page.getByRole("button", { name: "1 not taken" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("alert")).toContainText("It changed meanwhile");
  await expect(dialog.getByText("Waiting for that, since they name it")).toBeVisible();
  await expect(dialog.getByRole("listitem").filter({ hasText: "Cap renewed" }).first()).toBeVisible();
  refuse = false;
  await button(page, "Send it again").click();
  await expect.poll(async () => (await keptOn(page)).length).toBe(0);
  expect((await recorded(page, id)).map((e) => e.kind)).toEqual(expect.arrayContaining(["finding", "repair"]));
});

test("what older versions of the app left waiting on this device is taken over and sent", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 64 OUT");
  const id = idOf(page);
  const old = (text: string, deviceSeq: number) => ({
    id: crypto.randomUUID(),
    jobId: id,
    kind: "note",
    v: 1,
    at: new Date().toISOString(),
    by: "Wren Alder",
    device: "tablet",
    deviceSeq,
    seenSeq: 1,
    body: { text },
  });
  await page.goto("/api/v1/people");
  await page.evaluate(
    async ([plain, aside, first]) => {
      localStorage.setItem(`pelota.outbox.${plain?.jobId}`, JSON.stringify([plain]));
      localStorage.setItem(`pelota.set-aside.${aside?.jobId}`, JSON.stringify([{ entry: aside, message: "It was wrong" }]));
      await new Promise((done) => {
        indexedDB.deleteDatabase("pelota").onsuccess = done;
      });
      await new Promise<void>((done) => {
        const open = indexedDB.open("pelota", 1);
        open.onupgradeneeded = () => {
          open.result.createObjectStore("counts");
          open.result.createObjectStore("outbox", { keyPath: "id" }).createIndex("job", "jobId");
        };
        open.onsuccess = () => {
          const tx = open.result.transaction(["outbox", "counts"], "readwrite");
          tx.objectStore("outbox").put(first);
          tx.objectStore("counts").put(41, "deviceSeq");
          tx.oncomplete = () => {
            open.result.close();
            done();
          };
        };
      });
    },
    [old("From plain storage", 2), old("Refused before", 3), old("From the first store", 4)],
  );
  await page.goto(`/jobs/${id}`);
  await expect(page.getByRole("button", { name: "1 not taken" })).toBeVisible();
  await expect.poll(async () => (await keptOn(page)).length).toBe(1);
  await note(page, "Made since");
  const notesOf = async () => (await recorded(page, id)).filter((e) => e.kind === "note");
  await expect.poll(async () => (await notesOf()).length).toBe(3);
  const notes = await notesOf();
  expect(notes.map((e) => (e.body as { text: string }).text)).toEqual([
    "From plain storage",
    "From the first store",
    "Made since",
  ]);
  expect(notes.at(-1)?.deviceSeq).toBe(42);
  expect(await page.evaluate(() => Object.keys(localStorage).filter((k) => /outbox|set-aside/.test(k)))).toEqual([]);
});
