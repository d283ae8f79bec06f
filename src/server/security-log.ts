import { desc } from "drizzle-orm";
import type { SecurityEvent, SecurityLine } from "@/core/people";
import { nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { securityLog } from "./db/schema";
import { deviceIdOf, deviceName } from "./devices";

/** As many as a lead looks through; what is older stays in the database. */
const SHOWN = 500;

/** Notes what happened at a door. */
export function logged(line: Omit<SecurityLine, "id" | "at">, at: Db = db()): void {
  at.insert(securityLog)
    .values({ ...line, at: nowIso() })
    .run();
}

/** The same of what somebody asked for: on which device is known by the request. */
export const loggedOf = (
  request: Pick<Request, "headers">,
  what: SecurityEvent,
  who: { readonly name: string } | undefined,
  detail: string,
): void => logged({ what, who: who?.name ?? "", device: deviceName(deviceIdOf(request.headers)), detail });

/** Events at the doors, the newest first. */
export const readSecurityLog = (at: Db = db()): SecurityLine[] =>
  at.select().from(securityLog).orderBy(desc(securityLog.id)).limit(SHOWN).all() as SecurityLine[];
