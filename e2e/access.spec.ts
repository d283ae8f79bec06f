import type { Locator, Page } from "@playwright/test";
import axe from "axe-core";
import { CARS } from "../demo/cars";
import {
  button,
  INSTRUMENTS,
  idOf,
  instrument,
  leaking,
  logOf,
  main,
  openJob,
  readColumns,
  setConditions,
  signIn,
  startClock,
  TO_PROOF,
} from "./steps";
import { CLOCKED, expect, test } from "./test";

// Each has jobs of its own or writes nothing: they may run side by side.
test.describe.configure({ mode: "parallel" });

/** The demo's own job of a car: other tests open jobs of the same model, never of the same registration. */
const jobOf = async (page: Page, car: keyof typeof CARS): Promise<string> => {
  await page.goto(`/?all=1&q=${encodeURIComponent(CARS[car].facts.registration ?? "")}`);
  const own = page.getByRole("main").getByRole("link").filter({ hasText: CARS[car].facts.registration });
  return (await own.first().getAttribute("href")) as string;
};
/** Everything axe holds against the page as it stands, or a part of it, each with where it was met. */
const violations = async (page: Page, where: string, rules: string[] = [], within = "html"): Promise<string[]> => {
  // Read once a page: it is half a megabyte.
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(axe.source);
  const found = await page.evaluate(
    async ({ within, only }) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(within, {
        resultTypes: ["violations"],
        preload: false,
        ...(only.length > 0 ? { runOnly: only } : {}),
      });
      return violations.map((v) => `${v.id} ${v.nodes[0]?.html}`);
    },
    { within, only: rules },
  );
  return found.map((what) => `${where}: ${what}`);
};
const STATION_KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"];

/** The same in both themes: what changes with the theme is contrast alone. */
async function inBothThemes(page: Page, where: string, within?: string): Promise<string[]> {
  // The title of a page that was just gone to comes with the last of it.
  await expect(page).toHaveTitle(/./);
  const dim = await violations(page, where, [], within);
  await page.evaluate(() => document.documentElement.setAttribute("data-theme", "daylight"));
  const daylight = await violations(page, `${where}, in daylight`, ["color-contrast"], within);
  await page.evaluate(() => document.documentElement.setAttribute("data-theme", "dim"));
  return [...dim, ...daylight];
}

test("no page and no station has an accessibility violation, in either theme, and none moves where that is not wanted", async ({
  page,
}) => {
  await page.addInitScript(() => localStorage.setItem("pelota.theme", "dim"));
  const found: string[] = [];
  await signIn(page, "Wren Alder");
  for (const path of ["/", "/new", "/shop", "/calls", "/what-we-know", "/reckoner?reckon=decay", "/jobs/nowhere"]) {
    await page.goto(path);
    found.push(...(await inBothThemes(page, path)));
  }
  await page.goto(await jobOf(page, "heron"));
  for (const key of STATION_KEYS) {
    await page.keyboard.press(key);
    found.push(...(await inBothThemes(page, `station ${key}`, key === "1" ? undefined : "main")));
    expect(await page.evaluate(() => document.getAnimations().length), `station ${key}`).toBe(0);
  }
  expect(found).toEqual([]);
});

test("nothing that opens on a page has an accessibility violation, in either theme", async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem("pelota.theme", "dim"));
  const found: string[] = [];
  await signIn(page, "Wren Alder");
  await page.goto(await jobOf(page, "merle"));
  await page.keyboard.press("5");
  await instrument(page, "Fuel-trim survey");
  await page.getByLabel("Scan-tool log").setInputFiles(logOf(leaking));
  found.push(...(await inBothThemes(page, "columns", "main")));
  await readColumns(page);
  await expect(main(page).getByText(/rows over/)).toBeVisible();
  found.push(...(await inBothThemes(page, "survey", "main")));
  await instrument(page, "Smoke run");
  found.push(...(await inBothThemes(page, "smoke setup", "main")));
  await page.getByRole("button", { name: /^Manifold:/ }).click();
  found.push(...(await inBothThemes(page, "zone sheet")));
  await page.keyboard.press("Escape");
  await button(page, "Journal").click();
  found.push(...(await inBothThemes(page, "journal")));
  await page.goto(`${await jobOf(page, "siskin")}/handover`);
  found.push(...(await inBothThemes(page, "handover page")));
  expect(found).toEqual([]);
});

test("no instrument has an accessibility violation; on desk and phone it has the room, and its keys are in sight", async ({
  page,
}) => {
  test.slow();
  await signIn(page, "Wren Alder");
  await page.goto(await jobOf(page, "redshank"));
  await page.keyboard.press("6");
  const strip = page.getByRole("region", { name: "Air map" });
  expect((await strip.boundingBox())?.height).toBeGreaterThan(200);
  await page.keyboard.press("5");
  const found: string[] = [];
  for (const name of ["Smoke run", "Fuel-trim survey", ...INSTRUMENTS]) {
    await instrument(page, name);
    // The frame around it is the same for all, and was looked at with the stations.
    found.push(...(await violations(page, name, [], "main")));
    const refused = await main(page).getByText("says nothing on this vehicle").count();
    for (const size of [
      { width: 390, height: 844 },
      { width: 1280, height: 800 },
    ]) {
      await page.setViewportSize(size);
      await page.evaluate(() => scrollTo(0, 0));
      const width = await page.evaluate(() => document.documentElement.scrollWidth);
      if (width > size.width) found.push(`${name} is ${width} px wide on ${size.width}`);
      if (((await strip.boundingBox())?.height ?? 0) > 90) found.push(`${name} leaves its room to the map at ${size.width}`);
      // A run that is set up first has its keys once it goes.
      if (refused || name === "Smoke run" || name === "EVAP smoke") continue;
      // They change sides with the width.
      await expect
        .poll(
          async () => {
            const key = await page.getByRole("button", { name: "Record the check" }).first().boundingBox();
            return key !== null && key.y >= 0 && key.y + key.height <= size.height;
          },
          { message: `${name}: keys in sight at ${size.width}` },
        )
        .toBe(true);
    }
  }
  await button(page, "Another instrument").click();
  found.push(...(await violations(page, "shelf")));
  await page.keyboard.press("Escape");
  await button(page, "Whole map").click();
  expect((await strip.boundingBox())?.height).toBeGreaterThan(200);
  await button(page, "Small map").click();
  expect((await strip.boundingBox())?.height).toBeLessThan(90);
  expect(found).toEqual([]);
});

test("the monitor's plan and codes with their criteria are sound on desk and phone, clocks and theme as drawn", async ({
  page,
}) => {
  await signIn(page, "Wren Alder");
  await page.goto(await jobOf(page, "wigeon"));
  // A page with running clocks comes to life as the server drew it: its theme stays.
  await expect(page.getByRole("timer").first()).toHaveText(/\d:\d\d/);
  await expect(page.locator("html")).toHaveAttribute("data-theme", /^(dim|daylight)$/);
  const found: string[] = [];
  for (const [key, name] of [
    ["2", "codes with their criteria"],
    ["8", "the monitor's plan"],
  ] as const) {
    await page.keyboard.press(key);
    found.push(...(await violations(page, name, [], "main")));
    await page.setViewportSize({ width: 390, height: 844 });
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    if (width > 390) found.push(`${name} is ${width} px wide on a phone`);
    await page.setViewportSize({ width: 1280, height: 800 });
  }
  expect(found).toEqual([]);
});

test("on a phone nothing is cut off sideways and every target is large enough", async ({ newDevice }) => {
  const context = await newDevice({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  await signIn(page, "Wren Alder");
  const check = async (where: string) => {
    expect(await page.evaluate(() => document.documentElement.scrollWidth), where).toBeLessThanOrEqual(390);
    const small = await page.evaluate(() =>
      [
        ...document.querySelectorAll<HTMLElement>(
          "button, a, select, summary, input:not([type=checkbox]):not([tabindex='-1']), label:has(input[type=checkbox])",
        ),
      ]
        .filter(
          (e) => e.offsetParent !== null && !e.closest("label:has(input[type=checkbox])")?.contains(e.querySelector("input")),
        )
        .map((e) => ({ box: e.getBoundingClientRect(), html: e.outerHTML.slice(0, 120) }))
        // What is there for readers of the screen alone is no target.
        .filter(({ box }) => box.width > 1 && box.height < 43.5)
        .map(({ html, box }) => `${box.height} ${html}`),
    );
    expect(small, where).toEqual([]);
  };
  for (const path of ["/", "/new", "/shop", "/calls", "/what-we-know", "/reckoner"]) {
    await page.goto(path);
    await check(path);
  }
  await page.goto(await jobOf(page, "petrel"));
  for (const key of STATION_KEYS) {
    await page.keyboard.press(key);
    await check(`station ${key}`);
  }
});

test("the keyboard alone reaches everything, and its keys can be given others", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await page.goto(await jobOf(page, "petrel"));
  await page.keyboard.press("4");
  await expect(main(page).getByRole("heading", { name: "Suspects" })).toBeVisible();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await button(page, "Change the key of: Open Suspects").click();
  await page.keyboard.press("x");
  await page.keyboard.press("Escape");
  await page.keyboard.press("1");
  await expect(main(page).getByRole("heading", { name: "Story" })).toBeVisible();
  await page.keyboard.press("4");
  await expect(main(page).getByRole("heading", { name: "Story" })).toBeVisible();
  await page.keyboard.press("x");
  await expect(main(page).getByRole("heading", { name: "Suspects" })).toBeVisible();
  await page.keyboard.press("?");
  await button(page, "Back to the usual keys").click();
  await page.keyboard.press("Escape");

  // A zone of the map, by Tab and Enter alone.
  const zone = page.getByRole("button", { name: /^Manifold:/ });
  for (let i = 0; i < 60 && !(await zone.evaluate((e) => e === document.activeElement)); i++) await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: "Manifold" })).toBeVisible();
  await page.keyboard.press("Escape");

  // Typing in a field opens no station.
  await page.keyboard.press("6");
  await page.getByLabel("What was found").fill("");
  await page.getByLabel("What was found").press("3");
  await expect(main(page).getByRole("heading", { name: "Find" })).toBeVisible();
});

test("a check, what it found and its repair are recorded by the keyboard alone, in under 40 stops", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Smells of fuel", "FW 90 KEY");
  await setConditions(page);
  await page.goto(`/jobs/${idOf(page)}?check=cap`);
  await expect(main(page).getByRole("heading", { name: "Filler cap" })).toBeVisible();
  let stops = 0;
  const key = async (name: string) => {
    stops++;
    await page.keyboard.press(name);
  };
  const to = async (field: Locator) => {
    for (let i = 0; i < 40 && !(await field.evaluate((e) => e === document.activeElement)); i++) await key("Tab");
    await expect(field).toBeFocused();
  };
  await to(page.getByRole("link", { name: "To the work" }));
  await key("Enter");
  for (const [name, text] of [
    ["Put on it, inH2O gauge", "30"],
    ["Left, inH2O gauge", "12"],
  ] as const) {
    await to(main(page).getByRole("textbox", { name }));
    await page.keyboard.type(text);
  }
  await to(page.getByRole("radio", { name: "Whole" }));
  await key("ArrowRight");
  await to(page.getByRole("radio", { name: "Held by itself" }));
  await key(" ");
  await key("Control+Enter");
  await expect(page.getByRole("region", { name: "Filler cap, so far" })).toBeVisible();
  await key("6");
  await expect(main(page).getByRole("heading", { name: "Find" })).toBeFocused();
  await to(page.getByRole("textbox", { name: "What was found" }));
  await page.keyboard.type("cap seal cracked");
  await key("Control+Enter");
  await expect(main(page).getByText("not repaired yet")).toBeVisible();
  await key("7");
  await expect(main(page).getByRole("heading", { name: "Fix" })).toBeFocused();
  await to(page.getByRole("textbox", { name: "What was done" }));
  await page.keyboard.type("cap renewed");
  await to(page.getByRole("textbox", { name: "Parts, one a line" }));
  await page.keyboard.type("1 filler cap");
  await key("Control+Enter");
  await expect(main(page).getByText("Permanent · 1 × filler cap")).toBeVisible();
  expect(stops).toBeLessThan(40);
});

test("a run takes its readings by Space and marks smoke by its key", CLOCKED, async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
  await page.goto(await jobOf(page, "petrel"));
  await page.keyboard.press("5");
  await instrument(page, "Smoke run");
  await page.getByRole("radio", { name: "Stand at zero" }).click();
  await button(page, TO_PROOF).click();
  await button(page, "Start now, prove it after the run").click();
  await expect(page.getByRole("slider", { name: /Flow ball/ })).toBeVisible();
  for (let i = 0; i < 3; i++) {
    await page.clock.fastForward(2000);
    await page.keyboard.press(" ");
  }
  await expect(main(page).getByText("3 readings; every move is one.")).toBeVisible();
  await page.keyboard.press("s");
  await expect(page.getByRole("dialog", { name: "Where do you see smoke?" })).toBeVisible();
});

test("no practice page has an accessibility violation, in either theme", async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem("pelota.theme", "dim"));
  const found: string[] = [];
  await signIn(page, "Wren Alder");
  await page.goto("/practice");
  await button(page, "Compose a case").click();
  await expect(page.getByLabel("What is wrong")).toBeVisible();
  found.push(...(await inBothThemes(page, "practice bays")));
  await page.getByLabel("The case's code").fill("3400-3FY0-0000-00P");
  await button(page, "Play this code").click();
  await expect(page.getByRole("heading", { name: /^Practice \d+$/ })).toBeVisible();
  found.push(...(await inBothThemes(page, "practice bench")));
  await button(page, "Skip a wait").click();
  found.push(...(await inBothThemes(page, "waits", "[role=dialog]")));
  await page.keyboard.press("Escape");
  await button(page, "End").click();
  await button(page, "End it").click();
  await expect(main(page).getByText("Next time:")).toBeVisible();
  found.push(...(await inBothThemes(page, "debrief", "main")));
  expect(found).toEqual([]);
});
