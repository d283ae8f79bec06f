import type { Page } from "@playwright/test";
import { CARS } from "../demo/cars";
import {
  button,
  instrument,
  leaking,
  logOf,
  main,
  openJob,
  openOn,
  readColumns,
  recordRun,
  setConditions,
  signIn,
  smoke,
  soFar,
  startClock,
  station,
} from "./steps";
import { CLOCKED, expect, test } from "./test";

/** What a machine must show before, during and after its run; what a log or a valve is asked for besides. */
const ofRun = (page: Page) => page.getByRole("region", { name: "Verdict of this run" });
const machine = (page: Page) => page.getByLabel("Smoke machine", { exact: true });

test.describe.configure({ mode: "parallel" });
test.beforeEach(async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
});

test(
  "a machine above the vapour ceiling is not put on before it is shown lawful, and a reading above it alarms",
  CLOCKED,
  async ({ page }) => {
    await openOn(page, CARS.pintail, { symptoms: ["fuel-smell"] }, ["P0442"]);
    await station(page, "Check");
    await instrument(page, "EVAP smoke");
    await machine(page).selectOption({ label: "Reed smoker, cart 2" });
    await page.getByRole("radio", { name: "A plug by hand" }).click();
    await page.getByLabel("Fuel level, % of the tank").fill("90");
    await expect(main(page).getByText(/^Would only count as not sure yet: fuel stands at 90 %/)).toBeVisible();
    await page.getByLabel("Fuel level, % of the tank").fill("45");
    await page.getByRole("radio", { name: "Stand at zero" }).click();
    await button(page, "Heater on, to the machine proof").click();
    const regulated = page.getByRole("textbox", { name: "Regulated to, hose clamped" });
    const on = button(page, "Hose on: start the run");
    await page.getByLabel("Pressure with the hose clamped", { exact: true }).fill("0.45 psi");
    for (const typed of ["", "2 psi", "0.6 psi"]) {
      await regulated.fill(typed);
      await expect(on).toBeDisabled();
      await expect(button(page, "Start now, prove it after the run")).toBeDisabled();
    }
    await expect(main(page).getByRole("alert").filter({ hasText: "is above the ceiling" })).toBeVisible();
    await regulated.fill("0.45 psi");
    // The proof is not said in full yet.
    await expect(on).toBeDisabled();
    await page.getByRole("radio", { name: "Sat at the bottom" }).click();
    await page.getByRole("radio", { name: "Came" }).click();
    await on.click();
    await page.getByLabel("Pressure", { exact: true }).fill("0.45");
    await expect(main(page).getByRole("alert")).toHaveCount(0);
    await page.getByLabel("Pressure", { exact: true }).fill("0.6");
    await expect(main(page).getByRole("alert").filter({ hasText: "Take the hose off now" })).toBeVisible();
  },
);

test("one proof serves the session, and one taken after the run counts", CLOCKED, async ({ page }) => {
  await openOn(page, CARS.petrel, { symptoms: ["rough-idle"] }, ["P0171"]);
  await smoke(page, { settleAt: 4.5, arrivals: [] });
  await recordRun(page);
  await page.getByRole("radio", { name: "Stand at zero" }).click();
  await expect(button(page, /^Hose on: proved at \d\d:\d\d$/)).toBeEnabled();
  await button(page, "Prove the machine again").click();
  await expect(main(page).getByText(/was proved at \d\d:\d\d: 12.6\d* inH2O gauge.*One proof serves the session/)).toBeVisible();
  await button(page, "Hose on, with that proof").click();
  await expect(page.getByRole("slider", { name: /Flow ball/ })).toBeVisible();
  await button(page, "Discard this run").click();
  await button(page, "Discard it").click();

  await page.getByRole("radio", { name: "Stand at zero" }).click();
  await button(page, "Prove the machine again").click();
  await button(page, "Start now, prove it after the run").click();
  await page.clock.fastForward(6000);
  await button(page, "I see smoke: mark it").click();
  await page.getByRole("dialog").getByRole("button", { name: "PCV hose", exact: true }).click();
  await button(page, "End the run").click();
  await expect(ofRun(page).getByText(/the machine was never proved/i)).toBeVisible();
  await page.getByLabel("Pressure with the hose clamped", { exact: true }).fill("12.5 inH2O");
  await page.getByRole("radio", { name: "Sat at the bottom" }).click();
  await page.getByRole("radio", { name: "Came" }).click();
  await page.getByLabel("That is what the machine shows now").check();
  await expect(ofRun(page).getByText(/the machine was never proved/i)).toHaveCount(0);
});

test(
  "a log that is read before the bay's air is known waits for it, and is taken once that is set",
  CLOCKED,
  async ({ page }) => {
    await openJob(page, "Dull", "FW 70 AIR");
    await station(page, "Check");
    await instrument(page, "Airflow");
    await main(page).getByRole("radio", { name: "From a log" }).click();
    await main(page).getByRole("radio", { name: "Warm", exact: true }).click();
    await page.getByLabel("Scan-tool log").setInputFiles(logOf(leaking));
    await readColumns(page);
    await expect(main(page).getByRole("button", { name: "Set the conditions" }).first()).toBeVisible();
    await expect(soFar(page)).toHaveCount(0);
    await setConditions(page);
    await expect(soFar(page)).toBeVisible();
  },
);

test("a log that names no unit is asked for it, and says which were worked out", CLOCKED, async ({ page }) => {
  await openOn(page, CARS.petrel, { symptoms: ["rough-idle"] }, ["P0171"]);
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  // Idle, raised and loaded: manifold numbers that could be psi as well as inHg, and no coolant to tell °C by.
  const points = [
    [740, "0.346", "4.8", 3, 14],
    [2500, "1.24", "4.4", 1, 3],
    [2200, "2.65", "9.0", 0.5, 1.2],
  ] as const;
  const rows = points.flatMap(([rpm, maf, map, short, long], k) =>
    Array.from({ length: 40 }, (_, i) => [(40 * k + i) * 0.5, rpm, maf, map, "24", "CL", short, long]),
  );
  const head = "Time,Engine revs,Mass Air Flow,Intake Manifold Absolute Pressure,IAT,Fuel System Status,STFT B1,LTFT B1";
  await page.getByLabel("Scan-tool log").setInputFiles({
    name: "no-units.csv",
    mimeType: "text/csv",
    buffer: Buffer.from([head, ...rows.map((r) => r.join(","))].join("\n")),
  });
  await expect(main(page).getByText("not in the file").first()).toBeVisible();
  const go = button(page, "Read the log with these columns");
  await expect(go).toBeDisabled();
  await page.getByLabel("Unit of Intake Manifold Absolute Pressure").selectOption("psi");
  await expect(go).toBeDisabled();
  await page.getByLabel("Unit of IAT").selectOption("°C");
  await go.click();
  await expect(soFar(page).getByText(/^Lean at idle, fading as airflow rises/)).toBeVisible();
  // The mapping is changed without choosing the file again, and was remembered.
  await button(page, "Change how the columns are understood").click();
  await expect(page.getByLabel("Unit of Intake Manifold Absolute Pressure")).toHaveValue("psi");
});
