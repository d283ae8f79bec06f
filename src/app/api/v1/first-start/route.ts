import { deviceIdOf } from "@/server/devices";
import { firstStart } from "@/server/first-start";
import { door, jsonBody } from "@/server/http";

/** The shop's name, its lead, its people and first machine; once. */
export const POST = (request: Request) =>
  door(request, async () => firstStart(await jsonBody(request, 65536), undefined, deviceIdOf(request.headers)));
