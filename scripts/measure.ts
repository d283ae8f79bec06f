/**
 * `npm run measure`: the bench in a real browser. Prints what whole jobs take in taps, typed fields and seconds from the board
 * to their end, and to the first answer; whether each instrument's keys lie in sight; and, slowed down four times as on a slow
 * tablet, how long the screen takes to answer. Build first.
 */
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Browser, chromium, type Locator, type Page } from "@playwright/test";
import { CARS } from "../demo/cars";
import { INSTRUMENTS, instrument, onShelf, signIn, startClock } from "../e2e/steps";
import config from "../playwright.config";
import { counted, morning, playWhole, secondsOf, WHOLE_JOBS } from "./whole-jobs";

const PORT = 4323;
const SLOW = 4;
const DESK = { width: 1280, height: 800 };
/** What a job may cost, taps and fields together. */
const [FIRST_ANSWER, SIMPLE_JOB, ANY_JOB] = [12, 60, 100];
const PHONE = { width: 390, height: 844 };

/** A hand on the page. */
class Hand {
  constructor(readonly page: Page) {}
  async tap(what: Locator | string) {
    await (typeof what === "string" ? this.page.getByRole("button", { name: what, exact: true }) : what).first().click();
  }
  async fill(label: string | RegExp, value: string) {
    await this.page.getByRole("textbox", { name: label }).first().fill(value);
  }
  async understood() {
    const key = this.page.getByRole("button", { name: "Understood" });
    await this.page.waitForTimeout(200);
    if (await key.count()) await this.tap(key);
  }
}

/** From the board into an instrument, with its two facts. */
async function straight(hand: Hand, name: string): Promise<void> {
  await hand.page.goto("/");
  await hand.tap(hand.page.locator("summary").filter({ hasText: "More" }));
  await hand.tap(hand.page.getByRole("link", { name, exact: true }));
  await hand.fill("Engine displacement", "1.6");
  await hand.tap(hand.page.getByRole("button", { name: /^Open the / }));
  await hand.page.getByRole("heading", { name, level: 2 }).waitFor();
}
async function conditions(hand: Hand): Promise<void> {
  await hand.tap("Set conditions");
  const ambient = hand.page.getByRole("textbox", { name: "Ambient pressure, absolute" });
  if ((await ambient.inputValue()) === "") {
    await hand.fill("Ambient pressure, absolute", "1006");
    await hand.fill("Bay temperature", "17");
  }
  await hand.tap("Record conditions");
  await hand.page.getByRole("dialog").waitFor({ state: "detached" });
}
/** A job of the demo, at a check of it. */
async function demoJob(hand: Hand, car: keyof typeof CARS, check: string): Promise<void> {
  const { page } = hand;
  const registration = CARS[car].facts.registration ?? "";
  await page.goto(`/?all=1&q=${encodeURIComponent(registration)}`);
  await hand.tap(page.getByRole("main").getByRole("link").filter({ hasText: registration }));
  await hand.tap(page.getByRole("navigation", { name: "Stations" }).getByRole("button", { name: "Check" }));
  if (!(await page.getByRole("heading", { name: check, level: 2, exact: true }).count())) {
    await hand.tap("Another instrument");
    await hand.tap(onShelf(page, check));
  }
}

/** From the board into a smoke run whose clock runs. */
async function smokeRunning(hand: Hand): Promise<void> {
  await straight(hand, "Smoke run");
  await conditions(hand);
  await hand.understood();
  await hand.tap(hand.page.getByRole("radio", { name: "Stand at zero" }));
  await hand.tap("Heater on, to the machine proof");
  await hand.fill("Pressure with the hose clamped", "12.6");
  await hand.tap(hand.page.getByRole("radio", { name: "Sat at the bottom" }));
  await hand.tap(hand.page.getByRole("radio", { name: "Came" }));
  await hand.tap("Hose on: start the run");
  await hand.fill("Pressure", "12");
}

const quantile = (sorted: readonly number[], q: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? 0;

/** Times from an interaction to the frame that shows it, ms, as the browser's own event timing has them. */
async function paints(page: Page): Promise<number[]> {
  return page.evaluate(() => {
    const seen = (window as unknown as { paints: number[] }).paints;
    return seen.splice(0);
  });
}

/** Takes an instrument off the shelf as a hand does: nothing else is looked at meanwhile, which would slow the page. */
async function takeOff(page: Page, name: string): Promise<void> {
  await page.getByRole("button", { name: "Another instrument" }).click();
  await page.waitForTimeout(400);
  await onShelf(page, name).click();
  await page.waitForTimeout(700);
}

/** Draws from one place to another and lets go, as a finger does. */
async function drag(page: Page, what: Locator, [fromX, fromY]: readonly [number, number], [byX, byY]: readonly [number, number]) {
  const box = await what.boundingBox();
  if (!box) throw new Error("what is to be dragged is not on the screen");
  await page.mouse.move(box.x + fromX, box.y + fromY);
  await page.mouse.down();
  for (let i = 0; i < 15; i++) await page.mouse.move(box.x + fromX + byX * i, box.y + fromY + byY * i);
  await page.mouse.up();
}

/** A practice car with a scan tool on it, ten times as fast as the clock. */
async function practiceRunning(page: Page): Promise<void> {
  await page.goto("/practice");
  await page.getByLabel("The case's code").fill("3008-BFY0-0000-006");
  await page.getByRole("button", { name: "Play this code" }).click();
  await page.getByRole("heading", { name: /^Practice/ }).waitFor();
  await page.getByRole("navigation", { name: "Stations" }).getByRole("button").nth(4).click();
  await takeOff(page, "Fuel-trim survey");
  await page.getByRole("radio", { name: "Live from the scan tool" }).click();
  await page.getByRole("radio", { name: "Ten times faster" }).click();
  await page.getByRole("button", { name: /^Plug it into the car/ }).click();
  await page.getByText(/s read\./).waitFor();
}

async function answers(page: Page, slow: (rate: number) => Promise<unknown>): Promise<void> {
  const table: [string, number[]][] = [];
  /** What is done only to get there is not counted. */
  const taken = async (what: string, act: () => Promise<void>) => {
    await page.waitForTimeout(700);
    await paints(page);
    await act();
    await page.waitForTimeout(700);
    table.push([what, (await paints(page)).toSorted((a, b) => a - b)]);
  };
  await demoJob(new Hand(page), "petrel", "Smoke run");
  await slow(SLOW);
  const stations = page.getByRole("navigation", { name: "Stations" }).getByRole("button");
  await taken("station change", async () => {
    for (let i = 0; i < 9; i++) {
      await stations.nth(i).click();
      await page.waitForTimeout(400);
    }
  });
  await stations.nth(4).click();
  await taken("opening an instrument", async () => {
    for (const name of ["Intake vacuum", "Hold test", "Valve, two states", "Airflow", "Smoke run"]) await takeOff(page, name);
  });
  await takeOff(page, "Intake vacuum");
  await taken("typing", async () => {
    await page.getByRole("textbox", { name: "Vacuum at idle" }).pressSequentially("19.5 inHg", { delay: 60 });
    await page.getByRole("textbox", { name: "Idle speed, rpm" }).pressSequentially("740", { delay: 60 });
  });
  await page.getByRole("radio", { name: /Steady/ }).click();
  await taken("recording", async () => {
    await page.getByRole("button", { name: "Record the check" }).click();
    await page.waitForTimeout(1500);
  });
  await takeOff(page, "Hold test");
  await taken("dragging a needle", () => drag(page, page.getByRole("slider", { name: /Pump gauge/ }), [60, 60], [6, 0]));
  await slow(1);
  await smokeRunning(new Hand(page));
  await slow(SLOW);
  await taken("dragging the ball", async () => {
    for (const up of [-6, -4, 3, -2]) await drag(page, page.getByRole("slider", { name: /[Bb]all/ }), [50, 200], [0, up]);
  });
  await taken("taking a reading", async () => {
    for (let i = 0; i < 4; i++) {
      await page.getByRole("button", { name: "Take reading" }).click();
      await page.waitForTimeout(1100);
    }
  });
  await slow(1);
  await practiceRunning(page);
  await slow(SLOW);
  await taken("a practice car runs live", async () => {
    for (const foot of ["1500", "2500", "Idle", "1500"]) {
      await page.getByRole("radio", { name: foot, exact: true }).click();
      await page.waitForTimeout(900);
    }
    await page.getByRole("button", { name: "Unplug" }).click();
  });
  console.log(`\nFrom interaction to paint at ${SLOW}x slow-down, ms (those under 16 are not reported by the browser)`);
  for (const [what, times] of table)
    console.log(
      `  ${what.padEnd(24)} ${String(times.length).padStart(3)} interactions  median ${quantile(times, 0.5).toFixed(0).padStart(4)}  p95 ${quantile(times, 0.95).toFixed(0).padStart(4)}`,
    );
  const all = table.flatMap(([, t]) => t).toSorted((a, b) => a - b);
  console.log(
    `  ${"all".padEnd(24)} ${String(all.length).padStart(3)} interactions  median ${quantile(all, 0.5).toFixed(0).padStart(4)}  p95 ${quantile(all, 0.95).toFixed(0).padStart(4)}  (asked: p95 100)`,
  );
}

/** What of an instrument's live part lies under the fold, by its bounding boxes. */
async function folds(page: Page): Promise<void> {
  const hand = new Hand(page);
  await demoJob(hand, "redshank", "Hold test");
  const under: string[] = [];
  for (const name of INSTRUMENTS) {
    await instrument(page, name);
    await hand.understood();
    for (const size of [DESK, PHONE])
      for (const theme of ["dim", "daylight"]) {
        await page.setViewportSize(size);
        await page.evaluate((t) => document.documentElement.setAttribute("data-theme", t), theme);
        await page.evaluate(() => scrollTo(0, 0));
        await page.waitForTimeout(150);
        const live = [
          ["gauge", page.getByRole("main").getByRole("slider")],
          ["keys", page.getByRole("button", { name: "Record the check" })],
          ["clock", page.getByRole("main").getByRole("timer")],
        ] as const;
        for (const [what, where] of live) {
          if (!(await where.count())) continue;
          const box = await where.first().boundingBox();
          if (!box || box.y < 0 || box.y + box.height > size.height) under.push(`${name}: ${what} at ${size.width}, ${theme}`);
        }
      }
    await page.setViewportSize(DESK);
  }
  console.log(`\nBelow the fold at 1280x800 and 390x844 in both themes: ${under.length === 0 ? "nothing" : ""}`);
  for (const line of under) console.log(`  ${line}`);
}

/** Whole jobs on a device of their own, whose clock is wound on where a car stands or is driven. */
async function wholeJobs(browser: Browser): Promise<void> {
  const context = await browser.newContext({ viewport: DESK, baseURL: `http://127.0.0.1:${PORT}` });
  const tally = await counted(context);
  const page = await context.newPage();
  page.setDefaultTimeout(20_000);
  await startClock(page, 48);
  await signIn(page, "Maren Oake");
  await morning(page, tally);
  const n = (count: number) => String(count).padStart(3);
  console.log(
    `Whole jobs: taps and typed fields (marks: first answer ${FIRST_ANSWER}, one hose or one cap ${SIMPLE_JOB}, any ${ANY_JOB}); seconds by the keystroke-level model`,
  );
  for (const name of Object.keys(WHOLE_JOBS)) {
    const { all, first, wrong } = await playWhole(page, tally, name);
    const early = first ? `${n(first.taps)} + ${n(first.fields)} in ${n(Math.round(secondsOf(first)))} s` : "none";
    console.log(
      `  ${name.padEnd(30)} first answer ${early}, whole ${n(all.taps)} + ${n(all.fields)} = ${n(all.taps + all.fields)}${wrong ? `, stopped: ${wrong}` : ""}`,
    );
    if (wrong) process.exitCode = 1;
  }
  await context.close();
}

const data = mkdtempSync(join(tmpdir(), "pelota-measure-"));
const env = { ...process.env, PELOTA_DATA: data, PELOTA_KEEP_BACKUPS: "0" };
const server = spawn("sh", ["-c", `npx tsx demo/fill.ts && exec node scripts/start.mjs --port ${PORT}`], {
  env,
  stdio: "ignore",
  detached: true,
});
try {
  for (let tries = 0; ; tries++) {
    if (
      await fetch(`http://127.0.0.1:${PORT}/api/v1/people`).then(
        (r) => r.ok,
        () => false,
      )
    )
      break;
    if (tries > 300) throw new Error("The server did not come up: run npm run build first");
    await new Promise((done) => setTimeout(done, 200));
  }
  const browser = await chromium.launch(config.use?.launchOptions ?? {});
  const context = await browser.newContext({ viewport: DESK, baseURL: `http://127.0.0.1:${PORT}` });
  await context.addInitScript(() => {
    const seen: number[] = [];
    Object.assign(window, { paints: seen });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as (PerformanceEntry & { interactionId?: number })[])
        if (entry.interactionId) seen.push(entry.duration);
    }).observe({ type: "event", buffered: true, durationThreshold: 16 } as PerformanceObserverInit);
  });
  const page = await context.newPage();
  await signIn(page, "Maren Oake");
  page.setDefaultTimeout(20_000);
  await wholeJobs(browser);
  await folds(page);
  const devtools = await context.newCDPSession(page);
  await answers(page, (rate) => devtools.send("Emulation.setCPUThrottlingRate", { rate }));
  await browser.close();
} finally {
  process.kill(-(server.pid as number));
  rmSync(data, { recursive: true, force: true });
}
