"use client";

import type { Shop } from "@/core/shop/settings";
import type { Tally } from "@/core/suspects";
import { lately } from "./lately";
import { load, save } from "./storage";

const KEY = "pelota.shop";

/** The shop's settings as this device last saw them: what is judged by while the server is away. */
export const knownShop = (): Shop | undefined => load<Shop>(KEY);
export const keepShop = (shop: Shop): void => save(KEY, shop);

/** Experience from the shop's own proved jobs of a job's car, as the server said it last. */
export const experienceLately = lately<Tally>("pelota.experience.jobs");
