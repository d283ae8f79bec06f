import type { Page } from "@playwright/test";
import { workbook } from "../src/core/scan-log/workbook.fixture";
import type { OtherShop } from "./server";
import { button, instrument, leaking, logOf, main, openJob, readColumns, setConditions, signIn, station, survey } from "./steps";
import { expect, test } from "./test";

test("the running app asks no other host for anything, and runs no script but its own", async ({ page }) => {
  const others: string[] = [];
  const refused: string[] = [];
  page.on("console", (message) => {
    if (/content security policy/i.test(message.text())) refused.push(message.text());
  });
  page.on("request", (request) => {
    const { hostname, protocol } = new URL(request.url());
    if (protocol.startsWith("http") && hostname !== "127.0.0.1") others.push(request.url());
  });
  await signIn(page, "Wren Alder");
  await openJob(page, "Quiet network", "FW 30 SHP");
  await setConditions(page);
  await survey(page, leaking);
  for (const name of ["Story", "Scan", "Look", "Suspects", "Find", "Fix", "Prove", "Hand over"]) await station(page, name);
  await page.getByRole("button", { name: "Journal" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.goto(`${page.url()}/handover`);
  await expect(button(page, "Print")).toBeVisible();
  await page.goto("/new");
  await page.goto("/shop");
  const answer = await page.goto("/");
  expect(others).toEqual([]);
  expect(refused).toEqual([]);
  const headers = answer?.headers() ?? {};
  expect(headers["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'; /);
  expect(headers["content-security-policy"]).toMatch(/style-src 'self' 'nonce-[^']+'; style-src-attr 'unsafe-inline'; /);
  expect(headers["content-security-policy"]).toMatch(/frame-ancestors 'none'/);
  expect(headers).toMatchObject({ "x-content-type-options": "nosniff", "referrer-policy": "same-origin" });
  // What somebody slipped into a page does not run.
  const ran = await page.evaluate(() => {
    document.body.insertAdjacentHTML("beforeend", '<button id="slipped" onclick="window.slipped = true">x</button>');
    document.getElementById("slipped")?.click();
    return Reflect.get(window, "slipped") === true;
  });
  expect(ran).toBe(false);
  const styled = await page.evaluate(() => {
    document.head.insertAdjacentHTML("beforeend", "<style>body { outline: 7px solid red }</style>");
    return getComputedStyle(document.body).outlineWidth;
  });
  expect(styled).not.toBe("7px");
});

test("a job travels to another shop's empty database and is kept there as imported; then the whole shop does, once", async ({
  page,
  newDevice,
  shops,
}) => {
  await signIn(page, "Wren Alder");
  await page.goto("/?all=1&q=Siskin");
  const href = (await page.getByRole("main").getByRole("link").first().getAttribute("href")) as string;
  const id = href.split("/").pop() as string;
  await page.goto(href);
  await station(page, "Hand over");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Job file" }).click();
  const file = await (await download).path();
  const readings = await page.request.get(`/api/v1/jobs/${id}/readings`);
  expect(await readings.text()).toContain("smoke pressure");
  const other = await shops.open();
  try {
    const context = await newDevice({ baseURL: other.url });
    const there = await context.newPage();
    await signIn(there, "Wren Alder");
    await there.goto("/");
    await expect(there.getByText("The bay is empty. Open a job when the next car rolls in.")).toBeVisible();
    await there.getByLabel("Job file").setInputFiles(file);
    await expect(there.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
    const entriesOf = async (p: typeof page) => (await p.request.get(`/api/v1/jobs/${id}/entries`)).json();
    const imported = { by: "Wren Alder", at: expect.any(String) };
    expect(await entriesOf(there)).toEqual((await entriesOf(page)).map((e: object) => ({ ...e, imported })));
    await expect(there.getByRole("region", { name: "Where it comes from" })).toContainText(
      "From another shop, imported by Wren Alder",
    );
    await there.goto(`/jobs/${id}/handover`);
    await expect(there.getByText("PCV hose renewed with both clamps", { exact: false })).toBeVisible();

    await page.goto("/shop");
    const all = page.waitForEvent("download");
    await button(page, "Export the shop").click();
    const archive = await (await all).path();
    await there.goto("/shop");
    const section = there.getByRole("region", { name: "The whole shop as one archive" });
    await section.getByLabel("Archive of a shop").setInputFiles(archive);
    const told = section.getByRole("status");
    await expect(told).toContainText(/(\d+) of \1 jobs read/, { timeout: 60_000 });
    // One test writes into the database what no door takes in: that is refused here too, and nothing else.
    const refused = section.getByRole("listitem").filter({ hasText: "refused" });
    const others = refused.filter({ hasNotText: /Say how it was confirmed/ });
    expect(await others.allTextContents()).toEqual([]);
    await expect(told).toContainText(/[1-9]\d* imported, 0 added to, 1 here already, [01] refused\./);
    await section.getByLabel("Archive of a shop").setInputFiles(archive);
    await expect(told).toContainText(/(\d+) of \1 jobs read: 0 imported, 0 added to, [1-9]\d* here already, [01] refused\./, {
      timeout: 60_000,
    });
    await section.getByLabel("Archive of a shop").setInputFiles(file);
    await expect(section.getByRole("alert")).toContainText("This is no archive");
    await there.goto("/?all=1&q=Petrel");
    await expect(there.getByRole("main").getByRole("link").first()).toBeVisible();
    // What was exported is handed out once, and to nobody who was not asked.
    for (const ticket of ["", "0".repeat(64)])
      expect((await page.request.get(`/api/v1/shop/archive?ticket=${ticket}`)).status()).toBe(403);
  } finally {
    await other.stop();
  }
});

test("told to listen wider, it lets nobody in without the shop passphrase", async ({ newDevice, shops }) => {
  const other = await shops.open({ passphrase: "gulls over the slip" });
  try {
    expect((await fetch(`${other.url}/api/v1/people`)).status).toBe(401);
    expect((await fetch(`${other.url}/api/v1/jobs/x/entries`, { method: "POST", body: "{}" })).status).toBe(401);
    const context = await newDevice({ baseURL: other.url });
    const page = await context.newPage();
    await page.goto("/shop");
    await expect(page).toHaveURL(/\/unlock/);
    await page.getByLabel(/passphrase/i).fill("seals over the slip");
    await page.getByRole("button").first().click();
    await expect(page.getByRole("alert").first()).toContainText("neither the shop passphrase nor a code");
    await page.getByLabel(/passphrase/i).fill("gulls over the slip");
    await page.getByRole("button").first().click();
    await expect(page.getByRole("heading", { name: "Shop", exact: true })).toBeVisible();
    expect((await page.request.get("/api/v1/people")).status()).toBe(200);
    // A code shown on this device lets one more in, once, to where it wanted to go.
    const { code } = await (await page.request.post("/api/v1/session/code")).json();
    const second = await newDevice({ baseURL: other.url });
    const tablet = await second.newPage();
    await tablet.goto("/new");
    await tablet.getByLabel(/passphrase/i).fill(`${code.slice(0, 3)} ${code.slice(3)}`);
    await tablet.getByRole("button").first().click();
    await expect(tablet.getByRole("heading", { name: "New job" })).toBeVisible();
    expect(
      (await fetch(`${other.url}/api/v1/session`, { method: "POST", body: JSON.stringify({ passphrase: code }) })).status,
    ).toBe(400);
  } finally {
    await other.stop();
  }
});

test.describe("in a shop of its own, since what is set here would change what other tests see", () => {
  let own: OtherShop;
  test.beforeAll(async ({ shops }) => {
    own = await shops.open();
  });
  test.afterAll(() => own.stop());

  test("two tablets that save the shop at once lose nothing of either: merged, or asked", async ({ newDevice }) => {
    const context = await newDevice({ baseURL: own.url });
    const [first, second] = [await context.newPage(), await context.newPage()];
    for (const [tab, name] of [
      [first, "Wren Alder"],
      [second, "Tobin Falk"],
    ] as const) {
      await signIn(tab, name);
      await tab.goto("/shop");
      await expect(tab.getByRole("button", { name, exact: false }).first()).toBeVisible();
    }
    const title = (tab: Page) => tab.getByLabel("Name of the shop, as printed on documents");
    const act = (tab: Page) => tab.getByLabel("Total trim, act beyond ± (%)");
    await title(first).fill("Ferrowick North");
    await button(first, "Save").click();
    await expect(first.getByText("Saved.", { exact: true })).toBeVisible();
    // The second tablet knows nothing of it, and changes something else.
    await act(second).fill("9");
    await button(second, "Save the limits").click();
    await expect(second.getByText("Saved.", { exact: true })).toBeVisible();
    const shop = async () => (await (await first.request.get("/api/v1/shop")).json()).shop;
    expect(await shop()).toMatchObject({ name: "Ferrowick North", limits: { trimAct: { value: 0.09 } } });
    // Both change the same.
    await act(first).fill("7");
    await button(first, "Save the limits").click();
    await expect(first.getByRole("alert").filter({ hasText: "meanwhile" })).toContainText(
      "Tobin Falk has changed the limit “Total trim, act beyond ±” meanwhile: nothing was saved",
    );
    await expect(act(first)).toHaveValue("7");
    await button(first, "Save mine over it").click();
    await expect(first.getByText("Saved.", { exact: true })).toBeVisible();
    expect(await shop()).toMatchObject({ name: "Ferrowick North", limits: { trimAct: { value: 0.07 } } });
  });

  test("the shop's machine, limits and units change what the bench says", async ({ newDevice }) => {
    const page = await (await newDevice({ baseURL: own.url })).newPage();
    await signIn(page, "Wren Alder");
    await page.goto("/shop");
    await page.getByLabel("Machine", { exact: true }).fill("Sedge smoker");
    await page.getByLabel("Rated pressure, gauge", { exact: true }).fill("a lot");
    // The key is hit though the field that is left for it has something to say.
    await button(page, "Add machine").click();
    await expect(page.getByText("Flow, hose open is missing")).toBeVisible();
    await page.getByLabel("Flow, hose open", { exact: true }).fill("9 L/min");
    await button(page, "Add machine").click();
    await expect(page.getByText(/"a lot" is no number|"a lot"/).first()).toBeVisible();
    await expect(page.getByLabel("Machine", { exact: true })).toHaveValue("Sedge smoker");
    await page.getByLabel("Rated pressure, gauge", { exact: true }).fill("0,5 psi");
    await button(page, "Add machine").click();
    await expect(page.getByText("0.50 psi gauge")).toBeVisible();
    await page.getByLabel("Total trim, act beyond ± (%)").fill("8");
    await button(page, "Save the limits").click();
    await expect(page.getByText("Saved.")).toBeVisible();
    const log = page.getByRole("region", { name: "Security log" });
    await button(page, "Read it").click();
    await expect(log.getByText("Limits, methods or machines changed").first()).toBeVisible();
    await expect(page.getByRole("region", { name: "What this device keeps" })).toContainText(/this browser (may delete|keeps)/i);
    await page.getByLabel("Decimal sign").selectOption("Comma, 0,4");
    await page.getByLabel("Size").selectOption("in");
    await page.getByRole("link", { name: "Bay board" }).click();
    await openJob(page, "Light on", "FW 31 SHP");
    await setConditions(page);
    await survey(page, leaking);
    const verdict = page.getByRole("region", { name: "Verdict so far" });
    await expect(verdict.getByText(/beyond ±8 % act \(set by this shop\)/).first()).toBeVisible();
    await expect(verdict.getByText(/\d,\d\d mm · 0,\d\d\d in/).first()).toBeVisible();
    await instrument(page, "Smoke run");
    await expect(page.getByLabel("Smoke machine")).toContainText("Sedge smoker");
    // The machine that is gone by is the one that stands there.
    await expect(page.getByLabel("Smoke machine")).not.toHaveValue("");
  });

  test("the shop's English is chosen once, and every page of its devices speaks it", async ({ newDevice }) => {
    const page = await (await newDevice({ baseURL: own.url })).newPage();
    await signIn(page, "Wren Alder");
    await page.goto("/shop");
    await page.getByRole("radio", { name: "American: gasoline, hood" }).click();
    await expect(page.getByText("Saved.")).toBeVisible();
    await page.goto("/new");
    await expect(page.getByRole("radio", { name: "Gasoline" })).toBeVisible();
    await page.goto("/shop");
    await page.getByRole("radio", { name: "British: petrol, bonnet" }).click();
    await expect(page.getByText("Saved.")).toBeVisible();
    await page.goto("/new");
    await expect(page.getByRole("radio", { name: "Petrol" })).toBeVisible();
  });

  test("a machine's calibration, a finer gauge and the house's schools change what the bench plans", async ({ newDevice }) => {
    const page = await (await newDevice({ baseURL: own.url })).newPage();
    await signIn(page, "Wren Alder");
    await page.goto("/shop");
    await page.getByLabel("Machine", { exact: true }).fill("Reed smoker");
    await page.getByLabel("Rated pressure, gauge", { exact: true }).fill("13 inH2O");
    await page.getByLabel("Flow, hose open", { exact: true }).fill("12 L/min");
    await button(page, "Add machine").click();
    await button(page, "Calibrate Reed smoker").click();
    const holes = page.getByLabel("Reference hole and ball height, one a line");
    await holes.fill("0.020 in 3.1\n0.040 in 2");
    await button(page, "Save the calibration").click();
    await expect(page.getByRole("alert").first()).toContainText("bigger reference hole must lift the ball higher");
    await expect(holes).toHaveValue(/0.040 in 2/);
    await holes.fill("0.020 in 1.2\n0.040 in 4.4");
    await button(page, "Save the calibration").click();
    await expect(page.getByRole("img", { name: /^Calibrated .* at 13/ })).toBeVisible();
    await button(page, "Service of Reed smoker").click();
    await page.getByLabel("Note", { exact: true }).fill("new fluid");
    await button(page, "Add to the log of Reed smoker").click();
    await expect(page.getByText(/Smoke fluid: new fluid/)).toBeVisible();
    await page.getByLabel("Gauge or meter").fill("Slack tube");
    await page.getByLabel("One division").fill("0.1 furlong");
    await button(page, "Add instrument").click();
    await expect(page.getByRole("alert").first()).toContainText("volts for a meter");
    await page.getByLabel("One division").fill("0.02 inH2O");
    await button(page, "Add instrument").click();
    await expect(page.getByText("Slack tube", { exact: true })).toBeVisible();
    await page.getByRole("radio", { name: "Water or soap spray" }).click();
    await expect(page.getByText("Saved.")).toBeVisible();
    await page.getByRole("link", { name: "Bay board" }).click();
    await openJob(page, "Light on", "FW 33 SHP");
    await station(page, "Check");
    await instrument(page, "Enrichment probe");
    await expect(page.getByRole("radio", { name: "Water", exact: true })).toBeChecked();
    await expect(main(page).getByText(/none into connectors or the MAF/)).toBeVisible();
    await instrument(page, "Crankcase pressure");
    await expect(page.getByLabel("Gauge", { exact: true })).toContainText("Slack tube");
  });
});

test("a survey is typed point by point; a speed-density engine and a diesel are refused with what works", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Light on", "FW 32 SHP");
  await setConditions(page);
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  await page.getByRole("radio", { name: "Typed by hand" }).click();
  const point = async (rpm: string, maf: string, map: string, short: string, long: string) => {
    await page.getByLabel("Engine speed, rpm").fill(rpm);
    await page.getByLabel("MAF, g/s", { exact: true }).fill(maf);
    await page.getByLabel("Manifold, kPa absolute", { exact: true }).fill(map);
    await page.getByLabel("Short-term, %").fill(short);
    await page.getByLabel("Long-term, %").fill(long);
    await button(page, "Add the point").click();
  };
  await point("720", "2,6", "-33", "4", "13");
  await expect(main(page).getByRole("alert").first()).toContainText("absolute pressure cannot be negative");
  await expect(page.getByLabel("MAF, g/s", { exact: true })).toHaveValue("2,6");
  await point("720", "2.6", "33", "4", "13");
  await expect(page.getByRole("region", { name: "Verdict so far" }).getByText(/At idle: \+18 % total, beyond/)).toBeVisible();
  await point("2500", "10", "30", "0.5", "4");
  await point("2200", "20 g/s", "62", "0.4", "1.8");
  await expect(
    page
      .getByRole("region", { name: "Verdict so far" })
      .getByText(/fading as airflow rises/)
      .first(),
  ).toBeVisible();
  await button(page, "Zoom in").first().click();
  await expect(page.getByRole("img", { name: /^Total trim .* against airflow/ })).toBeVisible();
  await button(page, "Record the check").click();
  await expect(page.getByRole("region", { name: "Fuel-trim survey, so far" })).toBeVisible();

  for (const [change, said] of [
    ["Speed-density (MAP)", /meters a manifold leak, so it hardly shows in trims/],
    ["Diesel", /A diesel has no fuel trims/],
  ] as const) {
    await station(page, "Story");
    await page.getByText("Vehicle facts").click();
    await page.getByRole("radio", { name: change }).click();
    await button(page, "Record the facts").click();
    await station(page, "Check");
    // It stands aside on the shelf, with the reason.
    await button(page, "Another instrument").click();
    const shelf = page.getByRole("dialog");
    await shelf.getByText(/not for this vehicle$/).click();
    await expect(shelf.getByText(said).first()).toBeVisible();
    await page.keyboard.press("Escape");
  }
});

test("a log that came as a workbook is read like any other", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Light on", "FW 34 SHP");
  await setConditions(page);
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  const lines = logOf(leaking).buffer.toString("utf8").trim().split("\n");
  const cells = lines.map((line) =>
    line.split(",").map((cell) => (cell !== "" && Number.isFinite(Number(cell)) ? Number(cell) : cell)),
  );
  const buffer = Buffer.from(workbook([[["Drive", "hill road"]], cells]));
  await page.getByLabel("Scan-tool log").setInputFiles({ name: "drive.xlsx", mimeType: "application/octet-stream", buffer });
  await readColumns(page);
  await expect(main(page).getByText(/rows over/)).toBeVisible();
  await expect(page.getByRole("region", { name: "Verdict so far" })).toContainText(/a hole of about/);
});

test("reading a long log shows its progress and can be cancelled, keeping nothing", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Light on", "FW 33 SHP");
  await setConditions(page);
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  const rows = Array.from({ length: 300_000 }, (_, i) => `${i / 10},720,2.6,33,90,4,12`).join("\n");
  const buffer = Buffer.from(`Time (s),RPM,MAF (g/s),MAP (kPa),ECT (°C),STFT (%),LTFT (%)\n${rows}\n`);
  await page.getByLabel("Scan-tool log").setInputFiles({ name: "long.csv", mimeType: "text/csv", buffer });
  // A fast machine is through before a test looks twice: the page itself cancels as soon as there is progress to be seen.
  const begun = page.evaluate(
    () =>
      new Promise<string | null>((seen) => {
        const observer = new MutationObserver(() => {
          const bar = document.querySelector("progress");
          const cancel = [...document.querySelectorAll("button")].find((b) => b.textContent === "Cancel");
          if (!bar || !cancel) return;
          observer.disconnect();
          cancel.click();
          seen(bar.getAttribute("aria-label"));
        });
        observer.observe(document.body, { childList: true, subtree: true });
      }),
  );
  await button(page, "Read the log with these columns").click();
  expect(await begun).toBe("Reading the log");
  await expect(page.getByRole("progressbar")).toHaveCount(0);
  await expect(button(page, "Choose a log (CSV)")).toBeVisible();
  await page.getByLabel("Scan-tool log").setInputFiles(logOf(leaking));
  await readColumns(page);
  await expect(main(page).getByText(/rows over/)).toBeVisible();
});
