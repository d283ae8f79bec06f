import { createHash } from "node:crypto";
import { createWriteStream, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import { v4 as uuid } from "uuid";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import yauzl from "yauzl";
import { ZipFile } from "yazl";
import { NATURAL } from "@/core/core.fixture";
import { filePath, jobPath, MANIFEST_PATH, type ShopArchive, type TakenIn } from "@/core/journal";
import { type Announced, takeArchive, writeArchive } from "./archive";
import { eraseCustomer, readCustomer, writeCustomer } from "./customers";
import { db } from "./db/open";
import { pathOf, readFile, storeFile } from "./files";
import { appendEntries, openJob, readEntries, readJob } from "./jobs";
import { entryOf, opening, STORY } from "./mutated.fixture";
import { readShopVersion } from "./shop";

let folder: string;
const shopIn = (path: string) => vi.stubEnv("PELOTA_DATA", path);
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "pelota-archive-"));
  shopIn(join(folder, "here"));
});
afterEach(() => {
  db().$client.close();
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
});

const LOG = Buffer.from("time,rpm\n0,800\n1,810\n");
function job(files: readonly Buffer[] = []): string {
  const jobId = uuid();
  openJob(opening(jobId));
  add(jobId, "vehicle", NATURAL);
  add(jobId, "story", STORY);
  for (const bytes of files) storeFile(jobId, "drive.csv", bytes);
  return jobId;
}
const add = (jobId: string, kind: string, body: object) => appendEntries(jobId, entryOf(jobId, kind, body));

async function written(customers = false): Promise<string> {
  const path = join(folder, `${uuid()}.zip`);
  await pipeline(writeArchive({ customers }), createWriteStream(path));
  return path;
}
async function takenIn(path: string): Promise<TakenIn[]> {
  const said: (Announced | TakenIn)[] = [];
  for await (const one of takeArchive(path)) said.push(one);
  const [announced, ...jobs] = said as [Announced, ...TakenIn[]];
  expect(jobs).toHaveLength(announced.jobs);
  return jobs;
}
const elsewhere = () => {
  db().$client.close();
  shopIn(join(folder, uuid()));
};
async function members(path: string): Promise<Map<string, Buffer>> {
  const zip = await yauzl.openPromise(path);
  const found = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry()) {
    const parts: Buffer[] = [];
    for await (const part of await zip.openReadStreamPromise(entry)) parts.push(part as Buffer);
    found.set(entry.fileName, Buffer.concat(parts));
  }
  return found;
}
async function packed(contents: ReadonlyMap<string, Buffer>): Promise<string> {
  const zip = new ZipFile();
  for (const [path, bytes] of contents) zip.addBuffer(bytes, path);
  zip.end();
  const path = join(folder, `${uuid()}.zip`);
  await pipeline(zip.outputStream, createWriteStream(path));
  return path;
}
const listIn = (contents: ReadonlyMap<string, Buffer>) => JSON.parse(String(contents.get(MANIFEST_PATH))) as ShopArchive;
const nothingCameIn = () => expect(db().$client.prepare("select count(*) as n from jobs").get()).toEqual({ n: 0 });

it("goes to another shop whole: journals, logs and numbers, one copy of a file of two jobs, nothing left over", async () => {
  const ids = [job([LOG]), job([LOG, Buffer.from("another")]), job()];
  const states = ids.map((id) => ({ ...readJob(id), number: 0 }));
  const path = await written();
  expect([...(await members(path)).keys()].filter((name) => name.startsWith("files/"))).toHaveLength(2);
  elsewhere();
  job();
  const settings = readShopVersion();
  const came = await takenIn(path);
  expect(came.every(({ state, added }) => state === "new" && added === 3)).toBe(true);
  // Number 1 was taken here: that job alone has another.
  expect(came.map(({ was, number }) => [was, number])).toEqual([
    [2, 2],
    [3, 3],
    [1, 4],
  ]);
  const imported = { by: "", at: expect.any(String) };
  expect(ids.map((id) => ({ ...readJob(id), number: 0 }))).toEqual(states.map((state) => ({ ...state, imported })));
  expect(readFile(ids[1] as string, createHash("sha256").update(LOG).digest("hex"))).toEqual(LOG);
  expect(readShopVersion()).toEqual(settings);
  expect(readdirSync(join(process.env.PELOTA_DATA as string, "incoming"))).toEqual([]);
});

it("merges into what is here: more entries are added, the same again are nothing, a job that went on otherwise is refused and the others come in", async () => {
  const [grown, same, parted] = [job(), job(), job()];
  const early = await written();
  add(grown, "note", { text: "later" });
  add(parted, "note", { text: "there" });
  const path = await written();
  elsewhere();
  await takenIn(early);
  add(parted, "note", { text: "here, meanwhile" });
  const before = readEntries(parted);
  const came = await takenIn(path);
  expect(came.map(({ state, added }) => [state, added])).toEqual([
    ["merged", 1],
    ["here-already", 0],
    ["refused", 0],
  ]);
  expect(came[2]?.why).toMatch(/gone on here/);
  expect(readEntries(parted)).toEqual(before);
  expect(readEntries(grown)).toHaveLength(4);
  expect(readEntries(same)).toHaveLength(3);
});

it("carries customers only where it was asked to, and brings nobody back who was erased", async () => {
  const id = job();
  writeCustomer(id, { name: "Ines Fell", contact: "at the ferry" });
  expect(String((await members(await written())).get(MANIFEST_PATH))).not.toContain("Ines Fell");
  const path = await written(true);
  eraseCustomer(id);
  await takenIn(path);
  expect(readCustomer(id)).toBeUndefined();
  elsewhere();
  await takenIn(path);
  expect(readCustomer(id)).toEqual({ name: "Ines Fell", contact: "at the ferry" });
});

it("says which files were gone already, and takes the rest", async () => {
  const id = job([LOG]);
  rmSync(pathOf(process.env.PELOTA_DATA as string, createHash("sha256").update(LOG).digest("hex")));
  const path = await written();
  elsewhere();
  expect(await takenIn(path)).toMatchObject([{ jobId: id, state: "new", missing: 1 }]);
});

it("refuses a job whose file or log was changed on the way, whole, and takes the others", async () => {
  const [changed, logged, sound] = [job(), job([LOG]), job()];
  const contents = await members(await written());
  const text = String(contents.get(jobPath(changed)));
  contents.set(jobPath(changed), Buffer.from(text.replace("Maren Oake", "Maren Ooke")));
  const hash = createHash("sha256").update(LOG).digest("hex");
  contents.set(filePath(hash), Buffer.from(String(LOG).replace("810", "910")));
  const path = await packed(contents);
  elsewhere();
  const came = await takenIn(path);
  expect(came.map(({ state }) => state)).toEqual(["refused", "refused", "new"]);
  expect(came.map(({ why }) => why ?? "")).toEqual([
    expect.stringMatching(/changed or damaged/),
    expect.stringMatching(/not what it says it is/),
    "",
  ]);
  for (const id of [changed, logged]) expect(() => readEntries(id)).toThrow(/no such job/i);
  expect(readEntries(sound)).toHaveLength(3);
  expect(existsSync(pathOf(process.env.PELOTA_DATA as string, hash))).toBe(false);
});

it("takes nothing in from an archive with a path that leads out, with more than is listed, cut off, or that is none", async () => {
  job([LOG]);
  const contents = await members(await written());
  const good = readFileSync(await packed(contents));
  elsewhere();
  const at = (bytes: Buffer) => {
    const path = join(folder, `${uuid()}.zip`);
    writeFileSync(path, bytes);
    return path;
  };
  const renamed = async (from: string, to: string) => {
    const bytes = readFileSync(await packed(new Map([...contents, [from, Buffer.from("x")]])));
    return at(Buffer.from(bytes.toString("latin1").replaceAll(from, to), "latin1"));
  };
  const list = listIn(contents);
  const wrong: [string, RegExp][] = [
    [await renamed("aa/bb/out", "../../out"), /leads out of it/],
    [await renamed("aout", "/out"), /leads out of it/],
    [await renamed("c/out", "c:out"), /leads out of it/],
    [await renamed("aa/out", "aa\\out"), /no part of a shop|leads out/],
    [await packed(new Map([...contents, ["notes.txt", Buffer.from("x")]])), /no part of a shop/],
    [await packed(new Map([...contents, [filePath("0".repeat(64)), Buffer.from("x")]])), /put in later/],
    [await packed(new Map([...contents].filter(([path]) => path !== MANIFEST_PATH))), /no shop.json/],
    [await packed(new Map([...contents].filter(([path]) => !path.startsWith("files/")))), /does not hold it/],
    [await packed(new Map([[MANIFEST_PATH, Buffer.from(JSON.stringify({ ...list, jobs: [] }))]])), /^$/],
    [at(good.subarray(0, good.length / 2)), /no archive, or it is cut off/],
    [at(Buffer.from("no archive")), /no archive, or it is cut off/],
    [at(Buffer.concat([good, Buffer.from("and more")])), /no archive|cut off/],
    [await packed(new Map([[MANIFEST_PATH, Buffer.alloc(65 * 1024 ** 2, " ")]])), /far more than a shop holds/],
  ];
  for (const [path, says] of wrong) {
    const said = await takenIn(path).then(
      () => "",
      (error: Error) => error.message,
    );
    expect(said).toMatch(says);
    nothingCameIn();
  }
});

it("does not unpack more than the directory says: a member that is longer than it claims is damaged", async () => {
  const id = job();
  const contents = await members(await written());
  const bytes = readFileSync(await packed(contents));
  // The uncompressed size in the central directory (APPNOTE 4.3.12) of the job's file, one less than it is.
  const name = bytes.lastIndexOf(jobPath(id));
  bytes.writeUInt32LE(bytes.readUInt32LE(name - 22) - 1, name - 22);
  const path = join(folder, "longer.zip");
  writeFileSync(path, bytes);
  elsewhere();
  expect(await takenIn(path)).toMatchObject([{ state: "refused", why: expect.stringMatching(/damaged/) }]);
  nothingCameIn();
});

it("is left off between two jobs: what came in stays, whole", async () => {
  const ids = [job([LOG]), job([LOG])];
  const path = await written();
  elsewhere();
  for await (const one of takeArchive(path)) if ("state" in one) break;
  expect(readEntries(ids[0] as string)).toHaveLength(3);
  expect(() => readEntries(ids[1] as string)).toThrow(/no such job/i);
  expect((await takenIn(path)).map(({ state }) => state)).toEqual(["here-already", "new"]);
});
