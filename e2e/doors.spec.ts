import { mkdtempSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import Database from "better-sqlite3";
import { hold } from "@/core/checks/records.fixture";
import { smokeRun } from "@/core/core.fixture";
import {
  button,
  idOf,
  inAs,
  instrument,
  keptOn,
  leaking,
  logOf,
  main,
  openJob,
  panel,
  pick,
  readColumns,
  setConditions,
  signedBy,
  signIn,
  station,
} from "./steps";
import { expect, test } from "./test";

const folder = mkdtempSync(join(tmpdir(), "pelota-doors-"));
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

const offer = (page: Page, text: string | Buffer) =>
  page.getByLabel("Scan-tool log").setInputFiles({ name: "drive.csv", mimeType: "text/csv", buffer: Buffer.from(text) });

test("a log that cannot be read is refused with what to do, and the next one is taken", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Rough idle", "FW 10 DOR");
  await setConditions(page);
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  const alert = main(page).getByRole("alert");

  await offer(page, "");
  await expect(alert.first()).toContainText("The file is empty");
  await offer(page, Buffer.from(Array.from({ length: 3000 }, (_, i) => (i * 37) % 256)));
  await expect(alert.first()).toContainText("not a text file");
  await offer(page, "Foo,Bar\n1,2\n3,4\n");
  await expect(alert.first()).toContainText("No known channel among 2 columns");
  await expect(button(page, "Read the log with these columns")).toBeDisabled();
  await offer(page, "Time (s),RPM,MAF (g/s)\n0,700,2\n5,700,2\n3,700,2\n");
  await button(page, "Read the log with these columns").click();
  await expect(alert.first()).toContainText("Time runs backwards at row 3");

  const large = join(folder, "large.csv");
  writeFileSync(large, "Time (s),RPM\n");
  truncateSync(large, 151 * 1024 * 1024);
  await page.getByLabel("Scan-tool log").setInputFiles(large);
  await expect(alert.first()).toContainText("151 MB; logs up to 150 MB are read");

  await page.getByLabel("Scan-tool log").setInputFiles(logOf(leaking));
  await readColumns(page);
  await expect(main(page).getByText(/rows over/)).toBeVisible();
});

test("two headers for one channel and an unknown unit are decided once, then remembered", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Rough idle", "FW 11 DOR");
  await setConditions(page);
  await station(page, "Check");
  await instrument(page, "Fuel-trim survey");
  const rows = Array.from({ length: 60 }, (_, i) => `${i / 2},720,2.6,9.4,90,4,12`).join("\n");
  const text = `Time (s),RPM,MAF (g/s),MAF Sensor (kg/h),ECT (furlongs),STFT (%),LTFT (%)\n${rows}\n`;
  await offer(page, text);
  await expect(main(page).getByText("How the columns are understood. Correct what is wrong", { exact: false })).toBeVisible();
  await expect(main(page).getByText(/Unit "furlongs" of "ECT \(furlongs\)" is not known/)).toBeVisible();
  await expect(main(page).getByText(/both look like MAF flow: choose which one counts/)).toBeVisible();
  await page.getByLabel("Channel of MAF (g/s)").selectOption("Not used");
  await page.getByLabel("Unit of ECT (furlongs)").selectOption("°C");
  await expect(button(page, "Read the log with these columns")).toBeEnabled();
  await button(page, "Read the log with these columns").click();
  await expect(main(page).getByRole("cell", { name: "2.61 g/s" })).toBeVisible();

  // Read at once the next time; how is a tap away.
  await offer(page, text);
  await expect(main(page).getByRole("cell", { name: "2.61 g/s" })).toBeVisible();
  await button(page, "Change how the columns are understood").click();
  await expect(main(page).getByText("as you decided before for these headers")).toBeVisible();
  await expect(button(page, "Read the log with these columns")).toBeEnabled();
});

test("a reading is asked back, never changed: unknown unit, wrong kind, below nothing, neighbour unit", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Rough idle", "FW 12 DOR");
  await button(page, "Set conditions").click();
  const field = page.getByLabel("Ambient pressure, absolute", { exact: true });
  const dialog = page.getByRole("dialog");
  for (const [typed, said] of [
    ["1006 furlong", /Unit "furlong" is not known here/],
    ["-3 kPa", /absolute pressure cannot be negative/],
    ["990 kPa", /out of range for ambient pressure. Did you mean 990 hPa/],
    ["13 psi gauge", /13 psi gauge is no absolute pressure/],
    ["soon", /does not start with a number/],
    ["1,013", /can mean 1013 or 1.013/],
  ] as const) {
    await field.fill(typed);
    await field.blur();
    await expect(dialog.getByRole("alert").first()).toContainText(said);
    await expect(field).toHaveValue(typed);
  }
  await field.fill("990 kPa");
  await field.blur();
  await button(page, "Take hPa").click();
  await expect(field).toHaveValue("990 hPa");
  await page.getByRole("radio", { name: "Altitude only" }).click();
  await page.getByLabel("Altitude of the bay", { exact: true }).fill("500 ft");
  await expect(dialog.getByText("Station pressure here: 995.1 hPa absolute")).toBeVisible();
  await button(page, "Keypad for Bay temperature").click();
  for (const key of ["1", "7"]) await page.getByRole("button", { name: key, exact: true }).click();
  await page.getByRole("button", { name: "°C", exact: true }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByLabel("Bay temperature", { exact: true })).toHaveValue("17 °C");
  await button(page, "Record conditions").click();
  await expect(page.getByText("995 hPa abs")).toBeVisible();
});

test("a job file that is newer, cut off or of another kind is refused; one with an unknown entry is kept", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 13 DOR");
  const id = idOf(page);
  const file = await (await page.request.get(`/api/v1/jobs/${id}/export`)).json();
  await page.goto("/");
  await panel(page, "More").click();
  const offerJob = (text: string) =>
    page.getByLabel("Job file").setInputFiles({ name: "job.json", mimeType: "application/json", buffer: Buffer.from(text) });
  const alert = page.getByRole("alert").filter({ hasText: /\w/ });
  await offerJob(JSON.stringify({ ...file, version: 2 }));
  await expect(alert.first()).toContainText("Update the app, then import it");
  await offerJob(JSON.stringify(file).slice(0, 400));
  await expect(alert.first()).toContainText("cut off or damaged");
  await offerJob('{"format":"recipe"}');
  await expect(alert.first()).toContainText("not a Pelota job file");

  const { seq, recordedAt, role, ...last } = file.entries.at(-1);
  const made = { ...last, id: crypto.randomUUID(), kind: "hologram", body: { depth: 3 } };
  const asRecorded = (entry: object) => ({ ...entry, seq: seq + 1, recordedAt, role });
  const hologram = asRecorded(signedBy(await inAs(page, "Wren Alder"), made));
  await offerJob(JSON.stringify({ ...file, entries: [...file.entries, asRecorded(made)] }));
  await expect(alert.first()).toContainText("is not as Wren Alder signed it");
  await offerJob(JSON.stringify({ ...file, entries: [...file.entries, hologram] }));
  await expect(page.getByRole("heading", { name: /^Job \d+$/ })).toBeVisible();
  await page.getByRole("button", { name: "Journal" }).click();
  await expect(page.getByText("Kept, but of a kind this version does not know: hologram")).toBeVisible();
  const again = await (await page.request.get(`/api/v1/jobs/${id}/export`)).json();
  // What the server says of it is worked out here, and not taken from the file.
  expect(again.entries.at(-1)).toEqual({ ...hologram, recordedAt: expect.any(String) });
});

test("the same entry twice is one; its id with other contents is a conflict; garbage changes nothing", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 14 DOR");
  const id = idOf(page);
  const url = `/api/v1/jobs/${id}/entries`;
  const entry = {
    id: crypto.randomUUID(),
    jobId: id,
    kind: "note",
    v: 1,
    at: new Date().toISOString(),
    by: "Wren Alder",
    device: "x",
    deviceSeq: 1,
    seenSeq: 3,
    body: { text: "once" },
  };
  const wren = await inAs(page, "Wren Alder");
  const post = (data: object) => page.request.post(url, { data: signedBy(wren, data) });
  expect((await page.request.post(url, { data: entry })).status()).toBe(401);
  expect((await page.request.post(url, { data: { ...signedBy(wren, entry), body: { text: "other" } } })).status()).toBe(400);
  expect((await post(entry)).status()).toBe(200);
  expect((await post(entry)).status()).toBe(200);
  expect((await post({ ...entry, body: { text: "other" } })).status()).toBe(409);
  expect((await post({ ...entry, id: crypto.randomUUID(), kind: "hologram" })).status()).toBe(400);
  expect((await page.request.post(url, { headers: { "content-type": "application/json" }, data: '{"id":' })).status()).toBe(400);
  expect((await page.request.post(url, { headers: { origin: "http://elsewhere.example" }, data: {} })).status()).toBe(403);
  expect(await (await page.request.get(url)).json()).toHaveLength(4);
});

test("markup in every text field is text everywhere it is shown", async ({ page }) => {
  let ran = false;
  page.on("dialog", (d) => {
    ran = true;
    void d.dismiss();
  });
  const evil = (n: number) => `<img src=x onerror=alert(${n})><b>${n}</b>`;
  await signIn(page, "Wren Alder");
  await openJob(page, evil(1), "<b>FW</b>");
  await station(page, "Story");
  await page.getByLabel("Since when").fill(evil(2));
  await page.getByLabel(/^When it happens/).fill(evil(3));
  await page.getByLabel("What others replaced already").fill(evil(4));
  await button(page, "Record the story").click();
  await expect(main(page).getByText("Recorded.")).toBeVisible();
  await page.getByText("Customer", { exact: true }).click();
  await page.getByLabel("Name", { exact: true }).fill(evil(5));
  await page.getByLabel("Contact").fill(evil(6));
  await button(page, "Save customer").click();
  await expect(page.getByText("Saved, apart from the job's journal.")).toBeVisible();
  await station(page, "Find");
  await pick(page, "Where", "Oil cap");
  await page.getByLabel("What was found").fill(evil(7));
  await button(page, "Record the finding").click();
  await expect(
    main(page)
      .getByRole("listitem")
      .filter({ hasText: evil(7) }),
  ).toBeVisible();
  await station(page, "Fix");
  await page.getByLabel("What was done").fill(evil(8));
  await page.getByLabel("Parts, one a line").fill(evil(9));
  await page.getByLabel("Also changed along the way, one a line").fill(evil(10));
  await button(page, "Record the repair").click();
  // In the list: the field holds the same words until it is recorded.
  await expect(
    main(page)
      .getByRole("listitem")
      .filter({ hasText: evil(8) })
      .first(),
  ).toBeVisible();
  await page.getByRole("button", { name: "Journal" }).click();
  await page.getByLabel("Note").fill(evil(11));
  await button(page, "Add the note").click();
  await expect(page.getByText(`Note: ${evil(11)}`)).toBeVisible();
  const id = idOf(page);
  // The page is printed by the server, of what it has.
  await expect.poll(async () => (await keptOn(page)).length).toBe(0);
  await page.goto(`/jobs/${id}/handover`);
  for (const n of [1, 5, 7, 8, 9, 10]) await expect(page.getByText(evil(n)).first()).toBeVisible();
  expect((await page.request.get(`/api/v1/jobs/${id}/handover`)).status()).toBe(200);
  await page.goto("/?q=FW");
  await expect(page.getByText(evil(1)).first()).toBeVisible();
  expect(ran).toBe(false);
});

test("a picture is kept with its finding by its content; what is none is refused and the words stay", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Light on", "FW 64 PIC");
  await station(page, "Find");
  await page.getByLabel("What was found").fill("split at the nipple");
  const file = page.getByLabel("Picture from a file");
  await file.setInputFiles({ name: "leak.png", mimeType: "image/png", buffer: Buffer.from("not a picture at all") });
  await expect(main(page).getByRole("alert").first()).toContainText("no picture, whatever its name says");
  await expect(page.getByLabel("What was found")).toHaveValue("split at the nipple");
  await file.setInputFiles({ name: "leak.png", mimeType: "image/png", buffer: await page.screenshot() });
  const taken = main(page).getByRole("img", { name: "Taken at the car, 1 of 1" });
  await expect(taken).toBeVisible();
  await pick(page, "Where", "PCV hose");
  await button(page, "Record the finding").click();
  await expect(main(page).getByText("Not confirmed yet")).toBeVisible();
  await expect(taken).toHaveCount(1);
  await expect.poll(() => taken.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
});

test("an old entry that names what is not there breaks no page: it is shown, and marks nothing", async ({ page }) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 27 DRS");
  const id = idOf(page);
  const store = new Database(join(process.env.PELOTA_TEST_DATA as string, "pelota.sqlite"));
  let seq = 100;
  const put = (kind: string, body: object) =>
    store
      .prepare(
        `insert into entries (id, job_id, seq, kind, v, at, by, device, device_seq, seen_seq, body, recorded_at)
         values (@id, @job, @seq, @kind, @v, @at, 'Wren Alder', 'old', @seq, 0, @body, @recorded)`,
      )
      .run({
        id: crypto.randomUUID(),
        job: id,
        seq: ++seq,
        kind,
        v: kind === "check" ? 1 : 2,
        at: JSON.stringify(new Date().toISOString()),
        body: JSON.stringify(body),
        recorded: new Date().toISOString(),
      });
  for (const place of ["constructor", "__proto__", "toString", "nowhere"]) {
    put("finding", { joint: place, what: `Found at ${place}`, evidence: [], confirmed: true });
    put("repair", {
      what: `Mended ${place}`,
      permanence: "permanent",
      places: [place],
      labourMinutes: 5,
      parts: [],
      otherChanges: [],
      torques: [],
      changedSince: "nothing",
    });
    put("displaced", { what: `Off: ${place}`, joint: place });
    put("check", {
      check: "smoke",
      record: { ...smokeRun(), entry: place, seen: [{ joint: place, at: 30 }], arrivals: [{ zone: place, at: 20 }] },
    });
    put("check", { check: "look", record: { items: [{ id: place, state: "found" }] } });
    put("check", { check: "hold", record: { ...hold, joint: place } });
  }
  store.prepare("update jobs set top = ? where id = ?").run(seq, id);
  store.close();
  const broken: string[] = [];
  page.on("pageerror", (error) => broken.push(error.message));
  await page.reload();
  for (const name of ["Story", "Scan", "Look", "Suspects", "Check", "Find", "Fix", "Prove", "Hand over"]) {
    await station(page, name);
    await expect(main(page)).toBeVisible();
    await expect(page.getByText("This page broke")).toHaveCount(0);
  }
  await station(page, "Find");
  await expect(main(page).getByText("Found at constructor")).toBeVisible();
  await page.getByRole("button", { name: "Journal" }).click();
  await expect(
    page
      .getByRole("dialog")
      .getByText(/Found at nowhere/)
      .first(),
  ).toBeVisible();
  for (const path of ["/", `/jobs/${id}/handover`]) expect((await page.goto(path))?.status()).toBe(200);
  await expect(page.getByText("This page broke")).toHaveCount(0);
  expect((await page.request.get(`/api/v1/jobs/${id}/handover`)).status()).toBe(200);
  expect((await page.request.get(`/api/v1/jobs/${id}/export`)).status()).toBe(200);
  expect(broken).toEqual([]);
});
