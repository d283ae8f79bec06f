/** Takes one picture of each main view, from the demo data, into docs/screenshots. Build first: `npm run build`. */
import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Browser, chromium, type Page } from "@playwright/test";
import { instrument } from "../e2e/steps";
import config from "../playwright.config";

const PORT = 4318;
const OUT = join("docs", "screenshots");
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
type Theme = "dim" | "daylight";

async function shot(
  browser: Browser,
  name: string,
  path: string,
  steps: (page: Page) => Promise<void> = async () => {},
  theme: Theme = "dim",
  viewport = DESK,
): Promise<void> {
  const context = await browser.newContext({ viewport, baseURL: `http://127.0.0.1:${PORT}` });
  await context.addInitScript((chosen) => {
    localStorage.setItem("pelota.theme", chosen);
    localStorage.setItem("pelota.person", JSON.stringify("Maren Oake"));
  }, theme);
  const page = await context.newPage();
  await page.goto(path, { waitUntil: "networkidle" });
  await steps(page);
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(OUT, `${name}.png`) });
  await context.close();
}

const open = (station: number) => async (page: Page) => page.keyboard.press(String(station));
const understood = async (page: Page) => {
  const key = page.getByRole("button", { name: "Understood" });
  if (await key.count()) await key.click();
};

async function survey(page: Page, file: string): Promise<void> {
  await page.keyboard.press("5");
  await instrument(page, "Fuel-trim survey");
  await understood(page);
  await page.getByLabel("Scan-tool log").setInputFiles(join("demo", "logs", file));
  await page.getByRole("button", { name: "Read the log with these columns" }).click();
  await page.getByRole("region", { name: "Verdict so far" }).waitFor();
}

/** A run as far as its settled ball, on a clock that is wound on between the readings. */
async function smokeRun(page: Page): Promise<void> {
  await page.clock.install();
  await page.keyboard.press("5");
  await instrument(page, "Smoke run");
  await understood(page);
  await page.getByLabel(/^Gauge and ball stand at zero/).check();
  await page.getByRole("button", { name: "Heater on, to the machine proof" }).click();
  await page.getByLabel("Pressure with the hose clamped", { exact: true }).fill("12.6 inH2O");
  await page.getByLabel("The ball sat at the bottom").check();
  await page.getByLabel("Smoke came out of the open hose").check();
  await page.getByRole("button", { name: "Hose on: start the run" }).click();
  const ball = page.getByRole("slider", { name: /Flow ball/ });
  for (const height of [11.6, 10.3, 9.4, 8.9, 8.6, 8.5, 8.4, 8.4, 8.4]) {
    await page.clock.fastForward(5000);
    await ball.focus();
    for (;;) {
      const now = Number(await ball.getAttribute("aria-valuenow"));
      if (Math.abs(now - height) < 0.07) break;
      await page.keyboard.press(now > height ? "ArrowDown" : "ArrowUp");
    }
    await page.getByLabel("Pressure", { exact: true }).fill(String(Math.round(90 * (1 - height / 14)) / 4));
    await page.getByRole("button", { name: "Take reading" }).click();
  }
  await page.getByRole("main", { name: "Now" }).evaluate((main) => main.scrollTo(0, 0));
}

const data = mkdtempSync(join(tmpdir(), "pelota-shots-"));
process.env.PELOTA_DATA = data;
const { fillDemo } = await import("../demo/fill");
const { listJobs } = await import("@/server/jobs");
fillDemo();
const jobOf = (model: string) => `/jobs/${listJobs({ includeClosed: true }).find((j) => j.vehicle.includes(model))?.id}`;

const server = spawn("node", ["scripts/start.mjs", "--port", String(PORT)], { stdio: "ignore", detached: true });
const browser = await chromium.launch(config.use?.launchOptions ?? {});
mkdirSync(OUT, { recursive: true });
try {
  for (let tries = 0; tries < 50; tries++) {
    if (
      await fetch(`http://127.0.0.1:${PORT}/api/v1/people`).then(
        (r) => r.ok,
        () => false,
      )
    )
      break;
    await new Promise((done) => setTimeout(done, 300));
  }
  await shot(browser, "board", "/");
  await shot(browser, "board-phone", "/", undefined, "daylight", PHONE);
  await shot(browser, "new-job", "/new", undefined, "daylight");
  await shot(browser, "shop", "/shop", undefined, "daylight");
  await shot(browser, "story", jobOf("Whimbrel"), open(1));
  await shot(browser, "scan", jobOf("Petrel"), open(2), "daylight");
  await shot(browser, "look", jobOf("Merle"), open(3));
  await shot(browser, "suspects", jobOf("Petrel"), open(4));
  await shot(browser, "trims", jobOf("Petrel"), (page) => survey(page, "petrel-lean-idle.csv"));
  await shot(browser, "trims-two-banks", jobOf("Heron"), (page) => survey(page, "heron-one-bank.csv"), "daylight");
  await shot(browser, "smoke-setup", jobOf("Merle"), async (page) => {
    await page.keyboard.press("5");
    await instrument(page, "Smoke run");
  });
  await shot(browser, "smoke-run", jobOf("Petrel"), smokeRun);
  await shot(browser, "smoke-run-phone", jobOf("Petrel"), smokeRun, "dim", PHONE);
  await shot(browser, "find", jobOf("Whimbrel"), open(6));
  await shot(browser, "fix", jobOf("Whimbrel"), open(7), "daylight");
  await shot(browser, "prove", jobOf("Heron"), open(8));
  await shot(browser, "hand-over", jobOf("Dunlin"), open(9));
  await shot(browser, "handover-page", `${jobOf("Siskin")}/handover`, undefined, "daylight", { width: 1000, height: 1180 });
} finally {
  await browser.close();
  process.kill(-(server.pid as number));
  rmSync(data, { recursive: true, force: true });
}
