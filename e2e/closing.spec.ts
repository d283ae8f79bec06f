import type { Page } from "@playwright/test";
import { bay, blocks, check, closeAndLook, drive, makes, proveBase, readHere, readIn, repair, rollIn, wait } from "./bay";
import { button, main, pick, station } from "./steps";
import { expect, test } from "./test";

// One job of every family, closed with what its own instruments take off and by the keys that the job itself offers.
test.describe.configure({ mode: "parallel", timeout: 180_000 });

/** Lists what the instrument in hand takes off, where it takes anything off. */
async function listOff(page: Page): Promise<void> {
  const key = button(page, "Removed");
  if ((await key.count()) > 0) await makes(page, "displaced", () => key.click());
}

/** Puts back whatever is listed, seated or let go. */
async function backOn(page: Page): Promise<void> {
  const keys = page.getByRole("complementary", { name: "Ledger" }).getByRole("button", { name: /^(Refitted|Released)/ });
  for (let left = await keys.count(); left > 0; left--) {
    await keys.first().click();
    await expect(keys).toHaveCount(left - 1);
  }
}

/** Whether it came off. */
const tried = (act: Promise<void>): Promise<boolean> =>
  act.then(
    () => true,
    () => false,
  );

/** Opens each check that Prove still asks for, takes it as it is set up, and puts its things back. */
async function payAll(page: Page): Promise<void> {
  for (let round = 0; round < 6; round++) {
    await station(page, "Prove");
    // What is done on this page has a key that leads there: it opens no check.
    const key = blocks(page)
      .getByRole("listitem")
      .getByRole("button", { name: /^(?!Go to )/ })
      .first();
    await expect(main(page).getByRole("heading", { name: "Prove" })).toBeVisible();
    // What was read last may have answered it by the time it is pressed: then the next round looks anew.
    const pressed = (await key.count()) > 0 && (await tried(key.click({ timeout: 5_000 })));
    if (!pressed && (await key.count()) === 0) return;
    if (!pressed) continue;
    // What is put back seated owes no look.
    await expect(main(page).getByRole("heading", { name: "Look and feel" })).toHaveCount(0);
    await listOff(page);
    await readHere(page);
    await backOn(page);
  }
}

async function nights(page: Page): Promise<void> {
  for (let n = 0; n < 6; n++) {
    await station(page, "Prove");
    if (
      (await blocks(page)
        .getByText(/cold starts/)
        .count()) === 0
    )
      return;
    await wait(page, "Overnight");
    await drive(page);
    await makes(page, "codes", () => button(page, "Re-read all modules").click());
  }
}

const FAMILIES = [
  ["a vacuum-worked device", "20G0-8SGH", "Vacuum-worked device", /broken at/, "Vacuum line or reservoir"],
  ["a commanded output", "26G0-0AGA", "Commanded output", /does not answer/, "Purge valve's circuit dead", "Purge valve"],
  ["boost lost to limp mode", "22G0-0G09", "Boost from a log", /falls short/, "Boost solenoid"],
  ["boost under load", "22G0-00GR", "Boost from a log", /leak after the meter/, "Cold pipe"],
  ["a filter", "28G0-00GJ", "Filter pressure", /loaded/, "Particulate filter loaded with soot or ash"],
  ["the exhaust", "20G0-0R03", "Exhaust back pressure", /Too much pressure/, "Catalyst or exhaust blocked"],
  ["secondary air", "3A00-3FY0-0000-00A", "Secondary air", /bubbles/, "Secondary-air hose, joint or split"],
] satisfies readonly (readonly [string, string, string, RegExp, string, string?])[];

for (const [what, code, name, says, place, at] of FAMILIES)
  test(`closed with its displacements: ${what}`, async ({ page }) => {
    await rollIn(page, code);
    await readIn(page);
    await check(page, name, says, async () => {
      if (at) await pick(page, "Part", at);
      await listOff(page);
    });
    await backOn(page);
    await repair(page, place, "Found as the instrument said");
    await proveBase(page);
    await payAll(page);
    await nights(page);
    await expect(bay(page)).toBeVisible();
    await closeAndLook(page);
  });
