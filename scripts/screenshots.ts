/** Takes one picture of each main view, from the demo data, into docs/screenshots. Build first: `npm run build`. */
import { spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Browser, chromium, type Locator, type Page } from "@playwright/test";
import { CARS } from "../demo/cars";
import { recordBoost } from "../demo/charge";
import { writeLog } from "../demo/drive";
import { recordProbe } from "../demo/readings";
import { decayOf } from "../demo/tank";
import { instrument, pick, readColumns, signIn, TO_PROOF } from "../e2e/steps";
import config from "../playwright.config";

const PORT = 4318;
const OUT = join("docs", "screenshots");
const DESK = { width: 1280, height: 800 };
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
    localStorage.setItem("pelota.visited", "true");
  }, theme);
  const page = await context.newPage();
  await signIn(page, "Maren Oake");
  // The page listens for changes as long as it is open, so its network never idles.
  await page.goto(path, { waitUntil: "load" });
  await page.waitForTimeout(1000);
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
  await readColumns(page);
  await page.getByRole("region", { name: "Verdict so far" }).waitFor();
}

/** A run as far as its settled ball, on a clock that is wound on between the readings. */
async function smokeRun(page: Page): Promise<void> {
  await page.clock.install();
  await page.keyboard.press("5");
  await instrument(page, "Smoke run");
  await understood(page);
  await page.getByRole("radio", { name: "Stand at zero" }).click();
  await page.getByRole("button", { name: TO_PROOF }).click();
  await page.getByLabel("Pressure with the hose clamped", { exact: true }).fill("12.6 inH2O");
  await page.getByRole("radio", { name: "Sat at the bottom" }).click();
  await page.getByRole("radio", { name: "Came" }).click();
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

const scroll = (page: Page, by: number) =>
  page.getByRole("main", { name: "Now" }).evaluate((main, y) => {
    main.scrollBy(0, y);
  }, by);
/** Brings a part to the top of the station's work. */
const show = (part: Locator) =>
  part.evaluate((e) => {
    const main = e.closest("main");
    main?.scrollBy(0, e.getBoundingClientRect().top - main.getBoundingClientRect().top - 16);
  });
async function take(page: Page, name: string): Promise<void> {
  await page.keyboard.press("5");
  await instrument(page, name);
  await understood(page);
}
const fill = (page: Page, name: string | RegExp, value: string) =>
  page
    .getByRole("main", { name: "Now" })
    .getByRole("textbox", { name, exact: typeof name === "string" })
    .fill(value);

/** Three taps read against their log, the second one drunk. */
async function probe(page: Page): Promise<void> {
  await page.clock.install();
  await take(page, "Enrichment probe");
  await page.getByRole("button", { name: "Start log and clock together" }).click();
  await page.clock.fastForward(14_000);
  const spots = ["Manifold gasket", "Small vacuum branch", "PCV hose"];
  for (const name of spots) {
    await pick(page, "Spot that comes next", name);
    await page.getByRole("button", { name: /^Tap/ }).click();
    await page.clock.fastForward(16_000);
  }
  const taps = spots.map((name, i) => ({ at: 14 + 16 * i, drinks: name === "Small vacuum branch" }));
  await page.getByLabel("Scan-tool log").setInputFiles({
    name: "probe.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(writeLog(recordProbe(CARS.sanderling.engine, taps, 64, 5), "comma", false)),
  });
  await readColumns(page);
  await page
    .getByText(/^Reacts at Small vacuum branch/)
    .first()
    .waitFor();
  await page.mouse.move(0, 0);
  await scroll(page, 130);
}

async function pressureTest(page: Page): Promise<void> {
  await take(page, "Boost pressure test");
  await fill(page, "Adapter and hose are rated for, gauge", "2");
  for (const [i, stop] of ["0.3", "0.6"].entries()) {
    if (i > 0) await page.getByRole("button", { name: "Next stop" }).click();
    await page.getByRole("textbox", { name: "Stop, gauge" }).nth(i).fill(stop);
  }
  await page.getByRole("button", { name: "Air comes out here" }).click();
  await pick(page, "Where", "cooler-tank");
  await page.getByRole("radio", { name: "Soap bubbles" }).click();
  await scroll(page, 60);
}

/** A drive's log read into the boost check. */
async function boostLog(page: Page): Promise<void> {
  await take(page, "Boost from a log");
  const buffer = Buffer.from(recordBoost(CARS.guillemot.charge, 7));
  await page.getByLabel("Scan-tool log").setInputFiles({ name: "pulls.csv", mimeType: "text/csv", buffer });
  await readColumns(page);
  await page.getByRole("radio", { name: "Warm", exact: true }).click();
  await page.getByText(/^Boost \(kPa absolute\)/).waitFor();
  await scroll(page, 0);
}

/** A pump made to run, its seam soaped. */
async function secondaryAir(page: Page): Promise<void> {
  await take(page, "Secondary air");
  await page.getByRole("radio", { name: "Runs, air felt" }).click();
  await page.getByRole("radio", { name: "Yes: re-armed" }).click();
  await page.getByRole("button", { name: "Secondary-air pump, body or seam" }).click();
  await scroll(page, 0);
}

/** The entry that cannot reach the neck, set up. */
async function vapourSetup(page: Page): Promise<void> {
  await take(page, "EVAP smoke");
  await pick(page, "Let smoke in at", "service-port");
  await page.getByRole("radio", { name: "A plug by hand" }).click();
  await page.getByLabel("Fuel level, % of the tank").fill("45");
  await show(page.getByText(/^Must be caught/));
}

const table = (samples: readonly (readonly [number, number])[]) => samples.map(([t, p]) => `${t} ${p}`).join("\n");

/** A decay alone and with the reference hole open, both typed. */
async function decayed(page: Page): Promise<void> {
  await take(page, "Pressure decay");
  const read = decayOf(CARS.shearwater, { seed: 5, entry: "service-port", reference: 0.508e-3 });
  await page.getByLabel("Fuel level, % of the tank").fill("45");
  await page.getByLabel("Held before shut-off, s").fill("120");
  await page.getByRole("radiogroup", { name: "Decay: readings" }).getByRole("radio", { name: "Typed table" }).click();
  await page.getByLabel(/^Seconds and pressure/).fill(table(read.samples));
  await page.getByLabel(/^Once more with a reference hole open/).check();
  await page
    .getByRole("radiogroup", { name: "With the reference hole: readings" })
    .getByRole("radio", { name: "Typed table" })
    .click();
  await page
    .getByLabel(/^Seconds and pressure/)
    .last()
    .fill(table(read.reference?.samples ?? []));
  await show(page.getByText(/^Pressure after shut-off/));
}

/** A practice case on its way: codes and conditions read, smoke run on the car, live from the bay's own machine. */
async function practised(page: Page): Promise<void> {
  await page.getByLabel("The case's code").fill("360G-DFY0-0000-007");
  await page.getByRole("button", { name: "Play this code" }).click();
  await page.waitForURL(/jobs/);
  await open(2)(page);
  await page.getByRole("button", { name: "Read the codes on the car" }).click();
  await page.getByRole("main", { name: "Now" }).getByText(/^P\d/).first().waitFor();
  await page.getByRole("button", { name: "Record the codes" }).click();
  await page.getByRole("button", { name: "Set conditions" }).click();
  await page.getByRole("button", { name: "Read them in the bay" }).click();
  await page.waitForFunction(() => document.querySelector<HTMLInputElement>("[role=dialog] input")?.value !== "");
  await page.getByRole("button", { name: "Record conditions" }).click();
  await page.getByRole("dialog").waitFor({ state: "detached" });
  await take(page, "EVAP smoke");
  await page.getByRole("radio", { name: "A plug by hand" }).click();
  await page.getByRole("button", { name: "Run it on the car" }).click();
  await page.getByRole("button", { name: "Record the run" }).waitFor();
  await page.getByRole("main", { name: "Now" }).evaluate((main) => main.scrollTo(0, 0));
}

/** The same, ended: what was wrong, and the way it was found. */
async function debriefed(page: Page): Promise<void> {
  await practised(page);
  await page.getByRole("button", { name: "Record the run" }).click();
  await page.getByRole("button", { name: "End", exact: true }).click();
  await page.getByRole("button", { name: "End it" }).click();
  await page.getByText("Next time:").waitFor();
  await page.getByText(/^The way it was found/).evaluate((e) => e.scrollIntoView({ block: "center" }));
}

/** A fall that was read off a gauge, as a link carries it. */
const RECKONED = `/reckoner?${new URLSearchParams({
  reckon: "decay",
  samples: "0 10\n30 9.2\n60 8.5\n90 7.8\n120 7.2\n150 6.6",
  volume: "30 L",
})}`;

const data = mkdtempSync(join(tmpdir(), "pelota-shots-"));
process.env.PELOTA_DATA = data;
const { fillDemo } = await import("../demo/fill");
const { listJobs } = await import("@/server/board");
await fillDemo();
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
  await shot(browser, "shop", "/shop", undefined, "daylight");
  await shot(browser, "what-we-know", "/what-we-know");
  await shot(browser, "practice", "/practice", practised);
  await shot(browser, "debrief", "/practice", debriefed, "daylight");
  await shot(browser, "suspects", jobOf("Petrel"), open(4));
  await shot(browser, "trims", jobOf("Petrel"), (page) => survey(page, "petrel-lean-idle.csv"));
  await shot(browser, "probe", jobOf("Sanderling"), probe);
  await shot(browser, "pressure-test", jobOf("Dotterel"), pressureTest, "daylight");
  await shot(browser, "boost", jobOf("Guillemot"), boostLog);
  await shot(browser, "smoke-sections", jobOf("Curlew"), async (page) => {
    await take(page, "Smoke run");
    await page.getByText(/^Read together/).evaluate((e) => e.scrollIntoView({ block: "center" }));
  });
  await shot(browser, "smoke-run", jobOf("Petrel"), smokeRun);
  await shot(browser, "secondary-air", jobOf("Teal"), secondaryAir, "daylight");
  await shot(browser, "evap-smoke", jobOf("Pintail"), vapourSetup);
  await shot(browser, "decay", jobOf("Shearwater"), decayed, "daylight");
  await shot(browser, "reckoner", RECKONED);
  await shot(browser, "fix", jobOf("Curlew"), open(7), "daylight");
  await shot(browser, "prove", jobOf("Puffin"), open(8));
  await shot(browser, "handover-page", `${jobOf("Siskin")}/handover`, undefined, "daylight", { width: 1000, height: 1180 });
} finally {
  await browser.close();
  process.kill(-(server.pid as number));
  rmSync(data, { recursive: true, force: true });
}
