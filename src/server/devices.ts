import { createHash, randomBytes } from "node:crypto";
import { and, asc, eq, isNull } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import type { Device } from "@/core/people";
import { askWhoMayHear } from "./changes";
import { now, nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { devices, signIns } from "./db/schema";
import { NotFound } from "./refusals";
import { revoke } from "./revocations";

export const DEVICE_COOKIE = "pelota_device";
/** The same where the shop is on HTTPS: no page on plain HTTP can set it, nor one of another name (RFC 6265bis, 4.1.3.2). */
export const SECURE_COOKIE = "__Host-pelota_device";
/** A device that was not seen for so long is let in anew, ms. */
const UNSEEN = 90 * 24 * 3600_000;
/** Being seen is noted at most so often, ms. */
const NOTED = 60_000;

const hash = (text: string) => createHash("sha256").update(text).digest("hex");
/** Stands for the passphrase that holds now. */
const gateNow = () => hash(process.env.PELOTA_GATE ?? "");

type Row = typeof devices.$inferSelect;
const isOut = (row: Row) => row.outAt !== null || row.gate !== gateNow() || Date.parse(row.lastSeen) + UNSEEN < now();

/** Lets a device in. @returns the token that it carries from now on: known to it alone. */
export function enrol(name: string, at: Db = db()): string {
  const token = randomBytes(32).toString("hex");
  const when = nowIso();
  at.insert(devices)
    .values({
      id: uuid(),
      name: name.trim() || "Unnamed device",
      token: hash(token),
      gate: gateNow(),
      enrolledAt: when,
      lastSeen: when,
    })
    .run();
  return token;
}

/** The value of a cookie of ours in a request's cookies, whatever else stands there. */
function cookieOf(header: string | null, name: string): string {
  const own = (header ?? "").split(";").map((c) => c.trim());
  return own.find((c) => c.startsWith(`${name}=`))?.slice(name.length + 1) ?? "";
}

/** Which device asks, by what it carries: one that is known and in, one that is out, or none. */
export function deviceOf(headers: Headers, at: Db = db()): { readonly id: string; readonly out: boolean } | undefined {
  const cookies = headers.get("cookie");
  // Who was let in before has the old name still.
  const token = cookieOf(cookies, SECURE_COOKIE) || cookieOf(cookies, DEVICE_COOKIE);
  if (token === "") return undefined;
  // The server looks at its own pages as it starts.
  if (process.env.PELOTA_SELF && token === process.env.PELOTA_SELF) return { id: "", out: false };
  const row = at
    .select()
    .from(devices)
    .where(eq(devices.token, hash(token)))
    .get();
  if (!row) return undefined;
  const out = isOut(row);
  if (!out && Date.parse(row.lastSeen) + NOTED < now())
    at.update(devices).set({ lastSeen: nowIso() }).where(eq(devices.id, row.id)).run();
  return { id: row.id, out };
}

/** The device that asks, as its sign-ins name it: empty on the shop's own machine. */
export const deviceIdOf = (headers: Headers, at: Db = db()): string => deviceOf(headers, at)?.id ?? "";

/** Name of a device. @param id empty on the shop's own machine. */
export const deviceName = (id: string, at: Db = db()): string =>
  id === ""
    ? "the shop's machine"
    : (at.select({ name: devices.name }).from(devices).where(eq(devices.id, id)).get()?.name ?? "");

/** Every device that ever was in, the oldest first. */
export const listDevices = (at: Db = db()): Device[] =>
  at
    .select()
    .from(devices)
    .orderBy(asc(devices.enrolledAt))
    .all()
    .map((row) => ({ id: row.id, name: row.name, enrolledAt: row.enrolledAt, lastSeen: row.lastSeen, out: isOut(row) }));

/** Puts a device out, at once: it opens no door any more, nor do the sign-ins on it. */
export function putOut(id: string, at: Db = db()): void {
  const change = at.$client.transaction(() => {
    const done = at.update(devices).set({ outAt: nowIso() }).where(eq(devices.id, id)).run();
    if (done.changes === 0) throw new NotFound("No such device");
    at.update(signIns)
      .set({ endedAt: nowIso() })
      .where(and(eq(signIns.deviceId, id), isNull(signIns.endedAt)))
      .run();
  });
  change.immediate();
  askWhoMayHear();
  revoke({ device: id }, at);
}

/** Whether what was made under a sign-in there still goes up by itself. */
export function isDeviceOut(id: string, at: Db = db()): boolean {
  if (id === "") return false;
  const row = at.select().from(devices).where(eq(devices.id, id)).get();
  return !row || row.outAt !== null;
}

/** Since when a device is out, ms since 1970; undefined while it is in. Under another passphrase it is out since it was last seen under its own. */
export function outSince(id: string, at: Db = db()): number | undefined {
  if (id === "") return undefined;
  const row = at.select().from(devices).where(eq(devices.id, id)).get();
  if (!row) return 0;
  if (row.outAt !== null) return Date.parse(row.outAt);
  return isOut(row) ? Date.parse(row.lastSeen) + NOTED : undefined;
}
