import type { Page } from "@playwright/test";
import { CARS } from "../demo/cars";
import { DEMO_PIN } from "../demo/pin.mjs";
import {
  button,
  describeEngine,
  enterPin,
  instrument,
  logOf,
  main,
  map,
  openJobByHand,
  putEverythingBack,
  readColumns,
  recordRun,
  setConditions,
  signIn,
  startClock,
  station,
} from "./steps";
import { CLOCKED, expect, test } from "./test";

const ledger = (page: Page) => page.getByRole("complementary", { name: "Ledger" });

test("story, scan and look: what is said, read and seen is weighed, each with its because", async ({ page }) => {
  await page.goto("/");
  await enterPin(page, "Tobin Falk", DEMO_PIN);
  await expect(page.getByRole("button", { name: "Tobin Falk" })).toBeVisible();
  await openJobByHand(page, "Hard pedal, hisses", "FW 50 STA");
  await station(page, "Story");
  await page.getByText("Vehicle facts").click();
  await page.getByLabel("VIN (optional)").fill("1M8GDM9A1KP042788");
  await expect(main(page).getByText("Check digit should be X: read the VIN again")).toBeVisible();
  await page.getByLabel("VIN (optional)").fill("1M8GDM9AXKP042788");
  await expect(main(page).getByText("Check digit fits")).toBeVisible();
  await page.getByRole("textbox", { name: "Odometer (optional)" }).fill("73000 mi");
  await button(page, "Record the facts").click();
  await page.getByRole("button", { name: "Hard brake pedal" }).click();
  await page.getByRole("radio", { name: "Seen ourselves" }).click();
  await button(page, "Record the story").click();
  await expect(main(page).getByText("Recorded.")).toBeVisible();

  await station(page, "Scan");
  await page.getByLabel("Code", { exact: true }).fill("P0171!");
  await button(page, "Add code").click();
  await expect(main(page).getByRole("alert")).toContainText("A code is 2 to 12 letters and digits");
  await expect(page.getByLabel("Code", { exact: true })).toHaveValue("P0171!");
  for (const code of ["P0171", "U3FFF"]) {
    await page.getByLabel("Code", { exact: true }).fill(code);
    await page.getByRole("radio", { name: "Stored" }).click();
    await button(page, "Add code").click();
  }
  await expect(main(page).getByText("Not in our list: look up the maker's text")).toBeVisible();
  await page.getByLabel("U3FFF not related: why").fill("battery was flat");
  await button(page, "Record the codes").click();
  await expect(main(page).getByText("Recorded.")).toBeVisible();

  await station(page, "Look");
  await button(page, "Understood").click();
  await expect(button(page, "Understood")).toHaveCount(0);
  const booster = main(page).getByRole("radiogroup", { name: /^Booster hose/ });
  await booster.getByRole("radio", { name: "Not OK" }).click();
  await page.getByLabel("What was found").fill("soft and split at the nipple");
  await button(page, /^(All OK|Rest OK \(\d+\))$/).click();
  await expect(booster.getByRole("radio", { name: "Not OK" })).toBeChecked();
  await button(page, "Record the look").click();
  await expect(main(page).getByText("Found by eye and hand: soft and split at the nipple")).toBeVisible();

  await station(page, "Suspects");
  const first = main(page).getByRole("listitem").first();
  await expect(first).toContainText("Booster hose split");
  await first.getByRole("button").click();
  const because = page.getByRole("dialog", { name: "Booster hose split: because" });
  await expect(because.getByText(/the booster loses its vacuum/)).toBeVisible();
  await expect(because.getByText(/the eye found this place/)).toBeVisible();
  await expect(because.getByText(/×\d+(\.\d)? for/).first()).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(main(page).getByText(/^Why this one: /)).toBeVisible();
  await button(page, "Go there").click();
  await expect(button(page, "Another instrument")).toBeVisible();
});

test(
  "a turbo's charge side: quiet at idle, rich under boost, smoked from its own entry and marked on the map",
  CLOCKED,
  async ({ page }) => {
    await startClock(page);
    await signIn(page, "Wren Alder");
    await page.goto("/new");
    await page.getByLabel("Complaint, in the customer's words").fill("Limp mode, hiss under load");
    await page.getByText("More about the car").click();
    await page.getByLabel("Make", { exact: true }).fill("Ostrin");
    await page.getByLabel("Model", { exact: true }).fill("Merle 1.4");
    await page.getByLabel("Model year").fill("2016");
    await page.getByLabel("Registration").fill("FW 51 STA");
    await page.getByLabel("Engine displacement", { exact: true }).fill("1.4");
    await describeEngine(page, "Turbo");
    await button(page, "Open the job").click();
    await setConditions(page);
    for (const zone of ["Hot pipe", "Cooler", "Cold pipe"])
      await expect(map(page).getByRole("button", { name: `${zone}: untested` })).toBeVisible();

    await station(page, "Check");
    await instrument(page, "Fuel-trim survey");
    await page.getByLabel("Scan-tool log").setInputFiles(logOf(CARS.merle.engine, 12));
    await readColumns(page);
    await expect(
      page.getByRole("region", { name: "Verdict so far" }).getByText(/rich under boost: metered air is lost/),
    ).toBeVisible();
    await button(page, "Record the check").click();
    await expect(ledger(page).getByRole("region", { name: "Suspects" }).getByRole("listitem").first()).toContainText(
      /pipe|Cooler/,
    );

    // Entry and blocks set by tapping the map.
    await instrument(page, "Smoke run");
    await map(page)
      .getByRole("button", { name: /^Hot pipe:/ })
      .click();
    const sheet = page.getByRole("dialog", { name: "Hot pipe" });
    await sheet
      .getByRole("listitem")
      .filter({ hasText: "Hot pipe clamp" })
      .getByRole("button", { name: "Smoke in here" })
      .click();
    await expect(page.getByRole("group", { name: "Let smoke in at", exact: true })).toContainText("Hot pipe clamp");
    await expect(map(page).getByRole("button", { name: "Cooler: untested, this fill reaches it" })).toBeVisible();
    // Its check valve keeps the fill out of the crankcase.
    await expect(map(page).getByRole("button", { name: "Crankcase: untested", exact: true })).toBeVisible();
    await map(page)
      .getByRole("button", { name: /^Manifold:/ })
      .click();
    await page
      .getByRole("dialog", { name: "Manifold" })
      .getByRole("listitem")
      .filter({ hasText: "Booster check valve" })
      .getByRole("button", { name: "Block here" })
      .click();
    await expect(map(page).getByText("Booster check valve")).toBeVisible();
    await page.getByRole("radio", { name: "Stand at zero" }).click();
    await button(page, "Heater on, to the machine proof").click();
    await page.getByLabel("Pressure with the hose clamped", { exact: true }).fill("12.8 inH2O");
    await page.getByRole("radio", { name: "Sat at the bottom" }).click();
    await page.getByRole("radio", { name: "Came" }).click();
    await button(page, "Hose on: start the run").click();
    await expect(page.getByRole("slider", { name: /Flow ball/ })).toBeVisible();
    for (let i = 0; i < 4; i++) {
      await page.clock.fastForward(5000);
      await button(page, "Take reading").click();
    }
    await map(page)
      .getByRole("button", { name: /^Cold pipe:/ })
      .click();
    await page
      .getByRole("dialog", { name: "Cold pipe" })
      .getByRole("listitem")
      .filter({ hasText: "Cooler outlet" })
      .getByRole("button", { name: "Smoke seen here" })
      .click();
    await expect(main(page).getByText(/Smoke at Cooler outlet/)).toBeVisible();
    await button(page, "End the run").click();
    await recordRun(page);
    await expect(map(page).getByRole("button", { name: "Cooler: leaking" })).toBeVisible();
    await expect(ledger(page).getByRole("region", { name: "Suspects" }).getByRole("listitem").first()).toContainText(
      "Cooler outlet joint leaks",
    );
    await expect(ledger(page).getByText("Hot pipe off the compressor")).toBeVisible();
    await putEverythingBack(page);
    await station(page, "Find");
    await expect(page.getByRole("group", { name: "Where", exact: true })).toContainText("Cooler outlet");
  },
);
