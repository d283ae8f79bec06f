import { expect, type Locator, type Page } from "@playwright/test";
import { v4 as uuid } from "uuid";
import type { Bodies, Kept } from "@/core/journal";
import { doorProof, type Role, SIGN_IN_HEADER, type SignedIn, signed } from "@/core/people";
import { CARS, type DemoCar, repaired } from "../demo/cars";
import { recordDrive, writeLog } from "../demo/drive";
import type { HiddenEngine } from "../demo/engine";
import { DEMO_PIN } from "../demo/pin.mjs";
import { installClock } from "./test";

/** The car under test: a made-up one whose hole the test knows. */
export const TRUE_HOLE = 2.2e-3;
const car: DemoCar = { ...CARS.petrel, id: "test-car", seed: 77 };
export const leaking: HiddenEngine = { ...car.engine, hole: TRUE_HOLE };
export const sound: HiddenEngine = repaired(car.engine);

export const logOf = (engine: HiddenEngine, seed = 77) => ({
  name: "drive.csv",
  mimeType: "text/csv",
  buffer: Buffer.from(writeLog(recordDrive(engine, seed), "comma", false)),
});

export const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: typeof name === "string" });
export const station = (page: Page, name: string) =>
  page.getByRole("navigation", { name: "Stations" }).getByRole("button", { name }).click();
/** Every instrument that stands in the common frame, and EVAP smoke. */
export const INSTRUMENTS = [
  "Enrichment probe",
  "Intake vacuum",
  "Airflow",
  "Crankcase pressure",
  "Pinch or cap off",
  "Hold test",
  "Valve, two states",
  "Borescope",
  "Commanded output",
  "Circuit, pin by pin",
  "Vacuum-worked device",
  "EVAP smoke",
  "Pressure decay",
  "Pull-down trace",
  "Vent path",
  "Filler cap",
  "Tank-pressure sensor",
];

/** An instrument on the shelf, with what it is for beside its name. */
export const onShelf = (page: Page, name: string) =>
  page
    .getByRole("dialog")
    .getByRole("button")
    .filter({ has: page.getByText(name, { exact: true }) });

/** Takes an instrument off the shelf, unless it is in hand already. */
export async function instrument(page: Page, name: string): Promise<void> {
  await expect(page.getByRole("button", { name: "Another instrument" })).toBeVisible();
  if ((await main(page).getByRole("heading", { name, exact: true, level: 2 }).count()) > 0) return;
  await page.getByRole("button", { name: "Another instrument" }).click();
  await onShelf(page, name).click();
  await expect(main(page).getByRole("heading", { name, exact: true, level: 2 })).toBeVisible();
}
/** The job a page shows. */
export const idOf = (page: Page) => page.url().split("/").pop() as string;
export const map = (page: Page) => page.getByRole("region", { name: "Air map" });
/** Picks one of a list, pulled down or in its keys, by its name or id; an open list shows eight at a time. */
export async function pick(scope: Page | Locator, label: string, wanted: string): Promise<void> {
  const field = scope.getByRole("group", { name: label, exact: true });
  const list = scope.getByRole("combobox", { name: label, exact: true });
  await expect(field.or(list)).toBeVisible();
  if ((await list.count()) > 0) return void (await list.selectOption(wanted));
  const key = field
    .locator(`[data-id="${wanted}"]`)
    .or(field.getByRole("button", { name: wanted, exact: true }).and(field.locator("[data-id]")));
  const search = field.getByRole("searchbox");
  if ((await search.count()) === 0) await field.getByRole("button").first().click();
  // An id is found by the words it is made of.
  await search.fill(wanted.replaceAll("-", " "));
  await key.first().click();
}

/** Reads a log that was picked: at once where its columns were decided on before, else by the key below them. */
export async function readColumns(page: Page): Promise<void> {
  const key = button(page, "Read the log with these columns");
  await expect(button(page, "Choose another log")).toBeVisible();
  if (await key.isVisible()) await key.click();
  await expect(key).toHaveCount(0);
}

/** The key of a panel that drops from it. */
export const panel = (page: Page, name: string) => page.locator("summary").filter({ hasText: name });
export const main = (page: Page) => page.getByRole("main", { name: "Now" });

/** Starts the page's own clock some hours ago, so that a test may let them pass without running ahead of the server. */
export async function startClock(page: Page, hoursAgo = 2): Promise<void> {
  await installClock(page, new Date(Date.now() - hoursAgo * 3600_000));
}

/** Sign-ins of this worker, by server and name, and who leads each shop; a worker tries one test after the other. */
const signIns = new Map<string, SignedIn>();
const leads = new Map<string, string>();

async function givePin(page: Page, person: string): Promise<SignedIn> {
  const answer = await page.request.post("/api/v1/sign-in", { data: { person, pin: DEMO_PIN } });
  expect(answer.ok(), await answer.text()).toBe(true);
  return answer.json();
}

/** Signs a person in at the server's door; a shop without a lead gets its first, one that nobody knows is taken in by the lead. */
export async function inAs(page: Page, name: string, role: Role = "lead"): Promise<SignedIn> {
  const ask = await page.request.get("/api/v1/sign-in");
  const { origin } = new URL(ask.url());
  const { people, lead } = (await ask.json()) as { people: { id: string; name: string }[]; lead: boolean };
  const known = signIns.get(`${origin} ${name}`);
  // At this address another shop may have been before.
  if (known && people.some((p) => p.id === known.personId)) return known;
  let id = people.find((p) => p.name === name)?.id;
  if (!id && lead) {
    const taking = await inAs(page, people.find((p) => p.name === leads.get(origin))?.name ?? "Maren Oake");
    const taken = await page.request.post("/api/v1/people", { data: { name, role, pin: DEMO_PIN }, headers: proofOf(taking) });
    // Another worker may have been quicker: the name is there, which is all that is wanted.
    if (!taken.ok()) return inAs(page, name, role);
    id = ((await taken.json()) as { id: string }).id;
  } else if (!id) {
    const data = { shop: "Tested shop", lead: { name, pin: DEMO_PIN }, people: [] };
    const begun = await page.request.post("/api/v1/first-start", { data });
    expect(begun.ok(), await begun.text()).toBe(true);
    leads.set(origin, name);
    id = ((await begun.json()) as { personId: string }).personId;
  }
  const made = await givePin(page, id);
  signIns.set(`${origin} ${name}`, made);
  return made;
}
const proofOf = ({ signIn, key }: SignedIn) => ({ [SIGN_IN_HEADER]: doorProof(signIn, key) });

/** The device knows who is in from the start, and does not lock itself, however far a test winds its clock. */
export async function signIn(page: Page, name: string, role: Role = "lead"): Promise<void> {
  const made = await inAs(page, name, role);
  await page.addInitScript((here) => {
    localStorage.setItem("pelota.signedIn", JSON.stringify({ ...here, until: 1e15 }));
    localStorage.setItem("pelota.roles", JSON.stringify({ [here.signIn]: here.role }));
    localStorage.setItem("pelota.lockAfter", "1e15");
  }, made);
}

/** Signs in by hand: by name and PIN, on the keys of the pad. */
export async function enterPin(page: Page, name: string, pin: string): Promise<void> {
  const dialog = page.getByRole("dialog", { name: "Who is working?" });
  if ((await dialog.count()) === 0) await page.getByRole("banner").getByRole("button").and(page.locator("[data-person]")).click();
  await dialog.getByRole("button", { name: new RegExp(`^${name}`) }).click();
  for (const digit of pin) await dialog.getByRole("button", { name: digit, exact: true }).click();
  await dialog.getByRole("button", { name: "Sign in", exact: true }).click();
}

/** Signs what a test posts by itself, as the pages do. */
export const signedBy = <T extends object>({ signIn, key }: SignedIn, made: T): T => signed(made, signIn, key);

/** What a new job does not take for granted: induction, metering, banks and what is fitted. */
export async function describeEngine(page: Page, induction: "Naturally aspirated" | "Turbo"): Promise<void> {
  for (const name of [induction, "Air meter (MAF)", "One bank"]) await page.getByRole("radio", { name }).click();
  for (const name of ["Brake booster", "Crankcase ventilation", "EVAP"])
    await page.getByRole("toolbar", { name: "Fitted systems" }).getByRole("button", { name, exact: true }).click();
  await page.getByLabel("That is what is fitted, and no more").check();
}

/** Opens a job through the screens, as a technician does. */
export async function openJobByHand(page: Page, complaint: string, registration: string): Promise<void> {
  await page.goto("/new");
  await page.getByLabel("Complaint, in the customer's words").fill(complaint);
  await page.getByText("More about the car").click();
  await page.getByLabel("Make", { exact: true }).fill("Ondrell");
  await page.getByLabel("Model", { exact: true }).fill("Petrel 1.6");
  await page.getByLabel("Model year").fill("2014");
  await page.getByLabel("Registration").fill(registration);
  await page.getByLabel("Engine displacement", { exact: true }).fill("1,6 L");
  await describeEngine(page, "Naturally aspirated");
  await button(page, "Open the job").click();
  await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
}

/** What was recorded half an hour after what stands before it. */
export type Later = { [K in keyof Bodies]: readonly [kind: K, body: Bodies[K]] }[keyof Bodies];

/** A job with its first entries, written by a device of its own; where it lies. */
async function seedJob(
  page: Page,
  bodies: Partial<Bodies>,
  device: string,
  hoursAgo: number,
  later: readonly Later[] = [],
): Promise<string> {
  const wren = await inAs(page, "Wren Alder");
  const jobId = uuid();
  const begun = Date.now() - hoursAgo * 3600_000;
  const line = (deviceSeq: number, halfHours = 0) => {
    const at = new Date(begun + halfHours * 1800_000).toISOString();
    return { id: uuid(), jobId, at, by: "Wren Alder", device, deviceSeq };
  };
  const opened = await page.request.post("/api/v1/jobs", { data: signedBy(wren, line(0)) });
  expect(opened.ok(), await opened.text()).toBe(true);
  const first = Object.entries(bodies).map(([kind, body]) => [kind, body, 0] as const);
  const entries = [...first, ...later.map(([kind, body], i) => [kind, body, i + 1] as const)].map(([kind, body, halfHours], i) =>
    signedBy(wren, { ...line(i + 1, halfHours), kind, v: 1, seenSeq: 1, body }),
  );
  const written = await page.request.post(`/api/v1/jobs/${jobId}/entries`, { data: entries });
  expect(written.ok(), await written.text()).toBe(true);
  await page.goto(`/jobs/${jobId}`);
  // The page's frame stands before the journal is here; only with it can a test cut the line.
  await expect(page.getByRole("navigation", { name: "Stations" })).toBeVisible();
  return jobId;
}

/** Opens a job with a car and a complaint; the form for it is tried where that is what is tried. */
export async function openJob(page: Page, complaint: string, registration: string): Promise<void> {
  const vehicle: Bodies["vehicle"] = {
    make: "Ondrell",
    model: "Petrel 1.6",
    year: 2014,
    registration,
    fuel: "petrol",
    displacement: { value: 1.6, unit: "L" },
    induction: "natural",
    metering: "maf",
    banks: 1,
    fitted: ["booster", "pcv", "evap"],
  };
  await seedJob(page, { vehicle, story: { complaint, symptoms: [], verified: "not-tried" } }, `seed ${uuid()}`, 24);
}

/** Opens a job on one of the demo's cars as its story begins: vehicle, complaint, conditions and codes are in already. */
export async function openOn(
  page: Page,
  car: DemoCar,
  story: Partial<Bodies["story"]>,
  codes: readonly (string | Bodies["codes"]["codes"][number])[],
  hoursAgo = 3,
  later: readonly Later[] = [],
): Promise<string> {
  // What is posted here and what the page records come from one device with one clock, far behind the server's.
  await page.addInitScript(() => {
    localStorage.setItem("pelota.device", JSON.stringify("test"));
    localStorage.setItem("pelota.deviceSeq", "1000");
  });
  const bodies: Partial<Bodies> = {
    vehicle: { ...car.facts, registration: `${car.facts.registration?.slice(0, 6)}${uuid().slice(0, 3).toUpperCase()}` },
    story: { complaint: "As the owner tells it", symptoms: [], verified: "seen", ...story },
    conditions: {
      ambient: { value: 1006, unit: "hPa", kind: "absolute" },
      bayTemperature: { value: 17, unit: "°C" },
      engine: "warm",
    },
    codes: { codes: codes.map((code) => (typeof code === "string" ? { code, status: "current" } : code)) },
  };
  return seedJob(page, bodies, "test", hoursAgo, later);
}

export async function setConditions(page: Page): Promise<void> {
  await button(page, "Set conditions").click();
  await page.getByLabel("Ambient pressure, absolute", { exact: true }).fill("1006 hPa");
  await page.getByLabel("Bay temperature", { exact: true }).fill("17");
  await button(page, "Record conditions").click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
}

export async function survey(page: Page, engine: HiddenEngine, seed = 77): Promise<void> {
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  await page.getByLabel("Scan-tool log").setInputFiles(logOf(engine, seed));
  await readColumns(page);
  await expect(main(page).getByText(/rows over/)).toBeVisible();
}

export const soFar = (page: Page) => page.getByRole("region", { name: "Verdict so far" });
export const field = (page: Page, name: string | RegExp) =>
  main(page).getByRole("textbox", { name, exact: typeof name === "string" });
export const record = async (page: Page, check: string, word: string) => {
  await button(page, "Record the check").click();
  await expect(
    page
      .getByRole("region", { name: `${check}, so far` })
      .getByText(word, { exact: true })
      .first(),
  ).toBeVisible();
};
/** Records a run that has ended, and waits until the bench has moved up into the room that it took. */
export async function recordRun(page: Page): Promise<void> {
  const key = button(page, "Record the run");
  await key.click();
  await expect(key).toHaveCount(0);
}
export const topSuspect = async (page: Page, name: string) => {
  await station(page, "Suspects");
  await expect(main(page).getByRole("listitem").first()).toContainText(name);
};
export async function finding(page: Page, where: string, what: string, confirmed = true): Promise<void> {
  await station(page, "Find");
  await pick(page, "Where", where);
  await page.getByLabel("What was found").fill(what);
  if (confirmed) await page.getByLabel("Confirmed", { exact: true }).selectOption("capped-off");
  await button(page, "Record the finding").click();
  // In the list, not in the field it was typed into: until then a repair has no finding to answer.
  await expect(main(page).getByRole("listitem").filter({ hasText: what })).toBeVisible();
}
export interface SmokePlay {
  proof?: string;
  /** Ball readings to settle at, L/min, one every few seconds */
  settleAt: number;
  seenAt?: string;
  arrivals?: string[];
  /** Let this long pass before the run ends, s */
  linger?: number;
  /** Where smoke goes in; the air meter unless said, as it is set up already when empty */
  entry?: string;
  /** What else happens while the run goes on */
  meanwhile?: () => Promise<void>;
  /** On the vapour system: fuel level in percent; the vent is plugged by hand */
  fuelLevel?: string;
  /** The port lets nothing in: ball down and gauge up at once */
  shutPort?: boolean;
}

/** Puts the ball at a height of its 12 L/min tube with one touch, as a finger does. */
async function dragBall(ball: Locator, litres: number): Promise<void> {
  const box = await ball.boundingBox();
  if (!box) throw new Error("the ball is not on the screen");
  const [top, bottom, whole] = [24, 300, 332];
  await ball.click({ position: { x: box.width / 3, y: ((bottom - ((bottom - top) * litres) / 12) / whole) * box.height } });
}

/** The key from the set-up to the machine's proof, where one of the session would serve or none was taken yet. */
export const TO_PROOF = /^(Heater on, to the machine proof|Prove the machine again)$/;

/** Set up and proved, the hose goes on. */
export async function hoseOn(page: Page, play: Pick<SmokePlay, "entry" | "fuelLevel" | "proof"> = {}): Promise<void> {
  await station(page, "Check");
  const vapour = play.fuelLevel !== undefined;
  await instrument(page, vapour ? "EVAP smoke" : "Smoke run");
  if (play.entry !== "") await pick(page, "Let smoke in at", play.entry ?? (vapour ? "service-port" : "air-meter"));
  if (play.fuelLevel) {
    await page.getByRole("radio", { name: "A plug by hand" }).click();
    await page.getByLabel("Fuel level, % of the tank").fill(play.fuelLevel);
  }
  await page.getByRole("radio", { name: "Stand at zero" }).click();
  // One proof serves the session, unless another is asked for.
  const proved = button(page, /^Hose on: proved at/);
  if (!play.proof && (await proved.count()) > 0) return proved.click();
  await button(page, TO_PROOF).click();
  await page.getByLabel("Pressure with the hose clamped", { exact: true }).fill(play.proof ?? "12.6 inH2O");
  await page.getByRole("radio", { name: "Sat at the bottom" }).click();
  await page.getByRole("radio", { name: "Came" }).click();
  await button(page, "Hose on: start the run").click();
}

/** A smoke run played through: setup, machine proof, ball following an approach to its settled height, then what was seen. */
export async function smoke(page: Page, play: SmokePlay): Promise<void> {
  await hoseOn(page, play);
  const replaced = await watchKeys(page);
  const ball = page.getByRole("slider", { name: /Flow ball/ });
  const gauge = page.getByLabel("Pressure", { exact: true });
  if (play.shutPort) {
    await gauge.fill("12.4");
    await dragBall(ball, 0);
    for (let i = 0; i < 4; i++) {
      await page.clock.fastForward(6000);
      await button(page, "Take reading").click();
    }
  }
  for (let i = 0; i < (play.shutPort ? 0 : 6); i++) {
    await page.clock.fastForward(10_000);
    const rush = Math.exp(-i / 0.9);
    if (i < 3) await gauge.fill(String((12.4 * (1 - rush)).toFixed(2)));
    await dragBall(ball, play.settleAt + (12 - play.settleAt) * rush);
    // The ball's own move is a reading; the key is for a ball that stands still.
    if (i === 0) await button(page, "Take reading").click();
  }
  for (const zone of play.arrivals ?? []) {
    await page.getByRole("button", { name: zone, exact: true }).and(page.locator("[data-state]")).click();
    await page.clock.fastForward(2000);
  }
  await play.meanwhile?.();
  if (play.linger) await page.clock.fastForward(play.linger * 1000);
  expect(await replaced()).toEqual([]);
  if (play.seenAt) {
    await button(page, "I see smoke: mark it").click();
    await page.getByRole("dialog").getByRole("button", { name: play.seenAt, exact: true }).click();
    await button(page, "End the run").click();
  } else await button(page, "Looked everywhere: none outside").click();
}

/** Cleared, driven for half an hour, and every module read again without a code. */
export async function driveAndRead(page: Page): Promise<void> {
  await page.clock.fastForward(30 * 60_000);
  await page.getByLabel("Driven, minutes").fill("25");
  await button(page, "Record the drive").click();
  await expect(main(page).getByText(/^Driven 25 min/)).toBeVisible();
  await button(page, "All modules re-read: no codes").click();
}

export async function putEverythingBack(page: Page): Promise<void> {
  const back = page.getByRole("complementary", { name: "Ledger" }).getByRole("button", { name: /^Refitted/ });
  for (let left = await back.count(); left > 0; left--) {
    await back.first().click();
    await expect(back).toHaveCount(left - 1);
  }
}

/** What this device keeps until the server has it for sure. */
export const keptOn = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<Kept[]>((done, fail) => {
        const open = indexedDB.open("pelota");
        open.onerror = () => fail(open.error);
        open.onsuccess = () => {
          const all = open.result.transaction("kept").objectStore("kept").getAll();
          all.onsuccess = () => {
            open.result.close();
            done(all.result);
          };
        };
      }),
  );

/**
 * Watches from now on whether a key is made anew under a finger: one that leaves the page while another of the same name comes.
 * A tap that began on the one and ends on the other is none.
 */
export async function watchKeys(page: Page): Promise<() => Promise<string[]>> {
  await page.evaluate(() => {
    const keys = "button, a[href], [role=radio], [role=slider]";
    const within = (node: Node) =>
      node instanceof Element ? [...(node.matches(keys) ? [node] : []), ...node.querySelectorAll(keys)] : [];
    const name = (key: Element) => `${key.tagName} ${key.getAttribute("aria-label") ?? key.textContent ?? ""}`;
    const replaced: string[] = [];
    new MutationObserver((changes) => {
      const came = new Set(changes.flatMap((c) => [...c.addedNodes].flatMap(within)).filter((key) => key.isConnected));
      for (const key of changes.flatMap((c) => [...c.removedNodes].flatMap(within)))
        if (!key.isConnected && [...came].some((one) => name(one) === name(key))) replaced.push(name(key));
    }).observe(document.body, { childList: true, subtree: true });
    Object.assign(window, { replaced });
  });
  return () => page.evaluate(() => [...new Set(Reflect.get(window, "replaced") as string[])]);
}
