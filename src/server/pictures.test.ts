import { createHash } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { v4 as uuid } from "uuid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Db, openDb } from "./db/open";
import { openJob } from "./jobs";
import { LARGEST_PICTURE, readPicture, storePicture } from "./pictures";

const folder = mkdtempSync(join(tmpdir(), "pelota-pictures-"));
const jobId = uuid();
let db: Db;
beforeAll(() => {
  db = openDb(folder);
  openJob({ id: uuid(), jobId, at: new Date().toISOString(), by: "Maren Oake", device: "tablet", deviceSeq: 0 }, db);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const picture = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: "#8a3" } });
const keep = (bytes: Uint8Array, name = "gasket.jpg") => storePicture(jobId, name, bytes, db, folder);

describe("pictures", () => {
  it("keep what is seen and lose place, time and camera; turned upright, with a thumbnail", async () => {
    const taken = await picture(640, 400)
      .withExif({ IFD0: { Make: "Camera of a phone", Orientation: "6" }, IFD3: { GPSLatitudeRef: "N" } })
      .jpeg()
      .toBuffer();
    expect((await sharp(taken).metadata()).exif).toBeDefined();
    const { sha256 } = await keep(taken);
    const kept = await sharp(readPicture(jobId, sha256, false, db, folder)).metadata();
    expect(kept.exif).toBeUndefined();
    expect(kept.format).toBe("webp");
    const small = await sharp(readPicture(jobId, sha256, true, db, folder)).metadata();
    expect(Math.max(small.width, small.height)).toBeLessThanOrEqual(320);
  });

  it("that a device has cleaned are kept as they came, under the name that the device gave them; others are written anew", async () => {
    const sha = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
    const clean = await picture(640, 400).jpeg().toBuffer();
    expect(await keep(clean)).toEqual({ sha256: sha(clean) });
    expect(readPicture(jobId, sha(clean), false, db, folder)).toEqual(clean);
    const turned = await picture(640, 400).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const placed = await picture(640, 400)
      .withExif({ IFD3: { GPSLatitude: "1/1 2/1 3/1" } })
      .jpeg()
      .toBuffer();
    const large = await picture(3000, 400).jpeg().toBuffer();
    for (const bytes of [turned, placed, large]) {
      const { sha256 } = await keep(bytes);
      expect(sha256).not.toBe(sha(bytes));
      expect((await sharp(readPicture(jobId, sha256, false, db, folder)).metadata()).exif).toBeUndefined();
    }
  });

  it("go by content, not by name: the same picture is the same file, and a script with a picture's name is none", async () => {
    const png = await picture(50, 50).png().toBuffer();
    expect((await keep(png, "a.png")).sha256).toBe((await keep(png, "b.exe")).sha256);
    await expect(keep(Buffer.from("<script>alert(1)</script>"), "leak.png")).rejects.toThrow(
      /no picture, whatever its name says/,
    );
    const vector = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script/></svg>');
    await expect(keep(vector, "leak.jpg")).rejects.toThrow(/no picture/);
  });

  it("are refused when too large or damaged, and nothing is kept", async () => {
    await expect(keep(new Uint8Array(LARGEST_PICTURE + 1))).rejects.toThrow(/larger than 15 MB/);
    const whole = await picture(900, 900).jpeg().toBuffer();
    await expect(keep(whole.subarray(0, 400))).rejects.toThrow(/damaged|no picture/);
    expect(() => readPicture(jobId, "0".repeat(64), false, db, folder)).toThrow(/no such file/i);
    expect(() => readPicture(jobId, "0".repeat(64), true, db, folder)).toThrow(/no such picture/i);
  });
});
