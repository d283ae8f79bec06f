import { deviceIdOf } from "@/server/devices";
import { door, jsonBody } from "@/server/http";
import { changeOwnPin } from "@/server/sign-in";

/** Another PIN for oneself, for the old one. */
export const POST = (request: Request) =>
  door(request, async () => changeOwnPin(await jsonBody(request, 4096), deviceIdOf(request.headers)));
