import sharp from "sharp";
import { CARS } from "../demo/cars";
import { button, instrument, main, panel, setConditions, signIn, station } from "./steps";
import { expect, test } from "./test";

test("from the board straight into a run with two facts; what is still owed is said, and can follow", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await page.goto("/");
  await panel(page, "More").click();
  await page.getByRole("link", { name: "Fuel-trim survey", exact: true }).click();
  // What is missing is said at its field, and where the focus goes.
  await button(page, "Open the fuel-trim survey").click();
  await expect(page.getByRole("textbox", { name: "Engine displacement" })).toBeFocused();
  await expect(main(page).or(page.getByRole("main")).getByRole("alert")).toContainText("Type the engine's displacement");
  await page.getByRole("textbox", { name: "Engine displacement" }).fill("1598 cc");
  await page.getByRole("textbox", { name: "Codes read, if any" }).fill("p0171");
  await button(page, "Hiss or whistle at idle").click();
  await button(page, "Open the fuel-trim survey").click();
  await expect(main(page).getByRole("heading", { name: "Fuel-trim survey", level: 2 })).toBeVisible();
  await expect(page.getByRole("banner").getByText(/not known yet: /)).toBeVisible();
  await setConditions(page);
  await page.getByRole("radio", { name: "Typed by hand" }).click();
  for (const [rpm, maf, long] of [
    ["720", "2.6", "14"],
    ["1500", "6.1", "6"],
    ["2500 rpm", "11", "2 … 4"],
  ] as const) {
    await page.getByLabel("Engine speed, rpm").fill(rpm);
    await page.getByLabel("MAF, g/s", { exact: true }).fill(maf);
    await page.getByLabel("Short-term, %").fill("1");
    await page.getByLabel("Long-term, %").fill(long);
    await button(page, "Add the point").click();
  }
  await expect(page.getByRole("region", { name: "Verdict so far" })).toBeVisible();
  await button(page, "Record the check").click();
  await station(page, "Suspects");
  await expect(main(page).getByRole("listitem").first()).toBeVisible();
  // The next car stands in the same air: it is taken over, and asked again.
  await page.goto("/start?check=hold");
  await page.getByRole("textbox", { name: "Engine displacement" }).fill("2,0 L");
  await button(page, "Open the hold test").click();
  await button(page, "Set conditions").click();
  await expect(page.getByLabel("Ambient pressure, absolute", { exact: true })).toHaveValue(/1006/);
  await expect(page.getByText(/As set on this device today/)).toBeVisible();
});

test("a device that was never here is offered three ways in; a walk over a job makes six stops and is left at any time", async ({
  page,
}) => {
  await signIn(page, "Wren Alder");
  await page.goto("/");
  const ways = page.getByRole("region", { name: "First time here" });
  await expect(ways.getByRole("link")).toHaveCount(3);
  await ways.getByRole("link", { name: /^Walk through/ }).click();
  const walk = page.getByRole("region", { name: "A walk through a job" });
  for (let stop = 1; stop <= 6; stop++) {
    await expect(walk.getByText(`Stop ${stop} of 6`)).toBeVisible();
    await walk.getByRole("button", { name: stop === 6 ? "Done" : "Next stop" }).click();
  }
  await expect(walk).toHaveCount(0);
  await expect(main(page).getByRole("heading", { name: "Hand over", level: 2 })).toBeVisible();
  await page.goto("/");
  await expect(page.getByRole("heading", { name: /^Bay board/ })).toBeVisible();
  await expect(ways).toHaveCount(0);
});

test("the board shows some of its jobs by what is asked, and keeps that in its address", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await page.goto("/");
  await panel(page, "Filter").click();
  await page.getByRole("combobox", { name: "Waiting for" }).selectOption("Cooling down");
  await button(page, "Apply").click();
  await expect(page).toHaveURL(/waiting=cold-soak/);
  await expect(page.getByRole("region", { name: "Cooling down" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Ready to work on" })).toHaveCount(0);
  await page.reload();
  await panel(page, "Filter").click();
  await expect(page.getByRole("combobox", { name: "Waiting for" })).toHaveValue("cold-soak");
  await page.getByRole("link", { name: "Clear filter" }).click();
  await expect(page.getByRole("region", { name: "Ready to work on" })).toBeVisible();
});

test("a car that was here before is known by its registration, and a comeback goes on in its old job", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await page.goto("/new");
  await page.getByLabel("Registration").fill("fw88mor");
  const before = page.getByRole("region", { name: "This car was here before" });
  // It fills itself; what is read anew at each visit stays empty.
  await expect(page.getByLabel("Engine displacement", { exact: true })).not.toHaveValue("");
  await page.getByText("More about the car").click();
  await expect(page.getByLabel("Make", { exact: true })).not.toHaveValue("");
  await expect(page.getByLabel("Odometer (optional)", { exact: true })).toHaveValue("");
  await before.getByRole("link", { name: /^Job \d+, closed, .*Idle hunts and hisses/ }).click();
  await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
  await station(page, "Hand over");
  await expect(main(page).getByRole("radio", { name: "It came back" })).toBeVisible();
});

test("a car like one before takes its facts and nothing of its history, and a pasted scan gives VIN, codes and frames", async ({
  page,
}) => {
  await signIn(page, "Wren Alder");
  await page.goto("/new");
  await page.getByLabel("Registration").fill("FW 90 LIK");
  await page.getByLabel("Same as a car before (optional)").fill("ser");
  await page.getByRole("list", { name: "Cars of this shop" }).getByRole("button", { name: /Serin/ }).first().click();
  await expect(page.getByLabel("Engine displacement", { exact: true })).not.toHaveValue("");
  await expect(page.getByLabel("Registration")).toHaveValue("FW 90 LIK");
  const scan = page.getByLabel(/^Scan report or OBD log \(optional\)/);
  await scan.fill("all well");
  await expect(page.getByText("There is no VIN, no code and no monitor in this text. Nothing was taken from it.")).toBeVisible();
  await scan.fill("VIN: 4ZZPT2B00E1000123\nP0171 Too lean, confirmed\n  Freeze frame: 720 rpm, load 24 %\nP0300 test passed");
  const taken = page.getByRole("region", { name: "Taken from the scan" });
  await expect(taken).toContainText("P0171 stored, with freeze frame");
  await expect(taken).toContainText("Left out, not set by its own line: P0300");
  await page.getByLabel("Complaint, in the customer's words").fill("Hisses at idle");
  await button(page, "Open the job").click();
  await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
  await expect(page.getByRole("banner").getByText(/not known yet/)).toHaveCount(0);
  await station(page, "Scan");
  await expect(main(page).getByText("P0171", { exact: true })).toBeVisible();
  await expect(main(page).getByText("P0300")).toHaveCount(0);
  await station(page, "Story");
  await page.getByText("Vehicle facts", { exact: true }).click();
  await expect(page.getByLabel("VIN (optional)")).toHaveValue("4ZZPT2B00E1000123");
});

test("the one kind that a VIN is alike to fills itself in, says so, and is taken off for good", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await page.goto("/new");
  const vin = `${CARS.shearwater.facts.vin?.slice(0, 11)}991234`;
  await page.getByLabel(/^Scan report or OBD log \(optional\)/).fill(`VIN: ${vin}\nP0457 confirmed`);
  const filled = page.getByRole("button", { name: /^Not like .*Shearwater/ });
  await expect(filled).toBeVisible();
  await expect(page.getByText("Filled in by its VIN. Not the same? Take it off")).toBeVisible();
  const displacement = page.getByLabel("Engine displacement", { exact: true });
  await expect(displacement).not.toHaveValue("");
  await expect(page.getByLabel("Registration")).toHaveValue("");
  await filled.click();
  await expect(displacement).toHaveValue("");
  await page.reload();
  await expect(page.getByRole("list", { name: "Cars of this shop" }).getByRole("button")).toHaveCount(1);
  await expect(displacement).toHaveValue("");
  await page.getByRole("list", { name: "Cars of this shop" }).getByRole("button").click();
  await expect(displacement).not.toHaveValue("");
});

test("what the shop has proved of an engine helps in the next car that has it: in Look, among the suspects, beside a reading, in Fix", async ({
  page,
}) => {
  await signIn(page, "Wren Alder");
  await page.goto("/?q=Serin");
  await page
    .getByRole("main")
    .getByRole("link", { name: /FW 54 GUL/ })
    .click();
  await station(page, "Look");
  const known = page.getByRole("region", { name: "This engine here" });
  await expect(known).toContainText("This engine, from 6 proved jobs here");
  await expect(known).toContainText(/PCV hose 5×, about 40 min · Manifold gasket 1×/);
  await station(page, "Suspects");
  const hose = main(page).getByRole("listitem").filter({ hasText: "PCV hose split" });
  const odds = async () => Number(/(\d+) %/.exec((await hose.first().textContent()) ?? "")?.[1]);
  const before = await odds();
  await hose.first().getByRole("button").first().click();
  await expect(page.getByRole("dialog").getByText("found 5 times in the last 6 jobs of this engine here")).toBeVisible();
  await page.keyboard.press("Escape");
  await main(page).getByRole("checkbox", { name: "Weighed with the last 6 proved jobs of this engine here" }).click();
  await expect.poll(odds).toBeLessThan(before);
  await main(page)
    .getByRole("checkbox", { name: /Weighed with/ })
    .click();
  await expect.poll(odds).toBe(before);
  await station(page, "Check");
  await instrument(page, "Smoke run");
  await expect(page.getByRole("note", { name: "This engine, sound" })).toContainText(
    / to .* \(jobs \d+(, \d+)+; Fen smoker, cart 1, 17 °C\)/,
  );
  await station(page, "Fix");
  await expect(page.getByRole("region", { name: "Repairs of this engine here" })).toContainText(/PCV hose \d×/);

  // What nobody had in their head is on the wing: written here, it stands in any job of this engine.
  await station(page, "Look");
  await known.getByText("Add a note to this engine’s card").click();
  await button(page, "Add to the card").click();
  await expect(known.getByText("The note is empty")).toBeVisible();
  await known.getByLabel("About").selectOption("A torque, with its source");
  await known.getByLabel("For whoever works on this engine next").fill("Manifold bolts 22 N·m, from the maker's sheet");
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#7a8" } })
    .jpeg()
    .toBuffer();
  await known.getByLabel("Picture from a file").setInputFiles({ name: "bolts.jpg", mimeType: "image/jpeg", buffer: picture });
  await expect(known.getByRole("img")).toBeVisible();
  await button(page, "Add to the card").click();
  await expect(known.getByLabel("For whoever works on this engine next")).toHaveValue("");
  await expect(page.getByText(/not sent yet/)).toHaveCount(0);
  await page.goto("/?all=1&q=FW 21 ABL");
  await page
    .getByRole("main")
    .getByRole("link", { name: /FW 21 ABL/ })
    .click();
  await station(page, "Fix");
  const noted = page.getByRole("region", { name: "Repairs of this engine here" }).getByRole("listitem");
  await expect(noted).toContainText(
    /A torque, with its source: Manifold bolts 22 N·m, from the maker's sheet Wren Alder, job \d+/,
  );
  await expect(noted.getByRole("img")).toBeVisible();
});

test("what the shop knows of itself stands on a page with what it rests on, and claims nothing of too few", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await page.goto("/shop");
  await page.getByRole("link", { name: "What we know" }).click();
  await expect(
    page.getByText(/^From \d+ jobs on real cars here, \d+ of them found, repaired and proved to the end/),
  ).toBeVisible();
  const part = (name: string) => page.getByRole("main").getByRole("region", { name, exact: true });
  await expect(part("Were the odds right?").getByRole("row", { name: /^0 to 10 % \d+ of \d+: .* as predicted$/ })).toBeVisible();
  await expect(part("What moves the suspects")).toContainText(
    /Ondrell 1.2 L petrol\d+ proved jobs.*PCV hose split: \d\.\d times as likely as the trade has it, found 5 times in the last 6 jobs/,
  );
  await expect(
    part("How long it takes to find").getByRole("row", { name: /Intake, vacuum and mixture \d+ \d+ min \(\d+ to \d+\)/ }),
  ).toBeVisible();
  await expect(part("What held").getByRole("row", { name: /^Cleaned \d+ 0 of \d, not enough yet$/ })).toBeVisible();
  await expect(
    part("Checks that proved nothing")
      .getByText(/of \d+ void: \d+ % \(\d+ to \d+\)/)
      .first(),
  ).toBeVisible();
  await expect(
    part("Machines against their proof").getByRole("row", { name: /Fen smoker, cart 1 .* drifts: down by \d+ %/ }),
  ).toBeVisible();
});
