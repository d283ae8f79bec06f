import { eq } from "drizzle-orm";
import { validate } from "@/core/input";
import { DEFAULT_SHOP, type Shop, shopSchema } from "@/core/shop/settings";
import { type Db, db } from "./db/open";
import { settings } from "./db/schema";

/** The shop's settings; defaults until somebody sets them, and for limits added since. */
export function readShop(at: Db = db()): Shop {
  const row = at.select().from(settings).where(eq(settings.key, "shop")).get();
  if (!row) return DEFAULT_SHOP;
  const saved = JSON.parse(row.value) as Shop;
  return {
    ...DEFAULT_SHOP,
    ...saved,
    limits: { ...DEFAULT_SHOP.limits, ...saved.limits },
    house: { ...DEFAULT_SHOP.house, ...saved.house },
  };
}

/** Saves the shop's settings. Throws BadInput for what its schema refuses. */
export function writeShop(shop: unknown, at: Db = db()): Shop {
  const valid = validate<Shop>(shopSchema, shop);
  const value = JSON.stringify(valid);
  at.insert(settings).values({ key: "shop", value }).onConflictDoUpdate({ target: settings.key, set: { value } }).run();
  return valid;
}
