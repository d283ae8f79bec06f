import { expect, test } from "@playwright/test";
import { CARS, repaired } from "../demo/cars";
import { writeLog } from "../demo/drive";
import type { HiddenEngine } from "../demo/engine";
import { airflowOf, crankcaseOf, holdOn, recordProbe, valveWith } from "../demo/readings";
import {
  button,
  field,
  finding,
  instrument,
  main,
  openOn,
  putEverythingBack,
  record,
  repair,
  signIn,
  smoke,
  soFar,
  startClock,
  station,
  survey,
  topSuspect,
} from "./steps";

/** Every kind of fault of the family, each found by the check that finds it, on its own car of the demo. */
// Each test has a job of its own: they may run side by side.
test.describe.configure({ mode: "parallel" });

test.beforeEach(async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
});

test("a perished vacuum branch is found by probe, its taps marked live, and confirmed by pinch", async ({ page }) => {
  const car = CARS.sanderling;
  await openOn(page, car, { symptoms: ["rough-idle", "hiss-idle"] }, ["P0171"]);
  await station(page, "Check");
  await instrument(page, "Enrichment probe");
  await expect(main(page).getByText(/Enrichment gas burns/)).toBeVisible();
  await button(page, "Understood").click();
  const spots = ["Manifold gasket", "Small vacuum branch", "PCV hose"];
  const spot = page.getByLabel("Spot that comes next");
  await button(page, "Start log and clock together").click();
  await page.clock.fastForward(14_000);
  for (const [i, name] of spots.entries()) {
    await spot.selectOption(name);
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
  await button(page, "Read the log with these columns").click();
  await expect(soFar(page).getByText(/^Reacts at Small vacuum branch/)).toBeVisible();
  await expect(
    main(page)
      .getByText(/Quiet: trim/)
      .first(),
  ).toBeVisible();
  await record(page, "Enrichment probe", "Reacts");
  await expect(page.getByRole("button", { name: "Manifold: leaking" })).toBeVisible();

  await instrument(page, "Pinch or cap off");
  await page.getByLabel("Branch", { exact: true }).selectOption("Small vacuum branch");
  for (const [name, value] of [
    ["Before, %", "19.7"],
    ["Shut off, %", "19.4"],
    ["Released, %", "19.6"],
  ] as const)
    await field(page, name).fill(value);
  await expect(soFar(page).getByText(/the blank was never proved/)).toBeVisible();
  await field(page, "Shut off, %").fill("0.9");
  await expect(soFar(page).getByText(/Recovers with Small vacuum branch shut off/)).toBeVisible();
  await record(page, "Pinch or cap off", "Leaking");
  await topSuspect(page, "Small vacuum branch perished");
  await expect(main(page).getByText(/^Go straight to it/)).toBeVisible();
  await finding(page, "Small vacuum branch", "perished at its nipple");
});

test("a gasket is found only by sectioned smoke: the set of runs says which part, a second device calls there", async ({
  page,
  browser,
}) => {
  const job = await openOn(page, CARS.curlew, { symptoms: ["rough-idle"] }, ["P0171"]);
  await smoke(page, { settleAt: 6.6, arrivals: ["Crankcase", "Breather hose"] });
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  const sections = page.getByRole("region", { name: "Sections" });
  await expect(sections.getByRole("button", { name: "Set this section up" }).first()).toBeVisible();
  // The best cut, whichever it is: the reading falls when it takes the gasket out of the fill, and stays when it does not.
  const cut = sections.getByRole("listitem").first();
  const takesItOut = ((await cut.textContent()) ?? "").includes("Manifold gasket");
  await cut.getByRole("button").click();
  await smoke(page, { settleAt: takesItOut ? 3 : 6.6, entry: "", arrivals: [] });
  await button(page, "Record the run").click();
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
  await button(page, "Record the run").click();
  await topSuspect(page, "Manifold gasket leaks");
});

test("an actuator pipe holds until it is wiggled", async ({ page }) => {
  const hold = holdOn("flap-pipe", "line", { still: 6e-6, wiggled: 60e-6 }, 7);
  await openOn(page, CARS.godwit, { symptoms: ["dull-low", "comes-and-goes"] }, ["P2004"]);
  await station(page, "Check");
  await instrument(page, "Hold test");
  await page.getByLabel("Part", { exact: true }).selectOption("Actuator pipe");
  await button(page, "It is off: list it").click();
  const take = async (samples: HoldRecordSamples) => {
    let before = 0;
    for (const [t, v] of samples) {
      await page.clock.fastForward((t - before) * 1000);
      before = t;
      await field(page, "Gauge, inHg vacuum").fill(String(v));
      await button(page, "Take reading").click();
    }
  };
  await take(hold.still);
  await expect(soFar(page).getByText(/not wiggled yet/)).toBeVisible();
  await page.getByRole("radio", { name: "While wiggled" }).click();
  await take(hold.wiggled);
  await expect(soFar(page).getByText("Actuator pipe holds until it is wiggled: intermittent")).toBeVisible();
  await record(page, "Hold test", "Faulty");
  await topSuspect(page, "Actuator pipe cracked");
});
type HoldRecordSamples = readonly (readonly [number, number])[];

test("a purge solenoid clicks but leaks; the new one passes on the bench before it is fitted", async ({ page }) => {
  await openOn(page, CARS.fulmar, { symptoms: ["stalls"] }, ["P0496"]);
  await station(page, "Check");
  await instrument(page, "Valve, two states");
  await page.getByLabel("Valve", { exact: true }).selectOption("Purge valve");
  await page.getByRole("radio", { name: /^12 V from a fused lead/ }).click();
  await expect(
    main(page)
      .getByText(/never feed voltage back/i)
      .first(),
  ).toBeVisible();
  const type = async (tested: ReturnType<typeof valveWith>) => {
    for (const [name, state] of [
      ["At rest", tested.rest],
      ["Energised", tested.energised],
    ] as const) {
      await page.getByLabel(`${name}: Put on, inHg`).fill(String(state.start));
      await page.getByLabel(`${name}: Left, inHg`).fill(String(state.end));
      await page.getByLabel(`${name}: After, s`).fill(String(state.seconds));
    }
  };
  await type(valveWith("purge-valve", 0.9e-3, "fitted", 3));
  await expect(soFar(page).getByText("Void — proves nothing")).toBeVisible();
  await page.getByLabel(/^Its plug is off/).check();
  await page.getByRole("radio", { name: "It clicks" }).click();
  await expect(soFar(page).getByText("Purge valve leaks at rest, where it must hold")).toBeVisible();
  await expect(soFar(page).getByText(/it clicks: that proves the coil, not the seat/i)).toBeVisible();
  await record(page, "Valve, two states", "Faulty");
  await page.getByLabel("Valve", { exact: true }).selectOption("Purge valve");
  await page.getByRole("radio", { name: "The new one, on the bench" }).click();
  await type(valveWith("purge-valve", 5e-6, "new", 4));
  await record(page, "Valve, two states", "Works");
  await expect(main(page).getByText("New purge valve holds where it must and passes where it must").first()).toBeVisible();
  await topSuspect(page, "Purge valve leaks by");
});

test("a dirty filter that no smoke finds, told apart from a disturbed duct", async ({ page }) => {
  const { engine } = CARS.tern;
  await openOn(page, CARS.tern, { symptoms: ["low-power"] }, ["P0101"]);
  await smoke(page, { settleAt: 7.5, arrivals: ["Manifold", "Crankcase", "Breather hose"] });
  await expect(page.getByRole("region", { name: "Verdict of this run" }).getByText("Tight", { exact: true })).toBeVisible();
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  await instrument(page, "Airflow");
  const points = async (reading: ReturnType<typeof airflowOf>) => {
    for (const p of reading.points) {
      await page.getByRole("radio", { name: p.state === "idle" ? "Idle" : "Wide open throttle", exact: true }).click();
      await field(page, "Engine speed, 1/min").fill(String(p.rpm));
      await field(page, "Air meter").fill(`${p.maf?.value} g/s`);
      await field(page, "Manifold pressure, absolute").fill(`${p.map?.value} kPa`);
      await button(page, "Take this point").click();
    }
  };
  await points(airflowOf(engine, { restriction: 24e-3, behindMeter: 0 }, 5));
  await expect(soFar(page).getByText(/something before the manifold restricts it/)).toBeVisible();
  await expect(soFar(page).getByText(/filter first, it is the cheap thing/i)).toBeVisible();
  await record(page, "Airflow", "Faulty");
  await topSuspect(page, "Air filter clogged");
  await finding(page, "Air filter clogged", "filter full of sand", false);
  await repair(page, "Air filter renewed");
  await station(page, "Check");
  await instrument(page, "Airflow");
  await points(airflowOf(engine, { restriction: 60e-3, behindMeter: 0.28 }, 6));
  await expect(soFar(page).getByText(/^The meter reads low/)).toBeVisible();
  await expect(soFar(page).getByText(/a disturbed duct does this/)).toBeVisible();
  await record(page, "Airflow", "Faulty");
  await station(page, "Prove");
  await expect(main(page).getByText(/After the repair the airflow still says: The meter reads low/)).toBeVisible();
});

test("a runner-flap chain stops at its dead control wire; a command that stands blocks what is read beside it", async ({
  page,
}) => {
  await openOn(page, CARS.redshank, { symptoms: ["dull-low"] }, ["P2004"]);
  await station(page, "Check");
  await instrument(page, "Commanded output");
  await page.getByLabel("Part", { exact: true }).selectOption("Flap solenoid");
  await field(page, "What should happen").fill("lever pulls in");
  await page.getByLabel(/^Re-armed/).check();
  await button(page, "Command it now").click();
  const ledger = page.getByRole("complementary", { name: "Ledger" });
  await expect(ledger.getByText("Flap solenoid commanded on")).toBeVisible();
  await page.clock.fastForward(4000);
  await page.getByRole("radio", { name: "Nothing", exact: true }).click();
  await record(page, "Commanded output", "Faulty");
  await instrument(page, "Crankcase pressure");
  await expect(main(page).getByText(/Still commanded: Flap solenoid commanded on/)).toBeVisible();
  await ledger.getByRole("button", { name: /^Released/ }).click();
  await expect(main(page).getByText(/Still commanded/)).toHaveCount(0);

  await instrument(page, "Vacuum-worked device");
  await expect(main(page).getByText("Vacuum at its outlet, commanded")).toBeVisible();
  await field(page, "Vacuum at the solenoid's inlet").fill("18.6");
  await field(page, "Battery").fill("14.1");
  await field(page, "Across the solenoid, commanded").fill("0.42");
  await expect(soFar(page).getByText(/broken at “voltage across the solenoid, commanded”/)).toBeVisible();
  await record(page, "Vacuum-worked device", "Faulty");

  await instrument(page, "Circuit, pin by pin");
  await page.getByLabel("Load", { exact: true }).selectOption("Flap solenoid");
  await field(page, "Battery").fill("14.1");
  await page.getByRole("radiogroup", { name: "Live only with the engine running" }).getByRole("radio", { name: "Yes" }).click();
  await page.getByRole("radiogroup", { name: "Engine meanwhile" }).getByRole("radio", { name: "Runs" }).click();
  await field(page, "Feed pin against battery minus").fill("13.9");
  await expect(soFar(page).getByText(/next: across the load, commanded/)).toBeVisible();
  await field(page, "Across the load, commanded").fill("0.42");
  await expect(soFar(page).getByText(/the control side does not switch/i)).toBeVisible();
  await record(page, "Circuit, pin by pin", "Faulty");
  await topSuspect(page, "Flap solenoid's circuit dead");
});

test("a PCV diaphragm: too much suction in the crankcase, and a gauge that a high idle fools", async ({ page }) => {
  const reading = crankcaseOf(2.2e-3, 3.4e-3, 9);
  await openOn(page, CARS.gannet, { symptoms: ["whistle-cap"] }, ["P0171"]);
  await station(page, "Check");
  await instrument(page, "Crankcase pressure");
  await field(page, /^Crankcase at idle/).fill(`${reading.idle.value} hPa`);
  await field(page, "Idle speed, 1/min").fill("740 rpm");
  await expect(soFar(page).getByText("Void — proves nothing")).toBeVisible();
  await page.getByLabel(/^Oil cap on/).check();
  await expect(soFar(page).getByText(/^Too much suction/)).toBeVisible();
  await record(page, "Crankcase pressure", "Faulty");
  await instrument(page, "Intake vacuum");
  await page.getByRole("slider", { name: /Vacuum gauge/ }).focus();
  for (let i = 0; i < 20; i++) await page.keyboard.press("PageUp");
  await expect(page.getByRole("slider", { name: /Vacuum gauge/ })).toHaveAttribute("aria-valuenow", "20");
  await field(page, "Idle speed, 1/min").fill("1250");
  await page.getByLabel(/nipple and hose are sound/).check();
  await page.getByRole("radio", { name: "Steady" }).click();
  await expect(soFar(page).getByText(/a high idle hides a leak/i)).toBeVisible();
  await record(page, "Intake vacuum", "Not sure yet");
  await topSuspect(page, "PCV diaphragm torn");
  await station(page, "Check");
  await instrument(page, "Borescope");
  await page.getByLabel("Passage").selectOption("Throttle");
  await button(page, "Add port").click();
  await expect(soFar(page).getByText(/not seen from the side/)).toBeVisible();
});

test("two leaks: the second is found because the proof failed, and the first one's evidence is retired", async ({ page }) => {
  const { engine } = CARS.skua;
  const second: HiddenEngine = { ...engine, manifoldHole: { diameter: 2.0e-3 } };
  await openOn(page, CARS.skua, { symptoms: ["hiss-idle"] }, ["P0171"]);
  await survey(page, engine, 61);
  await button(page, "Record the check").click();
  await smoke(page, { settleAt: 9, seenAt: "PCV hose", arrivals: ["Manifold"] });
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  await finding(page, "PCV hose", "split at the elbow");
  await repair(page, "PCV hose renewed");
  await survey(page, second, 62);
  await button(page, "Record the check").click();
  await station(page, "Prove");
  await expect(main(page).getByText(/After the repair the fuel-trim survey still says: Lean at idle/)).toBeVisible();
  await smoke(page, { settleAt: 8, seenAt: "Small vacuum branch", arrivals: ["Manifold"] });
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  await topSuspect(page, "Small vacuum branch perished");
  await expect(main(page).getByText(/^Explained by the repair, no longer weighed: .*smoke was seen at a joint/)).toBeVisible();
  await finding(page, "Small vacuum branch", "split at its nipple");
  await repair(page, "Vacuum branch renewed");
  await survey(page, repaired(engine), 63);
  await button(page, "Record the check").click();
  await smoke(page, { settleAt: 7, arrivals: ["Manifold", "Crankcase", "Breather hose"] });
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  await station(page, "Prove");
  await expect(main(page).getByText(/still says/)).toHaveCount(0);
});

test("a cure with two changes is named unproved; one is swapped back, and that settles it", async ({ page }) => {
  const { engine } = CARS.tern;
  await openOn(page, CARS.tern, { symptoms: ["low-power"] }, []);
  await station(page, "Check");
  const points = async (restriction: number, seed: number) => {
    await instrument(page, "Airflow");
    for (const p of airflowOf(engine, { restriction, behindMeter: 0 }, seed).points) {
      await page.getByRole("radio", { name: p.state === "idle" ? "Idle" : "Wide open throttle", exact: true }).click();
      await field(page, "Engine speed, 1/min").fill(String(p.rpm));
      await field(page, "Air meter").fill(`${p.maf?.value} g/s`);
      await field(page, "Manifold pressure, absolute").fill(`${p.map?.value} kPa`);
      await button(page, "Take this point").click();
    }
  };
  await points(24e-3, 11);
  await record(page, "Airflow", "Faulty");
  await finding(page, "Air filter clogged", "filter grey", false);
  await repair(page, "Air filter renewed", "duct taken off and refitted");
  await station(page, "Check");
  await points(60e-3, 12);
  await record(page, "Airflow", "Works");
  await station(page, "Prove");
  const unproved = page.getByRole("region", { name: "Cause unproved" });
  await expect(unproved).toContainText("Air filter renewed; duct taken off and refitted");
  await unproved.getByRole("button", { name: "Swapped back: Air filter renewed" }).click();
  await expect(unproved.getByText(/Repeat the check now/)).toBeVisible();
  await page.clock.fastForward(60_000);
  await station(page, "Check");
  await points(24e-3, 13);
  await record(page, "Airflow", "Faulty");
  await station(page, "Prove");
  await expect(unproved).toHaveCount(0);
  await expect(main(page).getByText(/The old part is back in: Air filter renewed/)).toBeVisible();
});
