import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import type { Entry } from "@/core/journal";
import { button, idOf, inAs, keptOn, main, openJob, pick, signedBy, signIn, station } from "./steps";
import { expect, test } from "./test";

/** The copy of a job's journal on this device, changed as told; how many entries it holds. */
const copyOf = (page: Page, jobId: string, damage = false) =>
  page.evaluate(
    ([id, broken]) =>
      new Promise<number>((done, fail) => {
        const open = indexedDB.open("pelota");
        open.onerror = () => fail(open.error);
        open.onsuccess = () => {
          const store = open.result.transaction("journals", "readwrite").objectStore("journals");
          const asked = store.get(id);
          asked.onsuccess = () => {
            const copy = asked.result;
            if (broken && copy) {
              const last = copy.journal.recorded.at(-1);
              copy.journal.recorded = [{ ...last, kind: "vehicle", body: null }, last];
              store.put(copy);
            }
            store.transaction.oncomplete = () => {
              open.result.close();
              done(copy?.journal.recorded.length ?? 0);
            };
          };
        };
      }),
    [jobId, damage] as const,
  );

const note = async (page: Page, text: string) => {
  if ((await page.getByRole("dialog").count()) === 0) await page.getByRole("button", { name: /^Journal$|not taken$/ }).click();
  await page.getByLabel("Note", { exact: true }).fill(text);
  await button(page, "Add the note").click();
  await expect(page.getByLabel("Note", { exact: true })).toHaveValue("");
};

test("the bench opens from this device's own copy though the server says nothing, works on, and is caught up later", async ({
  context,
  page,
}) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 71 CPY");
  const id = idOf(page);
  await expect.poll(() => copyOf(page, id)).toBeGreaterThan(2);
  await context.route("**/api/v1/**", () => undefined);
  await page.goto("/");
  await page.goto(`/jobs/${id}`);
  await station(page, "Find");
  await pick(page, "Where", "Oil cap");
  await page.getByLabel("What was found").fill("Cap seal hard");
  await button(page, "Record the finding").click();
  // In the list, not in the field it was typed into: there it stands before it is kept.
  await expect(main(page).getByRole("listitem").filter({ hasText: "Cap seal hard" })).toBeVisible();
  expect(await keptOn(page)).toHaveLength(1);
  await context.unroute("**/api/v1/**");
  await page.reload();
  await expect.poll(async () => (await keptOn(page)).length).toBe(0);
  await station(page, "Find");
  await expect(main(page).getByText("Cap seal hard").first()).toBeVisible();
  const recorded = (await (await page.request.get(`/api/v1/jobs/${id}/entries`)).json()) as Entry[];
  expect(recorded.filter((e) => e.kind === "finding")).toHaveLength(1);
});

test("a damaged copy is let go of, and the job comes anew from the server; without both the page says so and tries again", async ({
  newDevice,
  page,
}) => {
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss", "FW 72 CPY");
  const id = idOf(page);
  await expect.poll(() => copyOf(page, id)).toBeGreaterThan(2);
  await page.goto("/");
  await copyOf(page, id, true);
  await page.goto(`/jobs/${id}`);
  await station(page, "Story");
  await expect(main(page).getByLabel("Complaint, in the customer's words")).toHaveValue("Hiss");

  const other = await newDevice();
  const stranger = await other.newPage();
  await other.route("**/entries*", (route) => route.abort());
  await stranger.goto(page.url());
  await expect(stranger.getByText(/No connection to the shop's server/)).toBeVisible();
  await button(stranger, "Try again now").click();
  await expect(stranger.getByText(/No connection to the shop's server/)).toBeVisible();
  await other.unroute("**/entries*");
  await expect(main(stranger), "it opens by itself once the server answers").toBeVisible();
});

test("what the server lost when an older backup was restored comes back from the device that made it", async ({
  newDevice,
  shops,
}) => {
  const parent = mkdtempSync(join(tmpdir(), "pelota-restored-"));
  const [before, backups, after] = ["before", "backup", "after"].map((name) => join(parent, name)) as [string, string, string];
  const pelota = (folder: string, ...args: string[]) =>
    execFileSync("node", ["scripts/pelota.mjs", ...args], { env: { ...process.env, PELOTA_DATA: folder } });
  let server = await shops.open({ data: before });
  try {
    const context = await newDevice({ baseURL: server.url });
    const page = await context.newPage();
    await signIn(page, "Wren Alder");
    await openJob(page, "Hiss", "FW 73 CPY");
    const id = idOf(page);
    await note(page, "Before the backup");
    pelota(before, "backup", backups);
    await note(page, "After the backup");
    await expect.poll(() => copyOf(page, id)).toBe((await (await page.request.get(`/api/v1/jobs/${id}/entries`)).json()).length);
    await page.goto("about:blank");
    await server.stop();
    pelota(after, "restore", backups);
    server = await shops.open({ data: after });
    const recorded = async () => {
      const entries = (await (await page.request.get(`/api/v1/jobs/${id}/entries`)).json()) as Entry[];
      return entries.flatMap((e) => (e.kind === "note" ? [(e.body as { text: string }).text] : []));
    };
    expect(await recorded()).toEqual(["Before the backup"]);
    // Another device goes on in the meantime, under the number that was lost.
    const entry = { id: crypto.randomUUID(), jobId: id, kind: "note", v: 1, at: new Date().toISOString(), by: "Tobin Falk" };
    const made = { ...entry, device: "phone", deviceSeq: 1, seenSeq: 1, body: { text: "By another device" } };
    await page.request.post(`/api/v1/jobs/${id}/entries`, { data: signedBy(await inAs(page, "Tobin Falk"), made) });
    await page.goto(`/jobs/${id}`);
    await expect.poll(recorded).toEqual(["Before the backup", "By another device", "After the backup"]);
    await page.getByRole("button", { name: "Journal" }).click();
    for (const text of await recorded()) await expect(page.getByRole("dialog").getByText(`Note: ${text}`)).toHaveCount(1);
  } finally {
    await server.stop();
    rmSync(parent, { recursive: true, force: true });
  }
});
