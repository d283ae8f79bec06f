import { changeStream } from "@/server/changes";
import { deviceIdOf } from "@/server/devices";
import { door } from "@/server/http";
import { turnedAway } from "@/server/network-access";

export const dynamic = "force-dynamic";

/** Not compressed on the way: each change is to arrive at once. */
const HEADERS = { "content-type": "text/event-stream", "cache-control": "no-cache, no-transform" };

export const GET = (request: Request) =>
  door(
    request,
    () =>
      new Response(
        changeStream(request.signal, deviceIdOf(request.headers), () => !turnedAway(request)),
        { headers: HEADERS },
      ),
  );
