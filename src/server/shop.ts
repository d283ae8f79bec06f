import { and, desc, eq, inArray, lte, ne, notInArray, sql } from "drizzle-orm";
import * as yup from "yup";
import { CHECK_IDS, CHECKS } from "@/core/checks";
import { BadInput, needed, strictObject, validate } from "@/core/input";
import type { Bodies } from "@/core/journal";
import { ACTS, may, mayNot, shopActs } from "@/core/people";
import { mergeShops } from "@/core/shop/merge";
import {
  DEFAULT_SHOP,
  type HouseMethods,
  liftShop,
  type Proof,
  type Shop,
  type ShopVersion,
  shopSchema,
} from "@/core/shop/settings";
import { nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { entries, jobs, shopVersions } from "./db/schema";
import { parsed } from "./parsed";
import { Conflict, Forbidden } from "./refusals";
import { logged } from "./security-log";
import type { Who } from "./sign-in";

type Row = typeof shopVersions.$inferSelect;
const versionOf = (row: Row | undefined): ShopVersion => ({
  version: row?.version ?? 0,
  at: row?.at ?? "",
  by: row?.by ?? "",
  shop: row ? (liftShop(parsed(row.value)) as Shop) : DEFAULT_SHOP,
});

/** The settings that hold. */
export const readShopVersion = (at: Db = db()): ShopVersion =>
  versionOf(at.select().from(shopVersions).orderBy(desc(shopVersions.version)).limit(1).get());

/** The shop's settings; defaults until somebody sets them, and for limits added since. */
export const readShop = (at: Db = db()): Shop => readShopVersion(at).shop;

const savingSchema = strictObject({
  base: yup.number().integer().min(0).required("Say which version was changed"),
  by: needed("The name", "Say who saves it", 80),
  shop: yup.mixed<object>().required("Send the shop's settings"),
});

/**
 * Saves the shop's settings: what was changed in version `base` goes into the newest, field by field.
 * Throws BadInput for what the schema refuses, Conflict where another has changed a field otherwise, Forbidden for what their
 * role may not change; nothing is saved then.
 * @param who saves it, under their own name; undefined where the shop has no lead yet.
 */
export function writeShop(input: unknown, at: Db = db(), who?: Who): ShopVersion {
  const { base, by: said, shop } = validate<{ base: number; by: string; shop: unknown }>(savingSchema, input);
  const by = who?.name ?? said;
  const mine = validate<Shop>(shopSchema, shop, "shop");
  const write = at.$client.transaction((): ShopVersion => {
    const newest = readShopVersion(at);
    const began = at.select().from(shopVersions).where(eq(shopVersions.version, base)).get();
    if (base !== 0 && !began) throw new BadInput("These settings are no longer there: load them again", "base");
    const { merged, clashes } = mergeShops(versionOf(began).shop, mine, newest.shop);
    if (clashes.length > 0)
      throw new Conflict(
        `${newest.by || "Somebody"} has changed ${clashes.join(", ")} meanwhile: nothing was saved. Look at what stands there now, or save yours over it`,
      );
    const valid = validate<Shop>(shopSchema, merged);
    const acts = shopActs(newest.shop, valid);
    const forbidden = acts.find((act) => !may(who?.role, act));
    if (forbidden) throw new Forbidden(mayNot(forbidden));
    const watched = acts.filter((act) => act !== "keep-equipment");
    if (watched.length > 0)
      logged({ what: "limits-changed", who: by, device: "", detail: watched.map((act) => ACTS[act].words).join("; ") }, at);
    const row = { at: nowIso(), by, value: JSON.stringify(valid) };
    return versionOf(at.insert(shopVersions).values(row).returning().get());
  });
  return write.immediate();
}

/** The house methods as they stood at a time (ISO); the defaults before anything was saved. */
export function houseOn(time: string, at: Db = db()): HouseMethods {
  const then = at
    .select()
    .from(shopVersions)
    .where(lte(shopVersions.at, time))
    .orderBy(desc(shopVersions.version))
    .limit(1)
    .get();
  return versionOf(then).shop.house;
}

/** Kinds whose records prove a machine. */
const PROVING = CHECK_IDS.filter((kind) => CHECKS[kind].machineProof);

/** Proofs of each machine by its name, oldest first, at most the newest 30: from the records of every job on a real car. */
export function proofHistory(at: Db = db()): Record<string, Proof[]> {
  const practice = at.select({ id: jobs.id }).from(jobs).where(ne(jobs.practice, ""));
  const rows = at
    .select({ body: entries.body, at: entries.at })
    .from(entries)
    // Said as the index over checks says it: of a value that is bound later SQLite cannot tell that it is the same.
    .where(
      and(
        sql`${entries.kind} = 'check'`,
        inArray(sql`json_extract(${entries.body}, '$.check')`, PROVING),
        notInArray(entries.jobId, practice),
      ),
    )
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
