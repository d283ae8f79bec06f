import { button, instrument, main, map, pick, setConditions, signIn, startClock, station } from "./steps";
import { CLOCKED, expect, test } from "./test";

test("a car known by fuel and displacement alone goes on the bench, and says what it still needs", CLOCKED, async ({ page }) => {
  await startClock(page);
  await signIn(page, "Maren Oake");
  await page.goto("/new");
  await page.getByLabel("Complaint, in the customer's words").fill("Hiss at idle, nobody knows the engine");
  await page.getByLabel("Engine displacement", { exact: true }).fill("1.6 L");
  await button(page, "Open the job").click();
  await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
  await expect(page.getByText("Petrol 1.6 L · not known yet: induction, air metering, banks, fitted systems")).toBeVisible();
  await setConditions(page);

  await station(page, "Check");
  await instrument(page, "Smoke run");
  await expect(main(page).getByText(/^not known of this vehicle yet: induction, fitted systems/i)).toBeVisible();
  await instrument(page, "Fuel-trim survey");
  await expect(main(page).getByText(/^not known of this vehicle yet: induction, air metering, banks/i)).toBeVisible();

  await station(page, "Hand over");
  await expect(main(page).getByText("Type the registration or VIN: which car is it?").first()).toBeVisible();

  // What is not known yet stands open.
  await station(page, "Story");
  for (const name of ["Naturally aspirated", "Air meter (MAF)", "One bank"]) await page.getByRole("radio", { name }).click();
  await page.getByLabel("That is what is fitted, and no more").check();
  await page.getByLabel("Registration").fill("FW 61 KWN");
  await button(page, "Record the facts").click();
  await expect(page.getByText("FW 61 KWN").first()).toBeVisible();
  await station(page, "Check");
  await expect(main(page).getByText(/not known of this vehicle yet/i)).toHaveCount(0);
  await station(page, "Hand over");
  await expect(main(page).getByText("Type the registration or VIN: which car is it?")).toHaveCount(0);
});

test(
  "smoke goes in at any hose's end, into either side, and by a port tapped for good, which the customer is told of",
  CLOCKED,
  async ({ page }) => {
    await startClock(page);
    await signIn(page, "Maren Oake");
    await page.goto("/new");
    await page.getByLabel("Complaint, in the customer's words").fill("Limp mode");
    await page.getByLabel("Engine displacement", { exact: true }).fill("1.4 L");
    await page.getByLabel("Registration").fill("FW 62 TAP");
    await page.getByText("More about the car").click();
    for (const name of ["Turbo", "Air meter (MAF)", "One bank"]) await page.getByRole("radio", { name }).click();
    await page.getByRole("toolbar", { name: "Fitted systems" }).getByRole("button", { name: "Brake booster" }).click();
    await page.getByLabel("That is what is fitted, and no more").check();
    await button(page, "Open the job").click();
    await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
    await setConditions(page);
    await station(page, "Check");
    await instrument(page, "Smoke run");
    const reach = main(page).getByRole("region", { name: "What this fill reaches" });

    await pick(page, "Let smoke in at", "cooler-outlet");
    await expect(reach.getByText("Cold pipe", { exact: false }).first()).toBeVisible();
    await expect(map(page).getByRole("button", { name: "Cold pipe: untested, this fill reaches it" })).toBeVisible();
    await expect(map(page).getByRole("button", { name: "Cooler: untested", exact: true })).toBeVisible();
    await page.getByRole("radio", { name: "Cooler" }).click();
    await expect(map(page).getByRole("button", { name: "Cooler: untested, this fill reaches it" })).toBeVisible();
    await expect(map(page).getByRole("button", { name: "Cold pipe: untested", exact: true })).toBeVisible();

    // Behind a check valve nothing is filled, and the run is not begun.
    await pick(page, "Let smoke in at", "booster-hose");
    await page.getByRole("radio", { name: "Booster branch" }).click();
    await expect(reach.getByText("Fills nothing.")).toBeVisible();
    await expect(main(page).getByText(/the booster check valve shuts it off right there/)).toBeVisible();
    await expect(button(page, "Heater on, to the machine proof")).toBeDisabled();

    await station(page, "Story");
    await page.getByText("Vehicle facts", { exact: true }).click();
    await page.getByText("Ports tapped into the intake for good", { exact: true }).click();
    await page.getByRole("button", { name: "Cold pipe", exact: true }).click();
    await button(page, "Record the facts").click();
    await station(page, "Check");
    await pick(page, "Let smoke in at", "tapped-cold-pipe");
    await page.getByRole("radio", { name: "Stand at zero" }).click();
    await expect(button(page, "Heater on, to the machine proof")).toBeEnabled();
    await station(page, "Hand over");
    await page.goto(`${page.url().split("?")[0]}/handover`);
    await expect(page.getByText("A port is tapped into the cold pipe for good, and plugged")).toBeVisible();
  },
);
