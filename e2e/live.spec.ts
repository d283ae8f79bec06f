import type { Page } from "@playwright/test";
import { CARS } from "../demo/cars";
import {
  button,
  finding,
  hoseOn,
  instrument,
  leaking,
  logOf,
  main,
  openOn,
  record,
  recordRun,
  signIn,
  soFar,
  sound,
  startClock,
  station,
  survey,
  watchKeys,
} from "./steps";
import { CLOCKED, expect, standStill, test } from "./test";

async function typePoint(page: Page, rpm: string): Promise<void> {
  for (const [name, value] of [
    ["Engine speed, rpm", rpm],
    ["MAF, g/s", "14"],
    ["Short-term, %", "0"],
    ["Long-term, %", "1"],
  ] as const)
    await page.getByLabel(name, { exact: true }).fill(value);
  await button(page, "Add the point").click();
}

test(
  "a scan tool read live fills the survey as it comes; what a stand-in shows closes no real job, and the gate says so",
  CLOCKED,
  async ({ page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await openOn(page, CARS.petrel, {}, ["P0171"]);
    await survey(page, leaking, 71);
    await record(page, "Fuel-trim survey", "Faulty");
    await finding(page, "manifold-gasket", "Gasket sucked in");
    await station(page, "Fix");
    await page.getByLabel("What was done", { exact: true }).fill("Gasket renewed");
    await main(page).getByRole("radiogroup", { name: "The part was" }).getByRole("radio", { name: "Renewed" }).click();
    await page.getByLabel("Parts, one a line").fill("manifold gasket");
    await button(page, "Record the repair").click();
    await expect(page.getByLabel("What was done", { exact: true })).toHaveValue("");
    await page.clock.fastForward(20 * 60_000);

    await station(page, "Check");
    await instrument(page, "Fuel-trim survey");
    await main(page).getByRole("radio", { name: "Live from the scan tool" }).click();
    await main(page).getByRole("radio", { name: "A recorded log" }).click();
    await main(page).getByRole("radio", { name: "Ten times faster" }).click();
    const live = main(page).getByRole("region", { name: "Scan tool, live" });
    await standStill(page);
    await live.getByLabel("Log to play as a live scan tool").setInputFiles(logOf(sound, 72));
    await expect(live.getByText("Simulated.")).toBeVisible();
    const replaced = await watchKeys(page);
    const rows = main(page).getByRole("table").getByRole("row");
    // A point joins once it has been held: first one, then more.
    await page.clock.runFor(4000);
    await expect(live.getByText(/Engine speed/)).toBeVisible();
    await expect(rows.nth(1)).toBeVisible();
    const first = await rows.count();
    await page.clock.runFor(8000);
    await expect.poll(() => rows.count()).toBeGreaterThan(first);
    expect(await replaced()).toEqual([]);
    // Unplugged in the middle, nothing that came is lost; nor by a reload.
    await live.getByRole("button", { name: "Unplug" }).click();
    await expect(live.getByText(/What came until then stays/)).toBeVisible();
    const kept = await rows.count();
    await expect(soFar(page).getByText(/simulated device: it proves nothing of this car/)).toBeVisible();
    await page.reload();
    await station(page, "Check");
    await instrument(page, "Fuel-trim survey");
    await expect.poll(() => rows.count()).toBe(kept);
    await button(page, "Record the check").click();
    await expect(
      page.getByRole("region", { name: "Fuel-trim survey, so far" }).getByText(/proves nothing of this car/),
    ).toBeVisible();
    await station(page, "Prove");
    await expect(main(page).getByRole("region", { name: "What blocks closing" })).toContainText(
      /Repeat the fuel-trim survey: .*void.*Replay of drive\.csv is simulated/,
    );
  },
);

test(
  "a simulated engine stands in for a car: its foot held at three speeds, its survey says what it hid",
  CLOCKED,
  async ({ page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await openOn(page, CARS.petrel, {}, ["P0171"]);
    await station(page, "Check");
    await instrument(page, "Fuel-trim survey");
    // What was typed is not lost to a stand-in.
    await main(page).getByRole("radio", { name: "Typed by hand" }).click();
    await typePoint(page, "3000");
    await main(page).getByRole("radio", { name: "Live from the scan tool" }).click();
    await main(page).getByRole("radio", { name: "Ten times faster" }).click();
    await main(page).getByRole("radio", { name: "Sound", exact: true }).click();
    await button(page, "Connect the stand-in: start the engine").click();
    await expect(main(page).getByText(/A point stands here already, typed or from a log/)).toBeVisible();
    await button(page, "Remove the point at 3000 rpm").click();
    await button(page, "Connect the stand-in: start the engine").click();
    const live = main(page).getByRole("region", { name: "Scan tool, live" });
    await expect(live.getByText("Simulated.")).toBeVisible();
    const foot = live.getByRole("radiogroup", { name: "The foot holds, rpm" });
    const rows = main(page).getByRole("table").getByRole("row");
    const replaced = await watchKeys(page);
    for (const [held, points] of [
      ["Idle", 1],
      ["1500", 2],
      ["2500", 3],
    ] as const) {
      await foot.getByRole("radio", { name: held, exact: true }).click();
      await page.clock.runFor(4000);
      await expect.poll(() => rows.count()).toBeGreaterThan(points);
    }
    expect(await replaced()).toEqual([]);
    await live.getByRole("button", { name: "Unplug" }).click();
    await expect(live.getByText(/It was sound/)).toBeVisible();
    await expect(soFar(page).getByText(/Stand-in engine is simulated; on a car that reads so it would say/)).toBeVisible();
    // A point typed beside them makes them no readings of this car.
    await main(page).getByRole("radio", { name: "Typed by hand" }).click();
    await typePoint(page, "3000");
    await expect(main(page).getByRole("cell", { name: /^3.?000 rpm$/ })).toBeVisible();
    await expect(soFar(page).getByText(/it proves nothing of this car/)).toBeVisible();
  },
);

test(
  "a stand-in smoke machine moves ball and gauge by itself; its run is void and tells what it hid",
  CLOCKED,
  async ({ page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await openOn(page, CARS.petrel, {}, ["P0171"]);
    await hoseOn(page);
    const machine = main(page).getByRole("region", { name: "Machine, live" });
    await expect(machine).toBeVisible();
    await machine.getByRole("button", { name: "Connect the stand-in machine" }).click();
    await expect(machine.getByText("Simulated.")).toBeVisible();
    const replaced = await watchKeys(page);
    // A reading a second, and nobody touches ball or gauge.
    await page.clock.runFor(60_000);
    expect(await replaced()).toEqual([]);
    await expect(main(page).getByText(/^[56]\d readings/)).toBeVisible();
    await expect(main(page).getByRole("slider", { name: /Flow ball/ })).not.toHaveAttribute("aria-valuenow", "0");
    await button(page, "Looked everywhere: none outside").click();
    await expect(machine.getByText(/It had a hole of \d\.\d mm: /)).toBeVisible();
    await expect(page.getByRole("region", { name: "Verdict of this run" })).toContainText(/simulated device: it proves nothing/);
    await recordRun(page);
    await station(page, "Suspects");
    await expect(main(page).getByText(/Void, so not counted: smoke run \(Stand-in smoke machine is simulated/)).toBeVisible();
  },
);
