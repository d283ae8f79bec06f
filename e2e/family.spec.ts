import { CARS } from "../demo/cars";
import { writeLog } from "../demo/drive";
import { recordProbe } from "../demo/readings";
import {
  button,
  field,
  finding,
  instrument,
  main,
  openOn,
  pick,
  putEverythingBack,
  readColumns,
  record,
  recordRun,
  signIn,
  smoke,
  soFar,
  startClock,
  station,
  topSuspect,
} from "./steps";
import { CLOCKED, expect, test } from "./test";

/** Every kind of fault of the family, each found by the check that finds it, on its own car of the demo. */
// Each test has a job of its own: they may run side by side.
test.describe.configure({ mode: "parallel" });

test.beforeEach(async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
});

test("a perished vacuum branch is found by probe, its taps marked live, and confirmed by pinch", CLOCKED, async ({ page }) => {
  const car = CARS.sanderling;
  await openOn(page, car, { symptoms: ["rough-idle", "hiss-idle"] }, ["P0171"]);
  await station(page, "Check");
  await instrument(page, "Enrichment probe");
  await expect(main(page).getByText(/Enrichment gas burns/)).toBeVisible();
  await button(page, "Understood").click();
  const spots = ["Manifold gasket", "Small vacuum branch", "PCV hose"];
  await button(page, "Start log and clock together").click();
  await page.clock.fastForward(14_000);
  for (const [i, name] of spots.entries()) {
    await pick(page, "Spot that comes next", name);
    if (i === 1) {
      await page.getByText("Taps", { exact: true }).click();
      await page.keyboard.press(" ");
    } else await main(page).getByRole("button", { name: /^Tap/ }).click();
    await expect(main(page).getByRole("listitem").filter({ hasText: name })).toBeVisible();
    await page.clock.fastForward(16_000);
  }
  const taps = spots.map((name, i) => ({ at: 14 + 16 * i, drinks: name === "Small vacuum branch" }));
  await page.getByLabel("Scan-tool log").setInputFiles({
    name: "probe.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(writeLog(recordProbe(car.engine, taps, 64, 5), "comma", false)),
  });
  await readColumns(page);
  await expect(soFar(page).getByText(/^Reacts at Small vacuum branch/)).toBeVisible();
  await expect(
    main(page)
      .getByText(/Quiet: trim/)
      .first(),
  ).toBeVisible();
  await record(page, "Enrichment probe", "Reacts");
  await expect(page.getByRole("button", { name: "Manifold: leaking" })).toBeVisible();

  await instrument(page, "Pinch or cap off");
  await pick(page, "Branch", "Small vacuum branch");
  for (const [name, value] of [
    ["Before, %", "19.7"],
    ["Shut off, %", "19.4"],
    ["Released, %", "19.6"],
  ] as const)
    await field(page, name).fill(value);
  await expect(soFar(page).getByText(/nobody said that the blank was proved/)).toBeVisible();
  await field(page, "Shut off, %").fill("0.9");
  await expect(soFar(page).getByText(/Recovers with Small vacuum branch shut off/)).toBeVisible();
  await record(page, "Pinch or cap off", "Leaking");
  await topSuspect(page, "Small vacuum branch perished");
  await expect(main(page).getByText(/^Go straight to it/)).toBeVisible();
  await finding(page, "Small vacuum branch", "perished at its nipple");
});

test(
  "a gasket is found only by sectioned smoke: the set of runs says which part, a second device calls there",
  CLOCKED,
  async ({ page, browser }) => {
    const job = await openOn(page, CARS.curlew, { symptoms: ["rough-idle"] }, ["P0171"]);
    await smoke(page, { settleAt: 6.6, arrivals: ["Crankcase", "Breather hose"] });
    await recordRun(page);
    await putEverythingBack(page);
    const sections = page.getByRole("region", { name: "Sections" });
    await expect(sections.getByRole("button", { name: "Set this section up" }).first()).toBeVisible();
    // The best cut, whichever it is: the reading falls when it takes the gasket out of the fill, and stays when it does not.
    const cut = sections.getByRole("listitem").first();
    const takesItOut = ((await cut.textContent()) ?? "").includes("Manifold gasket");
    await cut.getByRole("button").click();
    await smoke(page, { settleAt: takesItOut ? 3 : 6.6, entry: "", arrivals: [] });
    await recordRun(page);
    await putEverythingBack(page);
    await expect(sections.getByText(/^Read together: it lies in .*Manifold gasket/)).toBeVisible();
    await expect(sections.getByText(takesItOut ? /the opening falls/ : /the opening stays/).first()).toBeVisible();

    // The part that is left, by itself: now the leak can be seen, and the one at the leak says so.
    const second = await browser.newPage();
    await smoke(page, {
      settleAt: 6.6,
      entry: "gauge-port",
      meanwhile: async () => {
        await button(page, "Show on a second device").click();
        await expect(page.getByRole("dialog").getByText(`/jobs/${job}/live`)).toBeVisible();
        await page.keyboard.press("Escape");
        await page.clock.runFor(1500);
        await second.goto(`/jobs/${job}/live`);
        await expect(second.getByText(/on the scale/)).toBeVisible();
        await button(second, "There!").click();
        await expect(second.getByText("Called: There!")).toBeVisible();
        await page.clock.runFor(2500);
        await expect(main(page).getByText("From the leak: There!")).toBeVisible();
      },
      seenAt: "Manifold gasket",
    });
    await second.close();
    await recordRun(page);
    await topSuspect(page, "Manifold gasket leaks");
  },
);

test(
  "a flap solenoid that does nothing when commanded has a dead control wire; a command that stands blocks what is read beside it",
  CLOCKED,
  async ({ page }) => {
    await openOn(page, CARS.redshank, { symptoms: ["dull-low"] }, ["P2004"]);
    await station(page, "Check");
    await instrument(page, "Commanded output");
    await pick(page, "Part", "Flap solenoid");
    await field(page, "What should happen").fill("lever pulls in");
    await page.getByRole("radio", { name: "Yes: re-armed" }).click();
    await button(page, "Command it now").click();
    const ledger = page.getByRole("complementary", { name: "Ledger" });
    await expect(ledger.getByText("Flap solenoid commanded on")).toBeVisible();
    await page.clock.fastForward(4000);
    await page.getByRole("radio", { name: "Nothing", exact: true }).click();
    await record(page, "Commanded output", "Faulty");
    await instrument(page, "Crankcase pressure");
    await expect(
      main(page).getByText(/Release Flap solenoid commanded on|Still commanded: Flap solenoid commanded on/),
    ).toBeVisible();
    await ledger.getByRole("button", { name: /^Released/ }).click();
    await expect(main(page).getByText(/Still commanded/)).toHaveCount(0);

    await instrument(page, "Circuit, pin by pin");
    await pick(page, "Load", "Flap solenoid");
    await field(page, "Battery").fill("14.1");
    await page.getByRole("radiogroup", { name: "Live only with the engine running" }).getByRole("radio", { name: "Yes" }).click();
    await page.getByRole("radiogroup", { name: "Engine meanwhile" }).getByRole("radio", { name: "Runs" }).click();
    await field(page, "Feed pin against battery minus").fill("13.9");
    await expect(soFar(page).getByText(/next: across the load, commanded/)).toBeVisible();
    await field(page, "Across the load, commanded").fill("0.42");
    await expect(soFar(page).getByText(/the control side does not switch/i)).toBeVisible();
    await record(page, "Circuit, pin by pin", "Faulty");
    await topSuspect(page, "Flap solenoid's circuit dead");
  },
);
