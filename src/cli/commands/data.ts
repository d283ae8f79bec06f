import { createWriteStream, existsSync } from "node:fs";
import { pipeline } from "node:stream/promises";
import { BadInput } from "@/core/input";
import type { TakenIn } from "@/core/journal";
import type { Command } from "./door";

/** The folder named, or what to say. */
const folderOf = (args: readonly string[], usage: string): string => {
  const [folder] = args;
  if (!folder) throw new BadInput(`Name the folder: ${usage}`, "path");
  return folder;
};

/** These open the database; the small commands do not wait for that to be loaded. */
const data = () => import("@/server/backup");

export const backup: Command = {
  reads: "nothing",
  run: async (_input, args) => (await data()).backup(folderOf(args, "backup <new folder>")),
};

export const dailyBackup: Command = {
  reads: "nothing",
  run: async () => (await (await import("@/server/daily-backup")).dailyBackup()) ?? { due: false },
};

export const restore: Command = {
  reads: "nothing",
  run: async (_input, args) => (await data()).restore(folderOf(args, "restore <folder of a backup>")),
};

export const verify: Command = {
  reads: "nothing",
  run: async (_input, [folder]) => (await data()).verifyData(folder),
};

const archive = () => import("@/server/archive");

export const exportShop: Command = {
  reads: "nothing",
  run: async (_input, args) => {
    const [path, more] = args;
    if (!path || (more !== undefined && more !== "--customers"))
      throw new BadInput("Name the file: export-shop <new file.zip> [--customers]", "path");
    if (existsSync(path)) throw new BadInput(`${path} is there already: name a new file`, "path");
    const { writeArchive } = await archive();
    await pipeline(writeArchive({ customers: more !== undefined }), createWriteStream(path, { flags: "wx" }));
    return { written: path };
  },
};

export const importShop: Command = {
  reads: "nothing",
  run: async (_input, args) => {
    const [path] = args;
    if (!path || !existsSync(path)) throw new BadInput("Name an archive that is there: import-shop <file.zip>", "path");
    const jobs: TakenIn[] = [];
    const { takeArchive } = await archive();
    for await (const came of takeArchive(path)) if ("state" in came) jobs.push(came);
    return { jobs };
  },
};
