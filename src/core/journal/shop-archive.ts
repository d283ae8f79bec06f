import * as yup from "yup";
import { type Customer, customerSchema } from "../customer";
import { BadInput, line, parseJson, SHA256, strictObject, validate } from "../input";
import { liftShop, type Shop, shopSchema } from "../shop/settings";
import { LARGEST_JOB_FILE } from "./job-file";

const FORMAT = "pelota-shop";
const VERSION = 1;

/** A log or a picture of a job, by its content. */
export interface ArchivedFile {
  readonly sha256: string;
  readonly name: string;
  readonly bytes: number;
}

export interface ArchivedJob {
  readonly jobId: string;
  readonly number: number;
  /** SHA-256 of its job file */
  readonly sha256: string;
  readonly files: readonly ArchivedFile[];
  /** Files that were gone already as it was written */
  readonly missing: readonly ArchivedFile[];
  /** Left out unless whoever wrote it asked for customers */
  readonly customer?: Customer;
}

/** Manifest of an archive of a whole shop; the rest of it are job files and the files they name. */
export interface ShopArchive {
  readonly format: typeof FORMAT;
  readonly version: number;
  readonly exportedAt: string;
  /** The shop's settings, to be looked up: taking an archive in changes none */
  readonly shop: Shop;
  readonly jobs: readonly ArchivedJob[];
}

export const MANIFEST_PATH = "shop.json";
export const jobPath = (jobId: string) => `jobs/${jobId}.pelota.json`;
export const filePath = (sha256: string) => `files/${sha256}`;

const fileSchema = strictObject({
  sha256: yup.string().matches(SHA256).required(),
  name: line("The file's name", 255).defined(),
  bytes: yup.number().integer().min(0).required(),
});
const archiveSchema = strictObject({
  format: yup.string().required(),
  version: yup.number().integer().required(),
  exportedAt: yup.string().required(),
  shop: shopSchema.required(),
  jobs: yup
    .array()
    .of(
      strictObject({
        jobId: yup.string().uuid().required(),
        number: yup.number().integer().min(1).required(),
        sha256: yup.string().matches(SHA256).required(),
        files: yup.array().of(fileSchema.required()).required(),
        missing: yup.array().of(fileSchema.required()).required(),
        customer: customerSchema.optional().default(undefined),
      }).required(),
    )
    .required(),
});

export const toShopArchive = (exportedAt: string, shop: Shop, jobs: readonly ArchivedJob[]): ShopArchive => ({
  format: FORMAT,
  version: VERSION,
  exportedAt,
  shop,
  jobs,
});

/** Reads what an archive says of itself. Throws BadInput for another format, a newer version, or the same job twice. */
export function parseShopArchive(text: string): ShopArchive {
  const data = parseJson(text, "The archive's list is cut off or damaged: export the shop again");
  const head = data as Partial<ShopArchive> | null;
  if (head === null || typeof head !== "object" || head.format !== FORMAT)
    throw new BadInput("This is no archive of a shop: it says nothing of Pelota", "format");
  if (typeof head.version === "number" && head.version > VERSION)
    throw new BadInput(
      `The archive is of version ${head.version}; this app reads up to ${VERSION}. Update the app, then import it`,
      "version",
    );
  const archive = validate<ShopArchive>(archiveSchema, { ...head, shop: liftShop(head.shop) });
  if (new Set(archive.jobs.map((j) => j.jobId)).size < archive.jobs.length)
    throw new BadInput("The same job stands twice in the archive's list", "jobs");
  return archive;
}

/** One member of an archive, as its directory tells it. */
export interface Member {
  readonly path: string;
  /** Packed and unpacked, bytes */
  readonly packed: number;
  readonly bytes: number;
}

/** Largest archive that is taken, bytes */
export const LARGEST_ARCHIVE = 8 * 1024 ** 3;
/** Largest log or picture in one, bytes */
const LARGEST_FILE = 256 * 1024 ** 2;
/** Most members of one */
export const MOST_MEMBERS = 500_000;
/** All of it unpacked, bytes */
const MOST_BYTES = 32 * 1024 ** 3;
/** Journals pack to a fortieth; what packs much better holds nothing. Small archives may do as they like. */
const TIGHTEST = 200;
const SMALL = 64 * 1024 ** 2;

const PATHS: readonly (readonly [RegExp, number])[] = [
  [/^shop\.json$/, LARGEST_JOB_FILE],
  [/^jobs\/[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}\.pelota\.json$/, LARGEST_JOB_FILE],
  [/^files\/[0-9a-f]{64}$/, LARGEST_FILE],
];

const NOTHING = "Nothing was imported";
const BOMB = `It unpacks to far more than a shop holds. ${NOTHING}`;

/**
 * Looks at an archive's directory before anything of it is read. Throws BadInput for a path that an archive of ours does not
 * have, for one that stands there twice, for more than a shop holds, and for what was packed tighter than anything written.
 */
export function checkMembers(members: readonly Member[]): void {
  if (members.length > MOST_MEMBERS) throw new BadInput(BOMB, "archive");
  const seen = new Set<string>();
  let [packed, bytes] = [0, 0];
  for (const member of members) {
    const largest = PATHS.find(([path]) => path.test(member.path))?.[1];
    if (largest === undefined)
      throw new BadInput(`The archive holds "${member.path}", which is no part of a shop. ${NOTHING}`, "archive");
    if (seen.has(member.path)) throw new BadInput(`"${member.path}" stands twice in the archive. ${NOTHING}`, "archive");
    seen.add(member.path);
    if (!(member.bytes >= 0 && member.bytes <= largest)) throw new BadInput(BOMB, "archive");
    packed += member.packed;
    bytes += member.bytes;
  }
  if (bytes > MOST_BYTES || (bytes > SMALL && bytes > TIGHTEST * packed)) throw new BadInput(BOMB, "archive");
  if (!seen.has(MANIFEST_PATH))
    throw new BadInput(`This is no archive of a shop: it has no ${MANIFEST_PATH}. ${NOTHING}`, "archive");
}

/** Holds an archive's list against its directory. Throws BadInput for what only one of them knows. */
export function checkListed({ jobs }: ShopArchive, members: readonly Member[]): void {
  const there = new Map(members.map((m) => [m.path, m.bytes]));
  const listed = new Set([MANIFEST_PATH]);
  const list = (path: string, bytes: number | undefined) => {
    listed.add(path);
    const size = there.get(path);
    if (size === undefined) throw new BadInput(`The archive lists "${path}" and does not hold it. ${NOTHING}`, "archive");
    if (bytes !== undefined && size !== bytes)
      throw new BadInput(`"${path}" is not as long as the archive's list says. ${NOTHING}`, "archive");
  };
  for (const job of jobs) {
    list(jobPath(job.jobId), undefined);
    for (const file of job.files) list(filePath(file.sha256), file.bytes);
  }
  const more = members.find((m) => !listed.has(m.path));
  if (more)
    throw new BadInput(`"${more.path}" is in the archive and not on its list: it was put in later. ${NOTHING}`, "archive");
}

/** How a job of an archive came in. */
export interface TakenIn {
  readonly jobId: string;
  /** Its number in the archive, and here */
  readonly was: number;
  readonly number?: number;
  readonly state: "new" | "merged" | "here-already" | "refused";
  /** Entries that were new here */
  readonly added: number;
  /** Logs and pictures that were gone as it was exported */
  readonly missing: number;
  /** Why it was refused */
  readonly why?: string;
}

/** One job that came in, as a sentence. */
export function takenInWords({ was, number, state, added, missing, why }: TakenIn): string {
  const gone =
    missing === 0 ? "" : ` ${missing === 1 ? "A file of it was" : `${missing} files of it were`} gone before it was exported.`;
  const name = number === undefined || number === was ? `Job ${was}` : `Job ${was}, now ${number}`;
  if (state === "refused") return `${name}: refused. ${why ?? ""}`;
  if (state === "here-already") return `${name}: here already, nothing new.${gone}`;
  const entries = added === 1 ? "1 entry" : `${added} entries`;
  return state === "merged" ? `${name}: was here, ${entries} added.${gone}` : `${name}: imported, ${entries}.${gone}`;
}
