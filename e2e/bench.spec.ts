import type { Locator, Page } from "@playwright/test";
import { CARS } from "../demo/cars";
import { button, instrument, main, map, openJob, setConditions, signIn, startClock, station } from "./steps";
import { CLOCKED, expect, test } from "./test";

/** Whether an element lies on the screen as it is, nothing scrolled. */
const inSight = async (page: Page, what: Locator): Promise<boolean> => {
  const [box, size] = [await what.first().boundingBox(), page.viewportSize()];
  return box !== null && size !== null && box.y >= 0 && box.y + box.height <= size.height && box.width > 0;
};
const demoJob = async (page: Page, car: keyof typeof CARS) => {
  const registration = CARS[car].facts.registration ?? "";
  await page.goto(`/?all=1&q=${encodeURIComponent(registration)}`);
  await page.getByRole("main").getByRole("link").filter({ hasText: registration }).first().click();
  await expect(main(page)).toBeVisible();
};

test(
  "a live run shows ball, gauge, plot, clock and keys at once, and stands readable across the bay",
  CLOCKED,
  async ({ page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await openJob(page, "Hiss at idle", "FW 81 BEN");
    await setConditions(page);
    await station(page, "Check");
    await instrument(page, "Smoke run");
    await page.getByRole("radio", { name: "Stand at zero" }).click();
    await button(page, "Heater on, to the machine proof").click();
    await page.getByLabel("Pressure with the hose clamped", { exact: true }).fill("12.6 inH2O");
    await page.getByRole("radio", { name: "Sat at the bottom" }).click();
    await page.getByRole("radio", { name: "Came" }).click();
    await button(page, "Hose on: start the run").click();
    for (let i = 0; i < 3; i++) {
      await page.clock.fastForward(4000);
      await button(page, "Take reading").click();
    }
    const live = {
      ball: page.getByRole("slider", { name: /Flow ball/ }),
      gauge: page.getByLabel("Pressure", { exact: true }),
      plot: main(page).locator(".recharts-surface"),
      clock: page.getByRole("timer"),
      key: button(page, "I see smoke: mark it"),
    };
    for (const [name, what] of Object.entries(live)) expect(await inSight(page, what), name).toBe(true);
    await page.setViewportSize({ width: 390, height: 844 });
    await page.evaluate(() => scrollTo(0, 0));
    for (const what of [main(page).getByRole("timer"), live.key]) await expect.poll(() => inSight(page, what)).toBe(true);
    await page.setViewportSize({ width: 1280, height: 800 });

    await button(page, "Large view").click();
    const afar = page.getByRole("dialog", { name: "The run, readable from a distance" });
    await expect(afar.getByText("L/min on the scale")).toBeVisible();
    const size = await afar
      .locator("p")
      .first()
      .evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
    expect(size).toBeGreaterThan(200);
    await page.keyboard.press("Escape");
    await expect(button(page, "Large view")).toBeFocused();
    // Nothing is thrown away unasked.
    await button(page, "Discard this run").click();
    await button(page, "Go on").click();
    await expect(live.ball).toBeVisible();
    await button(page, "Discard this run").click();
    await button(page, "Discard it").click();
    await expect(live.ball).toHaveCount(0);
  },
);

test("clocks are heard when there is something to do, and only while sound is on", CLOCKED, async ({ page }) => {
  await page.addInitScript(() => {
    const heard = { tones: 0 };
    const node = { connect: () => node, gain: {}, frequency: {}, start: () => heard.tones++, stop: () => {} };
    const Fake = class {
      currentTime = 0;
      destination = node;
      resume = async () => {};
      close = async () => {};
      createOscillator = () => node;
      createGain = () => node;
    };
    Object.assign(window, { AudioContext: Fake, heard });
  });
  const tones = () => page.evaluate(() => (window as unknown as { heard: { tones: number } }).heard.tones);
  await startClock(page);
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss at idle", "FW 82 BEN");
  await setConditions(page);
  await station(page, "Check");
  await instrument(page, "Smoke run");
  await page.getByRole("radio", { name: "Stand at zero" }).click();
  await button(page, "Heater on, to the machine proof").click();
  const left = page.getByRole("complementary", { name: "Ledger" }).getByRole("timer").first();
  await expect(left).toHaveText(/^\d+:\d\d$/);
  await page.clock.fastForward(60_000);
  expect(await tones()).toBe(0);
  const [minutes = 0, seconds = 0] = ((await left.textContent()) ?? "").split(":").map(Number);
  // Heard before the machine stops, while there is time to act on it.
  await page.clock.fastForward(1000 * (60 * minutes + seconds - 15));
  await expect.poll(tones).toBe(3);
  await expect(page.getByText("Smoke machine stops in 20 s")).toBeAttached();

  await button(page, "Discard this run").click();
  await button(page, "Discard it").click();
  await page.getByRole("radio", { name: "Stand at zero" }).click();
  await button(page, "Heater on, to the machine proof").click();
  await button(page, "Clocks are heard: silence them").click();
  await page.clock.fastForward(3600_000);
  await expect(page.getByText("stopped")).toBeVisible();
  expect(await tones()).toBe(3);
});

test("focus goes where the work goes: to an opened station's heading, back to what opened a dialog, past the stations by a link", async ({
  page,
}) => {
  await signIn(page, "Wren Alder");
  await demoJob(page, "petrel");
  await page.keyboard.press("7");
  await expect(main(page).getByRole("heading", { name: "Fix", level: 2 })).toBeFocused();
  await page.getByRole("button", { name: "Journal" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Journal" })).toBeFocused();
  await page.goto(page.url());
  await expect(main(page)).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "To the work" })).toBeFocused();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Tab");
  expect(await main(page).evaluate((e) => e.contains(document.activeElement))).toBe(true);
});

test("on a phone the head is one line, a station opens at its top, and the map begins where the work is", async ({
  newDevice,
}) => {
  const context = await newDevice({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  await signIn(page, "Wren Alder");
  await demoJob(page, "curlew");
  expect((await page.getByRole("banner").boundingBox())?.height).toBeLessThan(60);
  await expect(map(page).locator("polygon").first()).toBeInViewport();
  await page.evaluate(() => scrollTo(0, 2000));
  await station(page, "Scan");
  await expect(main(page).getByRole("heading", { name: "Scan", level: 2 })).toBeInViewport();
  expect(await page.evaluate(() => scrollY)).toBe(0);
  await station(page, "Check");
  await expect(map(page).getByRole("button", { name: /^Manifold: leaking/ })).toBeInViewport({ ratio: 0.9 });
});
