import { answer, jsonBody } from "@/server/http";
import { readShop, writeShop } from "@/server/shop";

export const dynamic = "force-dynamic";
export const GET = () => answer(() => readShop());
export const PUT = (request: Request) => answer(async () => writeShop(await jsonBody(request)));
