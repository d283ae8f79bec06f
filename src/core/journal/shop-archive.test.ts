import { describe, expect, it } from "vitest";
import { DEFAULT_SHOP } from "../shop/settings";
import {
  type ArchivedJob,
  checkListed,
  checkMembers,
  filePath,
  jobPath,
  MANIFEST_PATH,
  type Member,
  parseShopArchive,
  takenInWords,
  toShopArchive,
} from "./shop-archive";

const ID = "11111111-1111-4111-8111-111111111111";
const HASH = "ab".repeat(32);
const job = (over: Partial<ArchivedJob> = {}): ArchivedJob => ({
  jobId: ID,
  number: 12,
  sha256: HASH,
  files: [{ sha256: HASH, name: "drive.csv", bytes: 900 }],
  missing: [],
  ...over,
});
const archive = (...jobs: ArchivedJob[]) => toShopArchive("2026-03-02T08:00:00.000Z", DEFAULT_SHOP, jobs);
const member = (path: string, bytes = 900, packed = 300): Member => ({ path, bytes, packed });
const SOUND = [member(MANIFEST_PATH), member(jobPath(ID)), member(filePath(HASH))];

describe("an archive's list", () => {
  it("is read as it was written, customers only where they were asked for", () => {
    const written = archive(job({ customer: { name: "Ines Fell", contact: "" } }), job({ jobId: ID.replace("1", "2") }));
    expect(parseShopArchive(JSON.stringify(written))).toEqual(written);
  });
  it.each([
    ["cut off", JSON.stringify(archive(job())).slice(0, -9), /cut off or damaged/],
    ["of something else", '{"format":"pelota-job"}', /no archive of a shop/],
    ["nothing", "null", /no archive of a shop/],
    ["newer", JSON.stringify({ ...archive(), version: 2 }), /Update the app/],
    ["with one job twice", JSON.stringify(archive(job(), job())), /same job stands twice/],
    ["with a name for a hash", JSON.stringify(archive(job({ sha256: "../../etc" }))), /sha256/],
    ["with unknown keys", JSON.stringify({ ...archive(), run: "it" }), /unknown key/],
  ])("%s is refused", (_, text, says) => expect(() => parseShopArchive(text)).toThrow(says));
});

describe("an archive's directory", () => {
  it("is sound as an archive of ours is", () => {
    checkMembers(SOUND);
    checkListed(archive(job()), SOUND);
  });
  it.each([
    "../shop.json",
    "/etc/passwd",
    "jobs/../../x.pelota.json",
    `jobs/${ID}.pelota.json/`,
    `files/${HASH}/..`,
    `files/${HASH.toUpperCase()}`,
    `Files/${HASH}`,
    "files/",
    "C:/x",
    "jobs\\x.pelota.json",
    "readme.txt",
    "",
  ])("holds no path like %s", (path) => expect(() => checkMembers([...SOUND, member(path)])).toThrow(/no part of a shop/));
  it("names nothing twice, and says what it is", () => {
    expect(() => checkMembers([...SOUND, member(jobPath(ID))])).toThrow(/twice/);
    expect(() => checkMembers(SOUND.slice(1))).toThrow(/no shop.json/);
    expect(() => checkMembers([])).toThrow(/no shop.json/);
  });
  it("unpacks to no more than a shop holds, each and all", () => {
    const one = 256 * 1024 ** 2;
    const file = (i: number, bytes: number, packed: number) => member(filePath(i.toString(16).padStart(64, "0")), bytes, packed);
    const bombs: Member[][] = [
      [file(1, one + 1, one)],
      [member(jobPath(ID.replace("1", "2")), 65 * 1024 ** 2, 64 * 1024 ** 2)],
      Array.from({ length: 200 }, (_, i) => file(i, one, one)),
      [file(1, one, 1000)],
      [file(1, Number.NaN, 1000)],
      [file(1, -5, 1000)],
      new Array<Member>(500_001).fill(file(1, 1, 1)),
    ];
    for (const bomb of bombs) expect(() => checkMembers([...SOUND, ...bomb])).toThrow(/far more than a shop holds/);
    // An empty log or a small one of one letter is none.
    checkMembers([...SOUND, file(1, 0, 2), file(2, 60 * 1024 ** 2, 60_000)]);
  });
  it("and its list know the same members, of the same length", () => {
    expect(() => checkListed(archive(job()), SOUND.slice(0, 2))).toThrow(/does not hold it/);
    expect(() => checkListed(archive(job()), [SOUND[0] as Member, SOUND[2] as Member])).toThrow(/does not hold it/);
    expect(() => checkListed(archive(job({ files: [] })), SOUND)).toThrow(/put in later/);
    expect(() => checkListed(archive(), SOUND.slice(0, 2))).toThrow(/put in later/);
    expect(() => checkListed(archive(job()), [...SOUND.slice(0, 2), member(filePath(HASH), 901)])).toThrow(/not as long/);
  });
});

it("says of each job how it came in", () => {
  const taken = { jobId: ID, was: 12, number: 12, added: 3, missing: 0 } as const;
  expect(takenInWords({ ...taken, state: "new" })).toBe("Job 12: imported, 3 entries.");
  expect(takenInWords({ ...taken, number: 40, state: "new", missing: 1 })).toMatch(/Job 12, now 40.*A file of it was gone/);
  expect(takenInWords({ ...taken, added: 1, state: "merged" })).toBe("Job 12: was here, 1 entry added.");
  expect(takenInWords({ ...taken, added: 0, state: "here-already" })).toBe("Job 12: here already, nothing new.");
  expect(takenInWords({ jobId: ID, was: 12, added: 0, missing: 0, state: "refused", why: "It was changed" })).toBe(
    "Job 12: refused. It was changed",
  );
});
