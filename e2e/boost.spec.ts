import { expect, type Page, test } from "@playwright/test";
import { CARS } from "../demo/cars";
import {
  button,
  field,
  finding,
  instrument,
  main,
  openOn,
  putEverythingBack,
  record,
  recordRun,
  signIn,
  smoke,
  soFar,
  startClock,
  station,
  topSuspect,
} from "./steps";

/** Air into the charge side up to the engine's boost: the stops, and what came out on the way. */
async function pressureTest(page: Page, leak?: { readonly at: string; readonly from: string }): Promise<void> {
  await station(page, "Check");
  await instrument(page, "Boost pressure test");
  await button(page, "It is off: list it").click();
  await field(page, "Adapter and hose are rated for, gauge").fill("2");
  for (const [i, stop] of ["0.3", "0.6", "0.9", "1.1"].entries()) {
    if (i > 0) await button(page, "Next stop").click();
    await main(page).getByRole("textbox", { name: "Stop, gauge" }).nth(i).fill(stop);
  }
  if (leak) {
    await button(page, "Air comes out here").click();
    await page.getByLabel("Where", { exact: true }).selectOption(leak.at);
    await page.getByLabel("How it showed").selectOption("soap");
    await field(page, "It began at, gauge").fill(leak.from);
  } else await page.getByLabel(/^Every joint was listened to/).check();
}

test("a crack that opens only under pressure: smoke is clean, air finds it, and air proves the new cooler", async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
  await openOn(page, CARS.dotterel, { symptoms: ["hiss-load", "low-power"] }, ["P0299"]);
  await smoke(page, { settleAt: 0.02, entry: "hot-pipe-clamp", arrivals: ["Cooler", "Cold pipe", "Manifold"] });
  await expect(
    page
      .getByRole("region", { name: "Verdict of this run" })
      .getByText(/^Tight/)
      .first(),
  ).toBeVisible();
  await recordRun(page);
  await putEverythingBack(page);

  await pressureTest(page, { at: "cooler-tank", from: "0.6" });
  await expect(soFar(page).getByText(/clean smoke said nothing of it/)).toBeVisible();
  await record(page, "Boost pressure test", "Leaking");
  await putEverythingBack(page);
  await topSuspect(page, "Cooler end tank leaks");

  await finding(page, "cooler-tank", "Cracked along its crimp");
  await station(page, "Fix");
  await page.getByLabel("What was done").fill("Cooler renewed with both seals");
  await page.getByLabel("Parts, one a line").fill("charge-air cooler");
  await button(page, "Record the repair").click();
  await station(page, "Prove");
  await expect(
    main(page)
      .getByText(/boost pressure test has not .* after the last repair/i)
      .first(),
  ).toBeVisible();

  await page.clock.fastForward(20 * 60_000);
  await pressureTest(page);
  await record(page, "Boost pressure test", "Tight");
  await putEverythingBack(page);
  await station(page, "Prove");
  const compared = main(page).getByRole("row").filter({ hasText: "Boost pressure test" });
  await expect(compared.getByText("Leaking")).toBeVisible();
  await expect(compared.getByText("Tight")).toBeVisible();
  await expect(
    main(page)
      .getByText(/boost pressure test/i)
      .filter({ hasText: /has not/ }),
  ).toHaveCount(0);
});
