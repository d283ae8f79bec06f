import { boardFolded, visitsOf } from "@/server/board";
import { door, jsonBody } from "@/server/http";
import { takeOpening } from "@/server/jobs";

export const dynamic = "force-dynamic";

/** Jobs on a car that was here before, by its `registration`. */
export const GET = (request: Request) =>
  door(request, async () => {
    await boardFolded();
    return visitsOf(new URL(request.url).searchParams.get("registration") ?? "");
  });
export const POST = (request: Request) => door(request, async () => takeOpening(await jsonBody(request)));
