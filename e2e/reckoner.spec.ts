import { button, idOf, main, openJob, panel, setConditions, signIn } from "./steps";
import { expect, test } from "./test";

test("reckons as it is typed, says the same as its link on another device, and is carried into a job", async ({
  page,
  newDevice,
}) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Smells of fuel", "FW 26 RCK");
  const job = idOf(page);
  await setConditions(page);
  await page.goto("/");
  await panel(page, "More").click();
  await page.getByRole("link", { name: "Calculator" }).click();
  const answer = page.getByRole("region", { name: "Result" });
  await expect(answer).toContainText("Type the flow");
  await page.getByLabel(/^Flow, at 20 °C/).fill("0.543");
  await page.getByLabel("Pressure, gauge", { exact: true }).fill("13");
  await expect(answer).toContainText("0.508 mm");
  await page.getByText("Its equation").click();
  await expect(answer).toContainText("Shapiro 1953");
  // What is out of any band is asked about, and what was typed stays.
  await page.getByLabel("Pressure, gauge", { exact: true }).fill("13 bar");
  await expect(answer).not.toContainText("0.508 mm");
  await expect(page.getByLabel("Pressure, gauge", { exact: true })).toHaveValue("13 bar");
  await page.getByLabel("Pressure, gauge", { exact: true }).fill("13");
  await expect.poll(() => new URL(page.url()).searchParams.get("flow")).toBe("0.543");
  const other = await newDevice();
  const second = await other.newPage();
  await second.goto(page.url());
  await expect(second.getByRole("region", { name: "Result" })).toContainText("0.508 mm");

  // A fall draws itself beside its fit, and goes into the job's own decay as a draft.
  await button(page, "Decay after shut-off").click();
  await page.getByLabel(/^Seconds and pressure/).fill("0 10\n30 9.3\n60 8.6\n90 8.0\n120 7.4");
  await page.getByLabel("Gas volume", { exact: true }).fill("30 L");
  await expect(answer.getByRole("img", { name: /5 readings, down to 7\.40 inH2O gauge/ })).toBeVisible();
  await expect(answer).toContainText(/to 0\.\d+ mm, 95 %/);
  await page.reload();
  await expect(page.getByLabel("Gas volume", { exact: true })).toHaveValue("30 L");
  await button(page, "Use in a job").click();
  await button(page, "Use it there").click();
  await expect(page.getByText("Choose the job it goes into")).toBeVisible();
  await page.getByLabel("Job", { exact: true }).selectOption(job);
  await button(page, "Use it there").click();
  await page.waitForURL(/jobs/);
  await page.getByRole("navigation", { name: "Stations" }).getByRole("button", { name: "Check" }).click();
  await expect(main(page).getByRole("heading", { name: "Pressure decay", level: 2 })).toBeVisible();
  await expect(main(page).getByRole("img", { name: /5 readings, down to 7\.40 inH2O gauge/ })).toBeVisible();
  // It is begun there now: nothing is written over it.
  await page.goto("/reckoner?reckon=decay");
  await button(page, "Use in a job").click();
  await page.getByLabel("Job", { exact: true }).selectOption(job);
  await button(page, "Use it there").click();
  await expect(page.getByText(/There is a pressure decay begun in/)).toBeVisible();
});
