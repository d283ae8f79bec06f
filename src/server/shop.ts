import { and, desc, eq, sql } from "drizzle-orm";
import type { SmokeRun } from "@/core/checks/smoke";
import { validate } from "@/core/input";
import { DEFAULT_SHOP, liftShop, type Proof, type Shop, shopSchema } from "@/core/shop/settings";
import { toSi } from "@/core/units";
import { type Db, db } from "./db/open";
import { entries, settings } from "./db/schema";
import { parsed } from "./parsed";

/** The shop's settings; defaults until somebody sets them, and for limits added since. */
export function readShop(at: Db = db()): Shop {
  const row = at.select().from(settings).where(eq(settings.key, "shop")).get();
  if (!row) return DEFAULT_SHOP;
  return liftShop(parsed(row.value)) as Shop;
}

/** Saves the shop's settings. Throws BadInput for what its schema refuses. */
export function writeShop(shop: unknown, at: Db = db()): Shop {
  const valid = validate<Shop>(shopSchema, shop);
  const value = JSON.stringify(valid);
  at.insert(settings).values({ key: "shop", value }).onConflictDoUpdate({ target: settings.key, set: { value } }).run();
  return valid;
}

/** Proofs of each machine by its name, oldest first, at most the newest 30: from the smoke runs of every job. */
export function proofHistory(at: Db = db()): Record<string, Proof[]> {
  const rows = at
    .select({ body: entries.body, at: entries.at })
    .from(entries)
    .where(and(eq(entries.kind, "check"), sql`json_extract(${entries.body}, '$.check') = 'smoke'`))
    .orderBy(desc(entries.recordedAt))
    .limit(600)
    .all();
  const began = (at: string) => (at.startsWith("{") ? (JSON.parse(at) as { from: string }).from : at);
  const runs = rows
    .map((row) => ({ at: began(row.at), run: (JSON.parse(row.body) as { record: SmokeRun }).record }))
    .toSorted((a, b) => (a.at < b.at ? 1 : -1));
  const history = new Map<string, Proof[]>();
  for (const { at: when, run } of runs) {
    // A proof that served another run of its session is one proof.
    if (!run.proof?.pressure || run.proof.takenAt) continue;
    const list = history.get(run.machine.name) ?? [];
    history.set(run.machine.name, list);
    if (list.length < 30) list.unshift({ at: when, share: toSi(run.proof.pressure) / toSi(run.machine.ratedPressure) });
  }
  return Object.fromEntries(history);
}
