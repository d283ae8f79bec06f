import { resolve } from "node:path";
import { dataFolder } from "./db/open";

/** Where daily backups go, and beside them what was revoked since: `PELOTA_BACKUPS`, or beside the data. */
export const backupsFolder = (data = dataFolder()) =>
  resolve(/* turbopackIgnore: true */ process.env.PELOTA_BACKUPS ?? `${data}-backups`);
