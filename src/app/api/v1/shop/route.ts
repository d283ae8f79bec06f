import { answer, jsonBody } from "@/server/http";
import { readShopVersion, writeShop } from "@/server/shop";

export const dynamic = "force-dynamic";
export const GET = () => answer(() => readShopVersion());
export const PUT = (request: Request) => answer(async () => writeShop(await jsonBody(request)));
