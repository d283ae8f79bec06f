import { expect, type Page, test } from "@playwright/test";
import { v4 as uuid } from "uuid";
import { CARS } from "../demo/cars";
import { inUse, valveWith } from "../demo/readings";
import { decayOf, evapSmokeOf, pulldownOf, type VapourCar } from "../demo/tank";
import {
  button,
  driveAndRead,
  field,
  finding,
  instrument,
  main,
  openJob,
  openOn,
  putEverythingBack,
  record,
  repair,
  signIn,
  smoke,
  soFar,
  startClock,
  station,
  topSuspect,
} from "./steps";

/** Faults of the vapour system, each found by the check that finds it, on its own car of the demo. */
const code = (name: string, leak: number) => ({
  code: name,
  status: "stored" as const,
  criteria: { leak: { value: leak, unit: "mm" as const } },
});
const ofRun = (page: Page) => page.getByRole("region", { name: "Verdict of this run" });
const EVERYWHERE = ["Canister", "Tank vapour space", "Filler neck"];

// Each test has a job of its own: they may run side by side.
test.describe.configure({ mode: "parallel" });

test.beforeEach(async ({ page }, info) => {
  await startClock(page, info.title.includes("two days") ? 72 : 2);
  await signIn(page, "Wren Alder");
});

test("a canister joint below the required size is found by decay after the ball had shown nothing", async ({ page }) => {
  await openOn(page, CARS.shearwater, { symptoms: ["fuel-smell"] }, [code("P0456", 0.508)]);
  await smoke(page, { settleAt: 0, fuelLevel: "45", arrivals: EVERYWHERE });
  await expect(ofRun(page).getByText("Smoke everywhere inside, none outside")).toBeVisible();
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  const read = decayOf(CARS.shearwater, { seed: 5, entry: "service-port", reference: 0.508e-3 });
  const table = (samples: readonly (readonly [number, number])[]) => samples.map(([t, p]) => `${t} ${p}`).join("\n");
  await instrument(page, "Pressure decay");
  await page.getByLabel("Fuel level, % of the tank").fill("45");
  await page.getByLabel("Held before shut-off, s").fill("20");
  await page.getByRole("radiogroup", { name: "Decay: readings" }).getByRole("radio", { name: "Typed table" }).click();
  const text = main(page).getByLabel(/^Seconds and pressure in inH2O gauge/);
  await text.fill("0 10,00\n5 9,9x");
  await expect(main(page).getByText(/Line 2: type seconds and pressure/)).toBeVisible();
  await text.fill(table(read.samples));
  await expect(soFar(page).getByText("Not sure yet", { exact: true })).toBeVisible();
  await expect(soFar(page).getByText(/held only 20 s before shut-off/i)).toBeVisible();
  await page.getByLabel("Held before shut-off, s").fill("120");
  await page.getByLabel(/^Once more with a reference hole open/).check();
  await page
    .getByRole("radiogroup", { name: "With the reference hole: readings" })
    .getByRole("radio", { name: "Typed table" })
    .click();
  await main(page)
    .getByLabel(/^Seconds and pressure/)
    .last()
    .fill(table(read.reference?.samples ?? []));
  await expect(soFar(page).getByText(/^Leaks like a 0\.(3|4)\d mm hole: smaller than must be caught/)).toBeVisible();
  await record(page, "Pressure decay", "Leaking");
  await finding(page, "Canister, joint or crack", "hairline crack at its port");
});

test("a neck leak that the first run cannot reach: tight as far as it reached, and the run that finds it", async ({ page }) => {
  await openOn(page, CARS.pintail, {}, [code("P0442", 1.016)]);
  await station(page, "Check");
  await instrument(page, "EVAP smoke");
  await page.getByLabel("Let smoke in at").selectOption("service-port");
  const fill = page.getByRole("region", { name: "What this fill reaches" });
  await expect(fill.getByText("Cannot reach the filler neck (stopped by the neck flap): another entry must.")).toBeVisible();
  await expect(
    main(page)
      .getByText(/Do not touch the cap until/)
      .first(),
  ).toBeVisible();
  await smoke(page, { settleAt: 0, fuelLevel: "45", arrivals: ["Canister", "Tank vapour space"] });
  await expect(ofRun(page).getByText("Tight as far as it reached; filler neck untested")).toBeVisible();
  await button(page, "Record the run").click();
  await expect(page.getByRole("button", { name: "Tank vapour space: proved tight" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Filler neck: untested" })).toBeVisible();
  await putEverythingBack(page);
  await smoke(page, {
    settleAt: 2.6,
    fuelLevel: "45",
    entry: "filler-cap",
    arrivals: ["Tank vapour space"],
    seenAt: "Filler neck, rust or hose",
  });
  await expect(ofRun(page).getByText(/^Smoke at Filler neck, rust or hose: all leaks together 1\.\d+ mm/)).toBeVisible();
  await button(page, "Record the run").click();
  await topSuspect(page, "Filler neck rusted through or hose split");
});

test("a purge valve that clicks, holds warm and leaks cold is proved cold", async ({ page }) => {
  await openOn(page, CARS.avocet, { symptoms: ["hard-start-filled"] }, ["P0496"]);
  const valve = async (seat: number, seed: number, temperature: "Cold" | "Warm") => {
    await station(page, "Check");
    await instrument(page, "Valve, two states");
    await page.getByLabel("Valve", { exact: true }).selectOption("Purge valve");
    await page.getByRole("radio", { name: /^12 V from a fused lead/ }).click();
    await page.getByLabel(/^Its plug is off/).check();
    await page.getByRole("radio", { name: temperature, exact: true }).click();
    await page.getByRole("radio", { name: "It clicks" }).click();
    const read = valveWith("purge-valve", seat, "fitted", seed);
    for (const [name, state] of [
      ["At rest", read.rest],
      ["Energised", read.energised],
    ] as const) {
      await page.getByLabel(`${name}: Put on, inHg`).fill(String(state.start));
      await page.getByLabel(`${name}: Left, inHg`).fill(String(state.end));
      await page.getByLabel(`${name}: After, s`).fill(String(state.seconds));
    }
  };
  await valve(5e-6, 41, "Warm");
  await expect(soFar(page).getByText(/a seat can hold warm and leak cold/)).toBeVisible();
  await record(page, "Valve, two states", "Works");
  await page.clock.fastForward(3600_000 / 2);
  await valve(0.25e-3, 42, "Cold");
  await expect(soFar(page).getByText("Purge valve leaks at rest, where it must hold")).toBeVisible();
  await expect(soFar(page).getByText(/it clicks: that proves the coil, not the seat/i)).toBeVisible();
  await record(page, "Valve, two states", "Faulty");
  await topSuspect(page, "Purge valve leaks by");
  await finding(page, "Purge valve", "seat leaks cold");
  await repair(page, "Purge valve renewed");
  await valve(5e-6, 43, "Warm");
  await record(page, "Valve, two states", "Works");
  await station(page, "Prove");
  await expect(
    main(page).getByText(/has not answered yet what it failed at: purge valve holds where it must, cold/),
  ).toBeVisible();
});

test("a service port whose core was not pressed, and a cap tightened before the check, are void", async ({ page }) => {
  await openOn(page, CARS.turnstone, {}, [code("P0442", 1.016)]);
  await smoke(page, { settleAt: 0, fuelLevel: "45", shutPort: true });
  await expect(ofRun(page).getByText("Void — proves nothing")).toBeVisible();
  await expect(ofRun(page).getByText(/the port is not open \(core not pressed, hose kinked\)/i)).toBeVisible();
  await button(page, "Record the run").click();
  await expect(page.getByRole("button", { name: "Tank vapour space: untested" })).toBeVisible();
  await putEverythingBack(page);
  await smoke(page, { settleAt: 0, fuelLevel: "45", arrivals: EVERYWHERE });
  await expect(ofRun(page).getByText("Tight", { exact: true })).toBeVisible();
  await page.getByText("Did anything spoil the run?").click();
  await main(page).getByRole("button", { name: "Filler cap", exact: true }).click();
  await expect(ofRun(page).getByText(/Filler cap was touched before the check: the evidence is gone/i)).toBeVisible();
  await button(page, "Record the run").click();
  await station(page, "Suspects");
  await expect(main(page).getByText(/no smoke|smoke inside and none outside/)).toHaveCount(0);

  await station(page, "Check");
  await instrument(page, "Filler cap");
  await field(page, "Put on it, inH2O gauge").fill("30");
  await field(page, "Left, inH2O gauge").fill("9");
  // What nobody said is asked, at its field.
  await expect(soFar(page)).toHaveCount(0);
  await button(page, "Record the check").click();
  await expect(main(page).getByRole("alert").filter({ hasText: "Its seal is missing" })).toBeVisible();
  await page.getByRole("radio", { name: "Whole" }).click();
  await expect(soFar(page).getByText(/the tester was not proved/i)).toBeVisible();
  await page.getByLabel("The tester held by itself with its blank").check();
  await expect(soFar(page).getByText("The cap does not hold")).toBeVisible();
  await record(page, "Filler cap", "Leaking");
  await topSuspect(page, "Filler cap or its seal leaks");
});

test("two leaks of the vapour system: the second shows because the proof failed", async ({ page }) => {
  await openOn(page, CARS.lapwing, { symptoms: ["fuel-smell"] }, [code("P0455", 1.016)]);
  await smoke(page, { settleAt: 4, fuelLevel: "45", arrivals: EVERYWHERE, seenAt: "Pump or sender flange" });
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  await finding(page, "Pump or sender flange", "seal rolled out");
  await repair(page, "Flange seal renewed");
  await smoke(page, { settleAt: 1.6, fuelLevel: "45", arrivals: EVERYWHERE, seenAt: "Purge line, split or connector" });
  await button(page, "Record the run").click();
  await putEverythingBack(page);
  await topSuspect(page, "Purge line split or connector leaks");
  await station(page, "Prove");
  await expect(main(page).getByText(/After the repair the EVAP smoke still says: Smoke at Purge line/)).toBeVisible();
});

test("a vent stuck open is told from a gross leak by pulling down again with the vent plugged", async ({ page }) => {
  const trace = async (car: Parameters<typeof pulldownOf>[0], vent: "command" | "plug") => {
    const read = pulldownOf(car, { seed: 61, vent });
    await station(page, "Check");
    await instrument(page, "Pull-down trace");
    if (vent === "plug") await page.getByRole("radio", { name: "A plug by hand" }).click();
    await page.getByLabel("Fuel level, % of the tank").fill("45");
    await page.getByRole("radio", { name: "Typed table" }).click();
    await main(page)
      .getByLabel(/^Seconds and pressure in Pa/)
      .fill(read.points.map(([t, p]) => `${t} ${p}`).join("\n"));
    for (const [name, at] of [
      ["Vent shut, s", read.ventShutAt],
      ["Purge open, s", read.purgeOpenAt],
      ["Purge shut, s", read.purgeShutAt],
      ["Vent open again, s", read.ventOpenAt],
    ] as const)
      await field(page, name).fill(String(at));
    if (vent === "command") {
      await page.getByLabel("The engine idled the whole time, foot off").check();
      await expect(soFar(page).getByText(/the vent command let go 44 s before/i)).toBeVisible();
      await field(page, "The tool holds its vent command for, s").fill("90");
    } else await page.getByLabel("The engine idled the whole time, foot off").check();
  };
  await openOn(page, CARS.garganey, {}, ["P0455"]);
  await trace(CARS.garganey, "command");
  await expect(soFar(page).getByText("No pull-down with purge open and the vent commanded shut")).toBeVisible();
  await record(page, "Pull-down trace", "Faulty");
  await trace(CARS.garganey, "plug");
  await expect(soFar(page).getByText(/^Pulls down and holds with the vent plugged by hand/)).toBeVisible();
  await record(page, "Pull-down trace", "Works");
  await topSuspect(page, "Vent valve does not shut");

  const gross = {
    ...CARS.garganey,
    tank: { ...CARS.garganey.tank, ventShut: 0, leaks: [{ joint: "neck-hose", diameter: 8e-3 }] },
  };
  await openOn(page, CARS.garganey, {}, ["P0455"]);
  await trace(gross, "plug");
  await expect(soFar(page).getByText("No pull-down with the vent plugged by hand")).toBeVisible();
  await record(page, "Pull-down trace", "Faulty");
  await station(page, "Suspects");
  await expect(main(page).getByRole("listitem").first()).not.toContainText("Vent valve does not shut");
});

test("a readiness plan is carried out over two days, and the monitor has the last word", async ({ page }) => {
  const car = CARS.wigeon;
  const jobId = await openOn(page, car, {}, [code("P0442", 0.508)], 80);
  const sound = { ...car, tank: { ...car.tank, leaks: [] } };
  const everywhere = ["canister", "tank", "neck"] as const;
  const [found, mended] = [uuid(), uuid()];
  const line = (minutes: number, kind: string, body: object, i: number, id = uuid()) => ({
    id,
    jobId,
    kind,
    v: 1,
    at: new Date(Date.now() - 78 * 3600_000 + minutes * 60_000).toISOString(),
    by: "Wren Alder",
    device: "test",
    deviceSeq: 20 + i,
    seenSeq: 5 + i,
    body,
  });
  const run = (story: Parameters<typeof evapSmokeOf>[1], on: VapourCar = sound) => ({
    check: "evap-smoke",
    record: evapSmokeOf(on, story),
  });
  const cap = {
    part: "fitted",
    start: 30,
    end: 29.8,
    seconds: 10,
    unit: "inH2O",
    testerProved: true,
    seal: "whole",
    instrument: inUse("cap"),
  };
  const before = [
    line(
      0,
      "check",
      run({ seed: 1, entry: "service-port", arrivals: everywhere, seen: ["purge-line-joint"], seconds: 150 }, car),
      0,
    ),
    line(10, "finding", { joint: "purge-line-joint", what: "connector cracked", evidence: [], confirmed: true }, 1, found),
    line(
      40,
      "repair",
      { finding: found, what: "purge line renewed", permanence: "permanent", labourMinutes: 30, parts: [], otherChanges: [] },
      2,
      mended,
    ),
    line(60, "check", run({ seed: 2, entry: "service-port", arrivals: everywhere, seen: [], seconds: 150 }), 3),
    line(
      80,
      "check",
      run({ seed: 3, entry: "filler-cap", arrivals: ["tank", "canister", "purge-line"], seen: [], seconds: 150 }),
      4,
    ),
    line(90, "check", { check: "cap", record: cap }, 5),
  ];
  const written = await page.request.post(`/api/v1/jobs/${jobId}/entries`, { data: before });
  expect(written.ok(), await written.text()).toBe(true);
  await page.goto(`/jobs/${jobId}`);
  await station(page, "Prove");
  await button(page, "Codes cleared now").click();
  await main(page).getByLabel("How it was tried").fill("two starts and a drive");
  await page.getByRole("radio", { name: "Gone", exact: true }).click();
  await button(page, "Record the try").click();
  const blocks = page.getByRole("region", { name: "What blocks closing" });
  await driveAndRead(page);
  await expect(blocks.getByRole("listitem")).toHaveText([/own EVAP monitor has not run since the repair/]);

  const plan = page.getByRole("region", { name: "The car's own EVAP monitor" });
  const park = async (fuel: string) => {
    await plan.getByLabel("Fuel level, %").fill(fuel);
    await plan.getByRole("textbox", { name: "Air expected at the start" }).fill("9");
    const now = await page.evaluate(() => {
      const d = new Date();
      return new Date(d.getTime() - d.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
    });
    await plan.getByLabel("Engine switched off at").fill(now);
    await plan.getByRole("button", { name: /plan/ }).click();
  };
  await park("8");
  await expect(plan.getByText("Cannot run yet: put right what is wrong first")).toBeVisible();
  await park("45");
  await expect(
    plan.getByText(/^Ready to run from \d\d:\d\d (today|tomorrow) if the tank stays between 15 and 85 %/),
  ).toBeVisible();
  await expect(page.getByRole("complementary", { name: "Ledger" }).getByText("Soak for the EVAP monitor")).toBeVisible();
  await page.clock.fastForward("07:00:00");
  await expect(plan.getByText(/^Ready to run from/)).toBeVisible();
  await page.clock.fastForward("01:05:00");
  await expect(plan.getByText(/^Ready to run now/)).toBeVisible();
  const said = async (what: string) => {
    await plan.getByRole("radio", { name: what }).click();
    await plan.getByLabel("How it was read").fill("readiness bit, no pending code");
    await plan.getByRole("button", { name: "Record the monitor" }).click();
  };
  await said("Has not run yet");
  await expect(blocks.getByText(/has not run since the repair/)).toBeVisible();
  // The next evening it is parked anew, and the morning after it runs.
  await page.clock.fastForward("20:00:00");
  await park("52");
  await expect(plan.getByText(/^Ready to run from/)).toBeVisible();
  await page.clock.fastForward("09:00:00");
  await expect(plan.getByText(/^Ready to run now/)).toBeVisible();
  await plan.getByLabel("Monitor from an OBD hex log").setInputFiles({
    name: "monitor.log",
    mimeType: "text/plain",
    buffer: Buffer.from("7E8 41 01 00 07 65 00\n7E8 46 3C 81 FE 00 14 00 00 00 50\n"),
  });
  await expect(plan.getByText(/EVAP, 0.020 in: 5 Pa, limits 0 Pa to 20 Pa: passed/)).toBeVisible();
  await said("Ran and passed");
  await expect(main(page).getByText("Nothing stands in the way of closing this job.")).toBeVisible();
});

test("the vapour system is described, and an OBD hex log read: its codes, its criteria, an unknown PID as bytes", async ({
  page,
}) => {
  await openJob(page, "Engine light on", `FW 99 E${Date.now() % 100}`);
  await station(page, "Story");
  await page.getByText("Vehicle facts", { exact: true }).click();
  await page.getByText(/^Vapour system \(EVAP\)/).click();
  await page.getByRole("textbox", { name: "Fuel tank, rated volume" }).fill("50 L");
  await page.getByLabel("Has a service port").check();
  await page.getByLabel("Tank-pressure sensor, volts at zero").fill("1.5 V");
  await button(page, "Record the facts").click();
  await expect(
    main(page)
      .getByText(/curve needs its volts at zero and its volts per unit/)
      .first(),
  ).toBeVisible();
  await page.getByLabel("Its volts per unit of gauge pressure").fill("0.6");
  await button(page, "Record the facts").click();
  await expect(main(page).getByText(/curve needs/)).toHaveCount(0);
  await station(page, "Scan");
  const log = page.getByLabel("From an OBD hex log");
  await log.setInputFiles({ name: "x.log", mimeType: "text/plain", buffer: Buffer.from("41 0C 1\n") });
  await expect(main(page).getByText(/Line 1 is no OBD message.*Nothing was taken over/)).toBeVisible();
  await log.setInputFiles({
    name: "scan.log",
    mimeType: "text/plain",
    buffer: Buffer.from(
      "# session\n0.10 7E8 43 01 04 42\n0.20 7E8 41 01 81 07 65 04\n0.30 7E8 41 32 FF 38\n0.40 7E8 41 9D 01 02\n",
    ),
  });
  await expect(main(page).getByText("EVAP leak, small")).toBeVisible();
  await page.getByText("4 messages, decoded").click();
  await expect(main(page).getByText("EVAP system vapour pressure: -50 Pa gauge")).toBeVisible();
  await expect(main(page).getByText("PID 9D, not decoded: 01 02")).toBeVisible();
  await field(page, "P0442: leak its criteria name").fill("0.020 in");
  await button(page, "Record the codes").click();
  await expect(main(page).getByText("Recorded.")).toBeVisible();
  await station(page, "Check");
  await instrument(page, "EVAP smoke");
  await expect(main(page).getByText(/Must be caught/)).toContainText("0.51 mm (20 thou; criteria of P0442)");
});
