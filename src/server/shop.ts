import { and, desc, eq, inArray, sql } from "drizzle-orm";
import { CHECK_IDS, CHECKS } from "@/core/checks";
import { validate } from "@/core/input";
import type { Bodies } from "@/core/journal";
import { DEFAULT_SHOP, liftShop, type Proof, type Shop, shopSchema } from "@/core/shop/settings";
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

/** Kinds whose records prove a machine. */
const PROVING = CHECK_IDS.filter((kind) => CHECKS[kind].machineProof);

/** Proofs of each machine by its name, oldest first, at most the newest 30: from the records of every job. */
export function proofHistory(at: Db = db()): Record<string, Proof[]> {
  const rows = at
    .select({ body: entries.body, at: entries.at })
    .from(entries)
    .where(and(eq(entries.kind, "check"), inArray(sql`json_extract(${entries.body}, '$.check')`, PROVING)))
    .orderBy(desc(entries.recordedAt))
    .limit(600)
    .all();
  const began = (at: string) => (at.startsWith("{") ? (JSON.parse(at) as { from: string }).from : at);
  const proofs = rows
    .map((row) => {
      const { check, record } = parsed<Bodies["check"]>(row.body);
      return { at: began(row.at), proof: CHECKS[check].machineProof?.(record) };
    })
    .toSorted((a, b) => (a.at < b.at ? 1 : -1));
  const history = new Map<string, Proof[]>();
  for (const { at: when, proof } of proofs) {
    // A proof that served another run of its session is one proof.
    if (proof?.share === undefined || proof.takenAt) continue;
    const list = history.get(proof.machine) ?? [];
    history.set(proof.machine, list);
    if (list.length < 30) list.unshift({ at: when, share: proof.share });
  }
  return Object.fromEntries(history);
}
