import type { Page } from "@playwright/test";
import { CLOCKED, expect, installClock, test } from "./test";

// One after the other, and so on one device.
test.describe.configure({ mode: "serial" });

const stored = (page: Page) =>
  page.evaluate(async () => ({
    local: Object.keys(localStorage).filter((key) => key.startsWith("left")),
    session: Object.keys(sessionStorage).filter((key) => key.startsWith("left")),
    databases: (await indexedDB.databases()).map(({ name }) => name).filter((name) => name?.startsWith("left")),
    cookies: document.cookie,
  }));

let first: object;

test("a device is given to the next test", async ({ context, page }) => {
  first = context;
  await page.goto("/new");
  await page.evaluate(async () => {
    for (const store of [localStorage, sessionStorage]) store.setItem("left behind", "by a test");
    // biome-ignore lint/suspicious/noDocumentCookie: the one way that is there without HTTPS
    document.cookie = "left=behind";
    await new Promise((done) => {
      const opening = indexedDB.open("left behind");
      opening.onupgradeneeded = () => opening.result.createObjectStore("kept");
      opening.onsuccess = () => done(opening.result.close());
    });
  });
  expect(await stored(page)).toEqual({
    local: ["left behind"],
    session: ["left behind"],
    databases: ["left behind"],
    cookies: "left=behind",
  });
  await context.grantPermissions(["notifications"]);
  await context.route("**/api/**", (route) => route.abort());
  await context.setOffline(true);
});

test("with nothing left on it", async ({ context, page }) => {
  expect(context).toBe(first);
  await page.goto("/new");
  expect(await stored(page)).toEqual({ local: [], session: [], databases: [], cookies: "" });
  expect(await page.evaluate(() => Notification.permission)).not.toBe("granted");
  expect(await page.evaluate(() => fetch("/api/v1/people").then((r) => r.status))).toBe(200);
  expect(Math.abs((await page.evaluate(() => Date.now())) - Date.now())).toBeLessThan(60_000);
});

for (const hoursAgo of [5, 3])
  test(
    `and the one with a clock in it goes by the clock that its test sets, ${hoursAgo} hours ago`,
    CLOCKED,
    async ({ page }) => {
      await installClock(page, new Date(Date.now() - hoursAgo * 3600_000));
      await page.goto("/new");
      const hours = async () => (Date.now() - (await page.evaluate(() => Date.now()))) / 3600_000;
      expect(await hours()).toBeCloseTo(hoursAgo, 1);
      await page.clock.fastForward(3600_000);
      expect(await hours()).toBeCloseTo(hoursAgo - 1, 1);
    },
  );
