import { validate } from "@/core/input";
import { type LiveCall, liveCallSchema } from "@/core/live";
import { door, jsonBody } from "@/server/http";
import { callOut } from "@/server/live";
import { NotFound } from "@/server/refusals";

/** "More", "less" or "there" from a second device. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const { call } = validate<{ call: LiveCall }>(liveCallSchema, await jsonBody(request, 4096));
    if (!callOut((await params).id, call)) throw new NotFound("No run is on the air: start it on the first device");
  });
