import type { Page } from "@playwright/test";
import { v4 as uuid } from "uuid";
import { CARS } from "../demo/cars";
import { inUse } from "../demo/readings";
import { evapSmokeOf, type VapourCar } from "../demo/tank";
import {
  button,
  driveAndRead,
  field,
  inAs,
  instrument,
  main,
  openJob,
  openOn,
  putEverythingBack,
  record,
  recordRun,
  signedBy,
  signIn,
  smoke,
  soFar,
  startClock,
  station,
  topSuspect,
} from "./steps";
import { CLOCKED, expect, test } from "./test";

/** Faults of the vapour system, each found by the check that finds it, on its own car of the demo. */
const code = (name: string, leak: number) => ({
  code: name,
  status: "stored" as const,
  criteria: { leak: { value: leak, unit: "mm" as const } },
});
const ofRun = (page: Page) => page.getByRole("region", { name: "Verdict of this run" });

// Each test has a job of its own: they may run side by side.
test.describe.configure({ mode: "parallel" });

test.beforeEach(async ({ page }, info) => {
  await startClock(page, info.title.includes("two days") ? 72 : 2);
  await signIn(page, "Wren Alder");
});

test("a service port whose core was not pressed, and a cap tightened before the check, are void", CLOCKED, async ({ page }) => {
  await openOn(page, CARS.turnstone, {}, [code("P0442", 1.016)]);
  await smoke(page, { settleAt: 0, fuelLevel: "45", shutPort: true });
  await expect(ofRun(page).getByText("Void — proves nothing")).toBeVisible();
  await expect(ofRun(page).getByText(/the port is not open \(core not pressed, hose kinked\)/i)).toBeVisible();
  await page.getByText("Did anything spoil the run?").click();
  await main(page).getByRole("button", { name: "Filler cap", exact: true }).click();
  await expect(ofRun(page).getByText(/Filler cap was touched before the check: the evidence is gone/i)).toBeVisible();
  await recordRun(page);
  await expect(page.getByRole("button", { name: "Tank vapour space: untested" })).toBeVisible();
  await putEverythingBack(page);
  await station(page, "Check");
  await instrument(page, "Filler cap");
  await field(page, "Put on it, inH2O gauge").fill("30");
  await field(page, "Left, inH2O gauge").fill("9");
  // What nobody said is asked, at its field.
  await expect(soFar(page)).toHaveCount(0);
  await button(page, "Record the check").click();
  await expect(
    main(page)
      .getByRole("alert")
      .filter({ hasText: /Prove the tester with its blank/ }),
  ).toBeVisible();
  await page.getByRole("radio", { name: "Whole" }).click();
  await page.getByRole("radio", { name: "Held by itself" }).click();
  await expect(soFar(page).getByText("The cap does not hold")).toBeVisible();
  await record(page, "Filler cap", "Leaking");
  await topSuspect(page, "Filler cap or its seal leaks");
});

test("a readiness plan is carried out over two days, and the monitor has the last word", CLOCKED, async ({ page }) => {
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
  const wren = await inAs(page, "Wren Alder");
  const written = await page.request.post(`/api/v1/jobs/${jobId}/entries`, { data: before.map((made) => signedBy(wren, made)) });
  expect(written.ok(), await written.text()).toBe(true);
  await page.goto(`/jobs/${jobId}`);
  await station(page, "Prove");
  await button(page, "Codes cleared now").click();
  await main(page).getByLabel("How it was tried").fill("two starts and a drive");
  await page.getByRole("radio", { name: "Gone", exact: true }).click();
  await button(page, "Record the try").click();
  const blocks = page.getByRole("region", { name: "What blocks closing" });
  await driveAndRead(page);
  await expect(blocks.getByRole("listitem")).toHaveText([/Let the car's own EVAP monitor run/]);

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
  await expect(plan.getByText("Cannot run yet: correct this first")).toBeVisible();
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
  await expect(blocks.getByText(/not run since the repair/)).toBeVisible();
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
  await expect(main(page).getByText("Nothing blocks closing this job.")).toBeVisible();
});

test(
  "the vapour system is described, and an OBD hex log read: its codes, its criteria, an unknown PID as bytes",
  CLOCKED,
  async ({ page }) => {
    await openJob(page, "Engine light on", `FW 99 E${Date.now() % 100}`);
    await station(page, "Story");
    await page.getByText("Vehicle facts", { exact: true }).click();
    await page.getByText(/^Vapour system \(EVAP\)/).click();
    await page.getByRole("textbox", { name: "Fuel tank, rated volume" }).fill("50 L");
    await page.getByLabel("Has a service port").check();
    await page.getByRole("textbox", { name: "Tank-pressure sensor, volts at zero" }).fill("1.5 V");
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
    const log = page.getByLabel("Scan report or OBD log", { exact: true });
    await log.setInputFiles({ name: "x.log", mimeType: "text/plain", buffer: Buffer.from("41 0C 1\n") });
    await expect(main(page).getByText(/Line 1 is no OBD message.*Nothing was taken from it/)).toBeVisible();
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
  },
);
