import { BadInput } from "@/core/input";
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
