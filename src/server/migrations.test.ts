import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import Database from "better-sqlite3";
import { afterAll, describe, expect, it } from "vitest";
import { DEFAULT_SHOP } from "@/core/shop/settings";
import { verifyData } from "./backup";
import { listJobs, refreshStale } from "./board";
import { readCustomer } from "./customers";
import { openDb } from "./db/open";
import { readEntries } from "./jobs";
import { listPeople } from "./people";
import { readShop } from "./shop";

/** Databases as each schema left them, as SQL; one is added with every migration. */
const FIXTURES = resolve("src/server/migrations/fixtures");
const migrations = readdirSync(resolve("src/server/migrations")).filter((name) => name.endsWith(".sql"));
const folder = mkdtempSync(join(tmpdir(), "pelota-migrations-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("a database of an older version", () => {
  it.each(readdirSync(FIXTURES))("%s comes up to date with everything in it, and verifies", async (fixture) => {
    const data = mkdtempSync(join(folder, "data-"));
    const old = new Database(join(data, "pelota.sqlite"));
    old.exec(readFileSync(join(FIXTURES, fixture), "utf8"));
    old.close();
    const db = openDb(data);
    refreshStale(db);
    const [job] = listJobs({ includeClosed: true }, db);
    expect(job).toMatchObject({ number: 1, station: "prove", complaint: expect.stringMatching(/./) });
    expect(job?.folded).toBe(job?.top);
    expect(readEntries(job?.id as string, 0, db)).toHaveLength(job?.top as number);
    expect(readCustomer(job?.id as string, db)?.name).toBe("Hanne Quill");
    expect(readShop(db)).toEqual({ ...DEFAULT_SHOP, name: "Ferrowick Slip Garage" });
    expect(listPeople(db).map((p) => p.name)).toEqual(["Wren Alder"]);
    db.$client.close();
    expect(await verifyData(data)).toEqual({ jobs: 1, files: 0, wrong: [] });
  });

  it("is kept here for every schema that was left behind", () => {
    expect(readdirSync(FIXTURES)).toHaveLength(migrations.length - 1);
  });
});
