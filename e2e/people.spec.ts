import { readFileSync } from "node:fs";
import { get as httpsGet } from "node:https";
import { networkInterfaces } from "node:os";
import type { Page } from "@playwright/test";
import { v4 as uuid } from "uuid";
import type { Entry, JournalEntry } from "@/core/journal";
import { proved } from "@/core/journal/journal.fixture";
import { doorProof, SIGN_IN_HEADER } from "@/core/people";
import { DEMO_PIN } from "../demo/pin.mjs";
import { button, enterPin, idOf, inAs, keptOn, main, openJob, pick, signedBy, signIn, station } from "./steps";
import { CLOCKED, expect, installClock, test } from "./test";

const who = (page: Page) => page.locator("[data-person]");
const dialog = (page: Page) => page.getByRole("dialog", { name: "Who is working?" });
const entriesOf = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/v1/jobs/${id}/entries`)).json()) as JournalEntry[];

/** A job that an apprentice has repaired and measured, all but signed; where it lies. */
async function repairedByIsla(page: Page): Promise<string> {
  const isla = await inAs(page, "Isla Renn", "apprentice");
  const { job } = proved();
  const jobId = uuid();
  const fresh = new Map(job.entries.map((e) => [e.id, uuid()]));
  let text = JSON.stringify(job.entries);
  for (const [old, made] of fresh) text = text.replaceAll(old, made);
  const device = `seed ${uuid()}`;
  const [opened, ...rest] = (JSON.parse(text) as JournalEntry[]).map(({ seq: _, recordedAt: __, ...e }) => ({
    ...e,
    jobId,
    device,
  }));
  const { kind: _, v: __, seenSeq: ___, body: ____, ...opening } = opened as Entry;
  expect((await page.request.post("/api/v1/jobs", { data: signedBy(isla, opening) })).ok()).toBe(true);
  const written = await page.request.post(`/api/v1/jobs/${jobId}/entries`, { data: rest.map((e) => signedBy(isla, e)) });
  expect(written.ok(), await written.text()).toBe(true);
  return jobId;
}

test("whoever works here signs in with a PIN; wrong ones are counted, and the tablet is locked and handed over", async ({
  page,
}) => {
  await page.goto("/");
  await expect(who(page)).toHaveText("Sign in");
  await enterPin(page, "Tobin Falk", "1357");
  await expect(dialog(page).getByRole("alert")).toContainText(/not the PIN of Tobin Falk/);
  await dialog(page).getByLabel("PIN of Tobin Falk").fill(DEMO_PIN);
  await page.keyboard.press("Enter");
  await expect(dialog(page)).toHaveCount(0);
  await expect(who(page)).toHaveText("Tobin Falk");
  // Who was in stays so on the next page; handed over to a colleague it is hers.
  await page.goto("/shop");
  await expect(who(page)).toHaveText("Tobin Falk");
  await expect(page.getByRole("region", { name: "People" }).getByText(/Only a lead adds people/)).toBeVisible();
  await enterPin(page, "Isla Renn", DEMO_PIN);
  await expect(who(page)).toHaveText("Isla Renn");
  await who(page).click();
  await button(page, "Lock").click();
  await expect(who(page)).toHaveText("Sign in");
  await page.reload();
  await expect(who(page)).toHaveText("Sign in");
});

test("a tablet that lies about locks itself; what was typed is there for who unlocks it", CLOCKED, async ({ page }) => {
  await installClock(page);
  await page.goto("/");
  await enterPin(page, "Tobin Falk", DEMO_PIN);
  await expect(who(page)).toHaveText("Tobin Falk");
  await openJob(page, "Hiss", "FW 15 LCK");
  await station(page, "Find");
  await page.getByLabel("What was found").fill("Oil cap seal hard");
  await page.clock.fastForward(11 * 60_000);
  await expect(who(page)).toHaveText("Sign in");
  await expect(page.getByLabel("What was found")).toHaveValue("Oil cap seal hard");
  await pick(page, "Where", "Oil cap");
  await button(page, "Record the finding").click();
  await enterPin(page, "Isla Renn", DEMO_PIN);
  await button(page, "Record the finding").click();
  await expect(main(page).getByText("Oil cap seal hard", { exact: false }).first()).toBeVisible();
  const found = async () => (await entriesOf(page, idOf(page))).filter((e) => e.kind === "finding").map((e) => [e.by, e.role]);
  await expect.poll(found).toEqual([["Isla Renn", "apprentice"]]);
});

test("an apprentice records and asks, a lead signs, countersigns and closes", async ({ newDevice, page: board }) => {
  const id = await repairedByIsla(board);
  const [hers, leads] = [await newDevice(), await newDevice()];
  const [isla, maren] = [await hers.newPage(), await leads.newPage()];
  await signIn(isla, "Isla Renn", "apprentice");
  await signIn(maren, "Maren Oake");
  await isla.goto(`/jobs/${id}`);
  await station(isla, "Prove");
  await expect(main(isla).getByText(/Have a technician or a lead look at it and sign: .*by Isla Renn/)).toBeVisible();
  await station(isla, "Fix");
  await expect(main(isla).getByText("A technician or a lead looks at it and signs.", { exact: false })).toBeVisible();
  await expect(button(isla, "Sign it as permanent")).toHaveCount(0);
  // Not proved to the end, so only a lead may let the car go.
  await station(isla, "Hand over");
  await expect(main(isla).getByText(/Only a lead signs a conditional handover/)).toBeVisible();
  await expect(button(isla, "Hand over conditionally")).toBeDisabled();

  await board.goto("/");
  const lane = board.getByRole("region", { name: "Waiting for the lead's signature" });
  await expect(lane.locator(`a[href="/jobs/${id}"]`)).toBeVisible();
  await maren.goto(`/jobs/${id}`);
  await station(maren, "Fix");
  await button(maren, "Sign it as permanent").click();
  await expect(button(maren, "Sign it as permanent")).toHaveCount(0);

  await expect(main(isla).getByText("The repair is proved. This is a full handover.")).toBeVisible();
  await isla.getByLabel("What the customer should know").fill("Found, renewed and measured.");
  await button(isla, "Hand over").click();
  await button(isla, "Ask a lead to close it").click();
  await expect(main(isla).getByText("A lead looks through it and countersigns.")).toBeVisible();
  await board.reload();
  await expect(lane.locator(`a[href="/jobs/${id}"]`)).toBeVisible();

  // Sent back with a word, asked again, countersigned.
  await station(maren, "Hand over");
  await maren.getByLabel("Or what is still to be done").fill("Show me the clamps");
  await button(maren, "Send it back").click();
  await expect(
    main(isla).getByText("Maren Oake did not countersign what Isla Renn asked to close: Show me the clamps"),
  ).toBeVisible();
  await button(isla, "Ask a lead to close it").click();
  await button(maren, "Countersign and close").click();
  await expect(main(maren).getByText("Closed.", { exact: true })).toBeVisible();
  await expect(main(isla).getByText("Closed.", { exact: true })).toBeVisible();
  const roles = (await entriesOf(maren, id)).filter((e) => ["signed", "close", "countersigned"].includes(e.kind));
  expect(roles.map((e) => [e.kind, e.by, e.role])).toEqual([
    ["signed", "Maren Oake", "lead"],
    ["close", "Isla Renn", "apprentice"],
    ["countersigned", "Maren Oake", "lead"],
    ["close", "Isla Renn", "apprentice"],
    ["countersigned", "Maren Oake", "lead"],
  ]);
});

test("without the server who was in lately comes in by PIN, and what each records goes up under their own name", async ({
  page,
  context,
}) => {
  await page.goto("/");
  await enterPin(page, "Isla Renn", DEMO_PIN);
  await expect(who(page)).toHaveText("Isla Renn");
  await enterPin(page, "Tobin Falk", DEMO_PIN);
  await expect(who(page)).toHaveText("Tobin Falk");
  await openJob(page, "Hiss", "FW 16 OFF");
  const id = idOf(page);
  const note = async (text: string) => {
    await page.getByRole("button", { name: "Journal" }).click();
    await page.getByRole("textbox", { name: "Note" }).fill(text);
    await button(page, "Add the note").click();
    await expect(page.getByRole("dialog").getByText(`Note: ${text}`)).toBeVisible();
    await page.keyboard.press("Escape");
  };
  await context.setOffline(true);
  await note("His, while the line was down");
  await enterPin(page, "Isla Renn", "1357");
  await expect(dialog(page).getByRole("alert")).toContainText("not the PIN of Isla Renn. 9 more");
  await dialog(page).getByLabel("PIN of Isla Renn").fill(DEMO_PIN);
  await page.keyboard.press("Enter");
  await expect(who(page)).toHaveText("Isla Renn");
  await note("Hers, on the same tablet");
  await expect(page.getByText("2 not sent yet")).toBeVisible();
  await context.setOffline(false);
  const notes = async () => (await entriesOf(page, id)).filter((e) => e.kind === "note").map((e) => [e.by, e.role]);
  await expect.poll(notes, { timeout: 30_000 }).toEqual([
    ["Tobin Falk", "technician"],
    ["Isla Renn", "apprentice"],
  ]);
});

test("a shop of its own is set up in one page: name, lead, people, first machine", async ({ newDevice, shops }) => {
  const own = await shops.open();
  try {
    const context = await newDevice({ baseURL: own.url });
    const page = await context.newPage();
    await page.goto("/");
    await expect(page.getByRole("heading", { name: "Set the shop up" })).toBeVisible();
    await button(page, "Begin").click();
    await expect(page.getByText("Name the shop")).toBeVisible();
    await page.getByLabel("Name of the shop, as printed on documents").fill("Tarn Slip Garage");
    await page.getByLabel("Name of the lead").fill("Maren Oake");
    await page.getByLabel("PIN of the lead").fill("1234");
    await button(page, "Add person").click();
    const first = page.getByRole("group", { name: "Person 1" });
    await first.getByLabel("Name", { exact: true }).fill("maren oake");
    await first.getByLabel("PIN (they type it)").fill("8642");
    // A PIN is typed and sent, and never kept.
    expect(await page.evaluate(() => JSON.stringify(localStorage))).toContain("maren oake");
    expect(await page.evaluate(() => JSON.stringify(localStorage))).not.toMatch(/8642|1234/);
    await button(page, "Begin").click();
    await expect(page.getByText("That PIN is the first that anybody tries")).toBeVisible();
    await page.getByLabel("PIN of the lead").fill("2468");
    await button(page, "Begin").click();
    await expect(page.getByText("The same name stands there twice")).toBeVisible();
    await first.getByLabel("Name", { exact: true }).fill("Isla Renn");
    await first.getByRole("radio", { name: "Apprentice" }).click();
    await page.getByLabel("Machine", { exact: true }).fill("Wisp");
    await page.getByLabel("Rated pressure, gauge", { exact: true }).fill("13");
    await button(page, "Begin").click();
    await expect(page.getByRole("alert").filter({ hasText: "The machine is not all there yet" })).toBeVisible();
    await page.getByLabel("Flow, hose open", { exact: true }).fill("12");
    await button(page, "Begin").click();
    await expect(page.getByRole("heading", { name: /Bay board/ })).toContainText("Tarn Slip Garage");
    await expect(who(page)).toHaveText("Maren Oake");
    await page.goto("/shop");
    const people = page.getByRole("region", { name: "People" });
    await expect(people.getByText("Isla Renn", { exact: true })).toBeVisible();
    await expect(page.getByRole("region", { name: "Smoke machines" }).getByText("Wisp").first()).toBeVisible();
    // A lead takes somebody in, and makes a mistake good.
    await people.getByLabel("Name", { exact: true }).fill("Tobin Falk");
    await people.getByLabel("PIN (they type it)").fill("1111");
    await button(page, "Add").click();
    await expect(people.getByRole("alert")).toContainText("first that anybody tries");
    await people.getByLabel("PIN (they type it)").fill("9753");
    await button(page, "Add").click();
    await expect(people.getByText("Tobin Falk", { exact: true })).toBeVisible();
    await people.getByLabel("Role of Maren Oake").selectOption("technician");
    await expect(people.getByRole("alert")).toContainText("The shop keeps one lead");
    await page.goto("/first-start");
    await expect(page.getByRole("heading", { name: /Bay board/ })).toBeVisible();
  } finally {
    await own.stop();
  }
});

test("a device is put out in mid-work; what waited on it leaves it as a file, and the lead takes it in", async ({
  newDevice,
  shops,
}) => {
  const shop = await shops.open({ passphrase: "gulls over the slip" });
  try {
    const [atDesk, inVan] = [await newDevice({ baseURL: shop.url }), await newDevice({ baseURL: shop.url })];
    const [desk, van] = [await atDesk.newPage(), await inVan.newPage()];
    await desk.goto("/");
    await desk.getByLabel(/passphrase/i).fill("gulls over the slip");
    await desk.getByLabel("Name of this device").fill("Desk");
    await button(desk, "Connect").click();
    await expect(desk.getByRole("heading", { name: "Set the shop up" })).toBeVisible();
    await signIn(desk, "Maren Oake");
    await desk.goto("/shop");
    const devices = desk.getByRole("region", { name: "Devices" });
    await expect(devices.getByText("Desk", { exact: true })).toBeVisible();
    // The code that is shown lets one more in, by its address.
    await button(desk, "Add a device").click();
    const code = await desk
      .getByRole("dialog")
      .getByText(/^\d{3} \d{3}$/)
      .textContent();
    await expect(desk.getByRole("dialog").getByRole("img", { name: /^Opens / })).toBeVisible();
    await desk.keyboard.press("Escape");
    await van.goto(`/unlock?code=${code?.replace(" ", "")}&to=/shop`);
    await van.getByLabel("Name of this device").fill("Tablet in the van");
    await button(van, "Connect").click();
    await expect(van.getByRole("heading", { name: "Shop", exact: true })).toBeVisible();

    // Taken in at the desk; the sign-in is the tablet's own.
    const [{ personId }] = [await inAs(desk, "Tobin Falk", "technician"), await inAs(desk, "Wren Alder")];
    const made = await (await van.request.post("/api/v1/sign-in", { data: { person: personId, pin: DEMO_PIN } })).json();
    await van.addInitScript((here) => {
      localStorage.setItem("pelota.signedIn", JSON.stringify({ ...here, until: 1e15 }));
      localStorage.setItem("pelota.lockAfter", "1e15");
    }, made as object);
    await openJob(van, "Hiss", "FW 17 VAN");
    const id = idOf(van);
    const note = async (text: string) => {
      await van.getByRole("button", { name: /^(Journal|\d+ not taken)$/ }).click();
      await van.getByRole("textbox", { name: "Note" }).fill(text);
      await button(van, "Add the note").click();
      await expect(
        van.getByRole("dialog").getByText(`Note: ${text}`).or(van.getByRole("dialog").getByRole("alert")),
      ).toBeVisible();
      await van.keyboard.press("Escape");
    };
    await note("Before it was lost");
    await desk.reload();
    await button(desk, "Put Tablet in the van out").click();
    await button(desk, "Remove now").click();
    await expect(devices.getByText("out", { exact: true })).toBeVisible();
    await note("Written in the van");
    await expect(van.getByText("1 not sent yet")).toBeVisible();
    await van.getByRole("link", { name: /This device was removed from the shop/ }).click();
    await expect(van.getByText("1 entry waits on this device")).toBeVisible();
    const [saved] = await Promise.all([van.waitForEvent("download"), button(van, "Save them as a file").click()]);
    const file = JSON.parse(readFileSync(await saved.path(), "utf8"));
    expect((await van.request.get("/api/v1/people")).status()).toBe(401);
    await van.goto("/");
    await expect(van).toHaveURL(/\/unlock/);

    const offer = (content: object) =>
      desk.getByLabel("Queue file of a device").setInputFiles({
        name: "waiting.json",
        mimeType: "application/json",
        buffer: Buffer.from(JSON.stringify(content)),
      });
    const [entry] = file.entries;
    await offer({ ...file, entries: [{ ...entry, body: { text: "Written by somebody else" } }] });
    await expect(desk.getByRole("dialog").getByText(/changed it on its way/)).toBeVisible();
    await desk.getByRole("dialog").getByRole("button", { name: "Close" }).last().click();
    await offer(file);
    await button(desk, "Take in 1 of 1").click();
    await expect(desk.getByRole("dialog").getByText("in the journal")).toBeVisible();
    const notes = (await (await desk.request.get(`/api/v1/jobs/${id}/entries`)).json()) as JournalEntry[];
    expect(notes.filter((e) => e.kind === "note").map((e) => [e.by, (e.body as { text: string }).text])).toEqual([
      ["Tobin Falk", "Before it was lost"],
      ["Tobin Falk", "Written in the van"],
    ]);
  } finally {
    await shop.stop();
  }
});

test("what was made after a PIN was changed waits for its maker to sign in anew, and then counts under their name", async ({
  newDevice,
  shops,
}) => {
  const shop = await shops.open();
  try {
    const page = await (await newDevice({ baseURL: shop.url })).newPage();
    const maren = await inAs(page, "Maren Oake");
    const tobin = await inAs(page, "Tobin Falk", "technician");
    await page.goto("/");
    await enterPin(page, "Tobin Falk", DEMO_PIN);
    await expect(who(page)).toHaveText("Tobin Falk");
    await openJob(page, "Hiss", "FW 18 PIN");
    const id = idOf(page);
    const changed = await page.request.put(`/api/v1/people/${tobin.personId}`, {
      data: { pin: "9753" },
      headers: { [SIGN_IN_HEADER]: doorProof(maren.signIn, maren.key) },
    });
    expect(changed.ok(), await changed.text()).toBe(true);
    await page.getByRole("button", { name: "Journal" }).click();
    await page.getByRole("textbox", { name: "Note" }).fill("Made while the PIN was changed");
    await button(page, "Add the note").click();
    // The device holds a sign-in that signs nothing any more: it says so, and keeps what was made.
    await expect(who(page)).toHaveText("Sign in");
    await page.keyboard.press("Escape");
    await expect(page.getByText("1 not sent yet")).toBeVisible();
    await enterPin(page, "Tobin Falk", "9753");
    const notes = async () => (await entriesOf(page, id)).filter((e) => e.kind === "note").map((e) => [e.by, e.role, e.history]);
    await expect.poll(notes, { timeout: 30_000 }).toEqual([["Tobin Falk", "technician", undefined]]);
    expect(await keptOn(page)).toEqual([]);
  } finally {
    await shop.stop();
  }
});

/** An address of this machine that is not the loopback's; undefined in a place without a network. */
const ownAddress = Object.values(networkInterfaces())
  .flatMap((list) => list ?? [])
  .find((one) => one.family === "IPv4" && !one.internal)?.address;

test("on the shop's network the plain port only leads to HTTPS, and what waited on the plain page goes along", async ({
  newDevice,
  shops,
}) => {
  test.skip(ownAddress === undefined, "no network here");
  const shop = await shops.open({ passphrase: "gulls over the slip", secure: true });
  const [plain, secure] = [`http://${ownAddress}:${shops.port}`, `https://${ownAddress}:${shops.securePort}`];
  try {
    // The certificate is had from the plain port, and with it alone the secure one is trusted.
    const authority = await (await fetch(`${plain}/authority.crt`)).text();
    const over = (ca: string) =>
      new Promise<number | string>((done) => {
        const asked = httpsGet(`${secure}/unlock`, { ca }, (answer) => {
          answer.resume();
          done(answer.statusCode ?? 0);
        });
        asked.on("error", (error) => done((error as NodeJS.ErrnoException).code ?? ""));
      });
    expect(await over(authority)).toBe(200);
    expect((await fetch(`${plain}/api/v1/people`)).status).toBe(404);
    expect((await fetch(`${plain}/api/v1/jobs/x/entries`, { method: "POST", body: "{}" })).status).toBe(426);

    const context = await newDevice({ ignoreHTTPSErrors: true });
    const page = await context.newPage();
    const lead = await context.newPage();
    await lead.goto(`${secure}/unlock`);
    await lead.getByLabel(/passphrase/i).fill("gulls over the slip");
    await button(lead, "Connect").click();
    await expect(lead.getByRole("heading", { name: "Set the shop up" })).toBeVisible();
    const begun = {
      shop: "Tarn Slip Garage",
      lead: { name: "Maren Oake", pin: DEMO_PIN },
      people: [{ name: "Tobin Falk", role: "technician", pin: DEMO_PIN }],
    };
    expect((await context.request.post(`${secure}/api/v1/first-start`, { data: begun })).ok()).toBe(true);
    await context.clearCookies();
    // A tablet that worked on plain HTTP before: what waits on it, and what was typed.
    await page.goto(plain);
    await expect(page.getByRole("heading", { name: "To this shop's secure page" })).toBeVisible();
    const entry = {
      id: uuid(),
      jobId: uuid(),
      kind: "note",
      v: 1,
      at: new Date().toISOString(),
      by: "Tobin Falk",
      device: "tablet",
      deviceSeq: 41,
      seenSeq: 1,
      body: { text: "Made on the plain page" },
    };
    // Not his, and what anybody on this address could have put there.
    const forged = {
      ...entry,
      id: uuid(),
      by: "Maren Oake",
      kind: "handover",
      body: { decidedOn: 1, conditional: true, summary: "Go" },
    };
    await page.evaluate(
      async ([made, other]) => {
        localStorage.setItem("pelota.device", JSON.stringify("tablet"));
        localStorage.setItem("pelota.lockAfter", "1e15");
        localStorage.setItem("pelota.draft.x.finding", JSON.stringify({ what: "Half typed" }));
        await new Promise<void>((done) => {
          const asked = indexedDB.open("pelota", 3);
          asked.onupgradeneeded = () => {
            asked.result.createObjectStore("counts").put(41, "deviceSeq");
            const store = asked.result.createObjectStore("kept", { keyPath: "id" });
            for (const one of [made, other]) store.put({ id: one.id, entry: one, batch: one.id, tries: 0, notBefore: 0 });
            asked.result.createObjectStore("journals", { keyPath: "jobId" }).createIndex("usedAt", "usedAt");
          };
          asked.onsuccess = () => {
            asked.result.close();
            done();
          };
        });
      },
      [entry, forged] as const,
    );
    await page.reload();
    await expect(page.getByText("Carries over 2 entries that wait here, and what was typed.")).toBeVisible();
    const [there] = await Promise.all([
      context.waitForEvent("page"),
      page.getByRole("link", { name: "Go on to the secure page" }).click(),
    ]);
    // Let in, signed in and looked through: before that nothing is taken, and nobody else's ever.
    await expect(there).toHaveURL(`${secure}/unlock?to=%2Fcarry-over`);
    await there.getByLabel(/passphrase/i).fill("gulls over the slip");
    await button(there, "Connect").click();
    await expect(there.getByRole("heading", { name: "What waits on the plain page" })).toBeVisible();
    await button(there, "Sign in").first().click();
    await expect(there.getByRole("dialog", { name: "Who is working?" })).toBeVisible();
    await enterPin(there, "Tobin Falk", DEMO_PIN);
    await expect(there.getByText("1 entry of Maren Oake waits there, too")).toBeVisible();
    await expect(page.getByText("Look through it on the new page")).toBeVisible();
    expect(await keptOn(there)).toEqual([]);
    await button(there, "Take over 2").click();
    await expect(there.getByText("1 entry that waited is here, with what was typed")).toBeVisible();
    await expect(page.getByText("Carried over. Go on in the new page")).toBeVisible();
    expect((await keptOn(there)).map((k) => k.id)).toEqual([entry.id]);
    const stored = () => there.evaluate(() => Object.fromEntries(Object.entries(localStorage)));
    expect(await stored()).toMatchObject({ "pelota.draft.x.finding": '{"what":"Half typed"}' });
    expect(await stored()).not.toHaveProperty("pelota.lockAfter");
    expect((await stored())["pelota.device"]).not.toBe('"tablet"');
    await there.getByRole("link", { name: "Go on" }).click();
    await expect(there.getByRole("heading", { name: /Bay board/ })).toBeVisible();
    const [cookie] = await context.cookies(secure);
    expect(cookie).toMatchObject({ name: "__Host-pelota_device", secure: true, httpOnly: true, sameSite: "Strict" });
  } finally {
    await shop.stop();
  }
});
