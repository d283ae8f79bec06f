import { and, eq } from "drizzle-orm";
import sharp from "sharp";
import { BadInput } from "@/core/input";
import { type Db, dataFolder, db } from "./db/open";
import { files } from "./db/schema";
import { givenName, readFile, storeFile, THUMBNAIL_OF } from "./files";
import { NotFound } from "./refusals";

/** Largest picture that is taken, bytes */
export const LARGEST_PICTURE = 15 * 1024 * 1024;
const TAKEN = ["jpeg", "png", "webp", "heif", "gif"];
/** Long side of what is kept and of its thumbnail, pixels */
const LONG_SIDE = 2400;
const THUMBNAIL = 320;

const thumbnailName = (sha256: string) => `${THUMBNAIL_OF}${sha256}`;

/**
 * Keeps a picture with a job: what it is goes by its content, not its name; turned upright, then written anew without
 * place, time and camera; a thumbnail beside it. Throws BadInput for what is no picture or too large.
 */
export async function storePicture(
  jobId: string,
  name: string,
  bytes: Uint8Array,
  at: Db = db(),
  folder = dataFolder(),
): Promise<{ sha256: string }> {
  if (bytes.length > LARGEST_PICTURE) throw new BadInput("The picture is larger than 15 MB: take it at a lower resolution");
  const head = await sharp(bytes, { limitInputPixels: 120e6 })
    .metadata()
    .catch(() => undefined);
  if (!head || !TAKEN.includes(head.format)) {
    throw new BadInput("This file is no picture, whatever its name says: take a JPEG, PNG or WebP");
  }
  // What a device has cleaned already is kept as it came: both name it by the same content.
  const { exif, xmp, iptc, orientation = 1, width, height } = head;
  const clean =
    head.format === "jpeg" &&
    !exif &&
    !xmp &&
    !iptc &&
    orientation === 1 &&
    Math.max(width, height) <= LONG_SIDE &&
    (head.pages ?? 1) === 1;
  const resized = (side: number) =>
    sharp(bytes, { limitInputPixels: 120e6 })
      .rotate()
      .resize(side, side, { fit: "inside", withoutEnlargement: true })
      .webp({ quality: 82 })
      .toBuffer();
  const [whole, thumbnail] = await Promise.all([clean ? bytes : resized(LONG_SIDE), resized(THUMBNAIL)]).catch(() => {
    throw new BadInput("The picture is damaged: take it again");
  });
  const { sha256 } = storeFile(jobId, givenName(name), whole, at, folder);
  storeFile(jobId, thumbnailName(sha256), thumbnail, at, folder);
  return { sha256 };
}

/** A job's picture, or its thumbnail, as WebP. Throws NotFound. */
export function readPicture(jobId: string, sha256: string, thumbnail: boolean, at: Db = db(), folder = dataFolder()): Buffer {
  if (!thumbnail) return readFile(jobId, sha256, at, folder);
  const row = at
    .select({ sha256: files.sha256 })
    .from(files)
    .where(and(eq(files.jobId, jobId), eq(files.name, thumbnailName(sha256))))
    .get();
  if (!row) throw new NotFound("No such picture in this job");
  return readFile(jobId, row.sha256, at, folder);
}
