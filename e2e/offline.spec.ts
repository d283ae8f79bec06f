import { rmSync } from "node:fs";
import type { Page } from "@playwright/test";
import sharp from "sharp";
import type { JournalEntry } from "@/core/journal";
import { CARS } from "../demo/cars";
import { DEMO_PIN } from "../demo/pin.mjs";
import { newerBuild, type OtherShop, startServer } from "./server";
import {
  button,
  describeEngine,
  enterPin,
  idOf,
  inAs,
  keptOn,
  main,
  openOn,
  pick,
  recordRun,
  signedBy,
  smoke,
  startClock,
  station,
} from "./steps";
import { expect, test } from "./test";

// The app that is kept on a device: only here its service worker is let in.
test.use({ serviceWorkers: "allow" });
test.describe.configure({ mode: "serial", timeout: 180_000 });

const who = (page: Page) => page.locator("[data-person]");
const notes = async (page: Page, id: string) =>
  ((await (await page.request.get(`/api/v1/jobs/${id}/entries`)).json()) as JournalEntry[]).filter((e) => e.kind === "note");
const kept = (page: Page) =>
  page.evaluate(async () => {
    const { active } = await navigator.serviceWorker.ready;
    if (active?.state !== "activated") await new Promise((done) => active?.addEventListener("statechange", done, { once: true }));
    return (await caches.keys()).length;
  });

async function note(page: Page, text: string): Promise<void> {
  await page.getByRole("button", { name: /^(Journal|\d+ not taken)$/ }).click();
  await page.getByRole("textbox", { name: "Note" }).fill(text);
  await button(page, "Add the note").click();
  await expect(page.getByRole("dialog").getByText(`Note: ${text}`)).toBeVisible();
  await page.keyboard.press("Escape");
}

test("a tablet loses the server in the middle of a job, is reloaded and restarted, and everything goes up once, in order, under the right names", async ({
  browser,
  shops,
}) => {
  let server = await shops.open();
  const { data } = server;
  const context = await browser.newContext({ baseURL: server.url });
  const page = await context.newPage();
  await startClock(page);
  try {
    await inAs(page, "Maren Oake");
    await inAs(page, "Tobin Falk", "technician");
    await inAs(page, "Isla Renn", "apprentice");
    await page.goto("/");
    for (const name of ["Isla Renn", "Tobin Falk"]) {
      await enterPin(page, name, DEMO_PIN);
      await expect(who(page)).toHaveText(name);
    }
    const id = await openOn(page, CARS.curlew, { symptoms: ["rough-idle"] }, ["P0171"]);
    await note(page, "While the server was there");
    expect(await kept(page)).toBeGreaterThan(0);

    // The server is gone: a whole smoke run, a finding with its picture, a line taken out, another's note.
    await server.stop(true);
    await smoke(page, { settleAt: 6.6, arrivals: ["Crankcase", "Breather hose"] });
    await recordRun(page);
    await station(page, "Find");
    await pick(page, "Where", "Oil cap");
    await page.getByLabel("What was found").fill("Cap seal hard");
    await page.getByLabel("Why it failed").selectOption("age");
    const picture = await sharp({ create: { width: 800, height: 500, channels: 3, background: "#385" } })
      .withExif({ IFD0: { Make: "Camera" } })
      .jpeg()
      .toBuffer();
    await page.getByLabel("Picture from a file").setInputFiles({ name: "seal.jpg", mimeType: "image/jpeg", buffer: picture });
    await expect(main(page).getByRole("img", { name: "Taken at the car, 1 of 1" })).toBeVisible();
    await button(page, "Record the finding").click();
    await expect(main(page).getByText("Cap seal hard").first()).toBeVisible();
    await page.getByRole("button", { name: "Journal" }).click();
    await page.getByRole("button", { name: "Strike out: Note: While the server was there" }).click();
    await page.getByLabel("Why it is wrong").fill("Another car");
    await page.getByRole("button", { name: "Strike out", exact: true }).click();
    await expect(page.getByText(/taken out by Tobin Falk: Another car/)).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByText(/^\d+ not sent yet/)).toBeVisible();

    // Reloaded: the bench opens from the device, the picture too.
    await page.reload();
    await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
    await station(page, "Find");
    await expect(main(page).getByText("Cap seal hard").first()).toBeVisible();
    await expect(
      main(page)
        .getByRole("img", { name: /Taken at the car/ })
        .first(),
    ).toBeVisible();
    await note(page, "His, while it was away");

    // Restarted: another window; another person comes in by what the device knows of her PIN.
    const again = await context.newPage();
    await page.close();
    await again.goto("/");
    await expect(again.getByText("The shop's server does not answer.")).toBeVisible();
    await enterPin(again, "Isla Renn", DEMO_PIN);
    await expect(who(again)).toHaveText("Isla Renn");
    await again.getByRole("main", { name: "Jobs on this device" }).getByRole("link").first().click();
    await expect(again.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
    await note(again, "Hers, on the same tablet");
    const waiting = (await keptOn(again)).toSorted((a, b) => a.entry.deviceSeq - b.entry.deviceSeq);
    const told = ["check", "finding", "retract", "note"];
    expect(waiting.map((k) => k.entry.kind).filter((kind) => told.includes(kind))).toEqual([
      "check",
      "finding",
      "retract",
      "note",
      "note",
    ]);

    // Another device has written to the same job by the time the tablet is back.
    server = await shops.open({ data });
    const phone = await (await browser.newContext({ baseURL: server.url })).newPage();
    const maren = await inAs(phone, "Maren Oake");
    const made = {
      id: crypto.randomUUID(),
      jobId: id,
      kind: "note",
      v: 1,
      at: new Date().toISOString(),
      by: "Maren Oake",
      device: "phone",
      deviceSeq: 1,
      seenSeq: 4,
      body: { text: "By another device meanwhile" },
    };
    expect((await phone.request.post(`/api/v1/jobs/${id}/entries`, { data: signedBy(maren, made) })).ok()).toBe(true);
    await again.evaluate(() => window.dispatchEvent(new Event("online")));
    await expect.poll(() => keptOn(again), { timeout: 30_000 }).toEqual([]);
    expect((await notes(again, id)).map((e) => [e.by, (e.body as { text: string }).text])).toEqual([
      ["Tobin Falk", "While the server was there"],
      ["Maren Oake", "By another device meanwhile"],
      ["Tobin Falk", "His, while it was away"],
      ["Isla Renn", "Hers, on the same tablet"],
    ]);
    const entries = (await (await again.request.get(`/api/v1/jobs/${id}/entries`)).json()) as JournalEntry[];
    // Everything once, by whom it was made, in the order it was made in.
    expect(new Set(entries.map((e) => e.id)).size).toBe(entries.length);
    const ofTablet = entries.filter((e) => told.includes(e.kind) && e.device === "test");
    expect(ofTablet.map((e) => e.kind)).toEqual(["note", "check", "finding", "retract", "note", "note"]);
    expect(ofTablet.map((e) => e.deviceSeq)).toEqual(ofTablet.map((e) => e.deviceSeq).toSorted((a, b) => a - b));
    expect(ofTablet.map((e) => e.by)).toEqual([...Array(5).fill("Tobin Falk"), "Isla Renn"]);
    const pictures = entries.flatMap((e) => (e.kind === "finding" ? (e.body as { pictures: string[] }).pictures : []));
    const there = await again.request.get(`/api/v1/jobs/${id}/pictures/${pictures[0]}`);
    expect(there.headers()["content-type"]).toBe("image/jpeg");
    expect((await sharp(await there.body()).metadata()).exif).toBeUndefined();
    await phone.context().close();
  } finally {
    await context.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
});

/** A board that was drawing itself anew as its server went ends in a load of its own: either is the page that is asked for. */
async function openAnew(page: Page, path: string): Promise<void> {
  try {
    await page.goto(path);
  } catch (error) {
    if (!/interrupted by another navigation/.test((error as Error).message)) throw error;
    await page.waitForLoadState();
  }
}

test("a job is opened without the server, worked on, and given its number once the server has it", async ({ browser, shops }) => {
  let server = await shops.open();
  const { data } = server;
  const context = await browser.newContext({ baseURL: server.url });
  const page = await context.newPage();
  try {
    await inAs(page, "Maren Oake");
    await page.goto("/");
    await enterPin(page, "Maren Oake", DEMO_PIN);
    await expect(who(page)).toHaveText("Maren Oake");
    await kept(page);
    await server.stop(true);
    await openAnew(page, "/");
    await expect(page.getByText("This device holds no job yet")).toBeVisible();
    await page.getByRole("link", { name: "New job" }).click();
    await page.getByLabel("Complaint, in the customer's words").fill("Whistles on the hill");
    await page.getByText("More about the car").click();
    await page.getByLabel("Make", { exact: true }).fill("Ondrell");
    await page.getByLabel("Model", { exact: true }).fill("Petrel 1.6");
    await page.getByLabel("Model year").fill("2014");
    await page.getByLabel("Registration").fill("FW 82 OFF");
    await page.getByLabel("Engine displacement", { exact: true }).fill("1.6 L");
    await describeEngine(page, "Naturally aspirated");
    await button(page, "Open the job").click();
    await expect(page.getByRole("heading", { name: "No number yet" })).toBeVisible();
    await expect(page.getByText("3 not sent yet")).toBeVisible();
    await note(page, "Hisses at the plenum");
    await page.goto("/");
    await expect(page.getByText("its number comes from the server")).toBeVisible();
    await page.getByRole("main", { name: "Jobs on this device" }).getByRole("link").click();
    await expect(page.getByRole("heading", { name: "No number yet" })).toBeVisible();

    server = await shops.open({ data });
    await page.evaluate(() => window.dispatchEvent(new Event("online")));
    await expect(page.getByRole("heading", { name: "Job 1", exact: true })).toBeVisible({ timeout: 30_000 });
    await expect.poll(() => keptOn(page)).toEqual([]);
    const all = (await (await page.request.get(`/api/v1/jobs/${idOf(page)}/entries`)).json()) as JournalEntry[];
    expect(all.map((e) => [e.seq, e.kind, e.by])).toEqual([
      [1, "opened", "Maren Oake"],
      [2, "vehicle", "Maren Oake"],
      [3, "story", "Maren Oake"],
      [4, "note", "Maren Oake"],
    ]);
  } finally {
    await context.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
  }
});

test("a device of an older build meets a newer server: what waited goes up once, and the new build takes over with nothing lost", async ({
  browser,
  shops,
}) => {
  let server: OtherShop = await shops.open();
  const { data } = server;
  const context = await browser.newContext({ baseURL: server.url });
  const page = await context.newPage();
  const root = newerBuild();
  const builds = () =>
    page.evaluate(async () => {
      const names = await caches.keys();
      const keys = await Promise.all(names.map(async (name) => (await (await caches.open(name)).keys()).map(({ url }) => url)));
      return [...new Set(keys.flat().flatMap((url) => /static\/([^/]+)\/_buildManifest/.exec(url)?.[1] ?? []))];
    });
  try {
    await inAs(page, "Maren Oake");
    await page.goto("/");
    await enterPin(page, "Maren Oake", DEMO_PIN);
    await expect(who(page)).toHaveText("Maren Oake");
    const id = await openOn(page, CARS.curlew, { symptoms: ["rough-idle"] }, ["P0171"]);
    await kept(page);
    const [older] = await builds();
    await server.stop(true);
    await note(page, "Made by the older build");
    await expect(page.getByText(/^1 not sent yet/)).toBeVisible();

    // The shop's machine was brought up to date meanwhile. The open page sends what it made, and goes on.
    server = await startServer(shops.port, [], { PELOTA_DATA: data }, undefined, root);
    await expect(page.getByText(/not sent yet/)).toHaveCount(0, { timeout: 30_000 });
    await page.getByRole("button", { name: "Journal" }).click();
    await page.getByRole("textbox", { name: "Note" }).fill("Half typed");
    await page.keyboard.press("Escape");
    // As it is opened anew, twice at most, the device has the new build.
    await expect
      .poll(
        async () => {
          // As it takes over, the page is opened once more by itself, in the middle of this if need be.
          await page.reload().catch(() => {});
          return builds().catch(() => []);
        },
        { timeout: 60_000, intervals: [2000] },
      )
      .toEqual([`${older?.slice(0, -5)}newer`]);
    await page.getByRole("button", { name: "Journal" }).click();
    await expect(page.getByRole("textbox", { name: "Note" })).toHaveValue("Half typed");
    await page.keyboard.press("Escape");
    await server.stop(true);
    await page.reload();
    await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
    await note(page, "Made by the newer build");
    server = await startServer(shops.port, [], { PELOTA_DATA: data }, undefined, root);
    await expect(page.getByText(/not sent yet/)).toHaveCount(0, { timeout: 30_000 });
    expect((await notes(page, id)).map((e) => (e.body as { text: string }).text)).toEqual([
      "Made by the older build",
      "Made by the newer build",
    ]);
  } finally {
    await context.close();
    await server.stop();
    rmSync(data, { recursive: true, force: true });
    rmSync(root, { recursive: true, force: true });
  }
});
