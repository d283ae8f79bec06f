"use client";

import type { Shop } from "@/core/shop/settings";
import type { Tally } from "@/core/suspects";
import { lately } from "./lately";
import { load, save } from "./storage";

const KEY = "pelota.shop";

/** The shop's settings as this device last saw them: what is judged by while the server is offline. */
export const knownShop = (): Shop | undefined => load<Shop>(KEY);
/** Heard by whoever shows what the shop decided, as it is seen anew. */
export const SHOP_SEEN = "pelota:shop";
export function keepShop(shop: Shop): void {
  save(KEY, shop);
  window.dispatchEvent(new Event(SHOP_SEEN));
}

/** Experience from the shop's own proved jobs of a job's car, as the server said it last. */
export const experienceLately = lately<Tally>("pelota.experience.jobs");
