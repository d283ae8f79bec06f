import type { Page } from "@playwright/test";
import { CARS } from "../demo/cars";
import { trimSurvey } from "../src/core/journal/journal.fixture";
import { button, type Later, main, openOn, signIn, station } from "./steps";
import { expect, test } from "./test";

const region = (page: Page, name: string) => main(page).getByRole("region", { name });

test("a suspect is tried by hand before any check, and what is not it falls in one tap", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openOn(page, CARS.merle, { symptoms: ["brake-hard", "hiss-idle"] }, ["P0171"]);
  await station(page, "Suspects");
  const byHand = region(page, "Confirm by hand");
  await expect(byHand).toContainText(/Go straight to it: Booster hose split.*a\s+confirmed cause is about \d+ min away/);
  await expect(region(page, "Best next check")).toContainText(
    /Why this one: a confirmed cause in about \d+ min with it first, and sooner by hand/,
  );
  await byHand.getByRole("button", { name: "Tried by hand, not it" }).click();
  await expect(main(page).getByRole("listitem").first()).toContainText("Booster diaphragm leaks");
  await expect(main(page)).not.toContainText("Go straight to it: Booster hose split");
  const suspects = main(page).getByRole("list", { name: "Ranked suspects" });
  await suspects.getByRole("button", { name: /^Booster diaphragm leaks/ }).click();
  const because = page.getByRole("dialog", { name: "Booster diaphragm leaks: because" });
  await because.getByRole("button", { name: "Tried by hand, not it" }).click();
  await expect(because).toHaveCount(0);
  await expect(suspects.getByRole("listitem").first()).toContainText("Nothing wrong now");
});

test("a car that shows nothing is handed back as that, once complaint, codes and checks speak for it", async ({ page }) => {
  const later: Later[] = [
    ["check", { check: "trims", record: trimSurvey([1, 0, -1, 0, 1]) }],
    ["codes-cleared", {}],
    ["drive", { minutes: 25 }],
    ["codes", { codes: [] }],
  ];
  await signIn(page, "Wren Alder");
  await openOn(page, CARS.plover, { symptoms: ["rough-idle"] }, ["P0171"], 8, later);
  await station(page, "Suspects");
  const nothing = region(page, "Nothing wrong");
  await expect(nothing).toContainText(/Perhaps nothing is wrong now: \d\d %/);
  await station(page, "Prove");
  await page.getByLabel("How it was tried").fill("Idled for ten minutes, cold and warm");
  await page.getByRole("radio", { name: "Gone" }).click();
  await button(page, "Record the try").click();
  await station(page, "Suspects");
  await expect(nothing).toContainText("All of that is recorded.");
  await nothing.getByRole("button", { name: "Hand over" }).click();
  await expect(
    main(page)
      .getByText(/^Nothing found: the complaint did not show/)
      .first(),
  ).toBeVisible();
});
