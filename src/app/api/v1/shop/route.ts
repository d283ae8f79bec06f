import { door, doorFor, jsonBody } from "@/server/http";
import { readShopVersion, writeShop } from "@/server/shop";

export const dynamic = "force-dynamic";
export const GET = (request: Request) => door(request, () => readShopVersion());
export const PUT = (request: Request) =>
  doorFor("record", request, async (who) => writeShop(await jsonBody(request), undefined, who));
