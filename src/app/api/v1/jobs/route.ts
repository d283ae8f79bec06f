import { door, jsonBody } from "@/server/http";
import { takeOpening } from "@/server/jobs";

export const dynamic = "force-dynamic";

export const POST = (request: Request) => door(request, async () => takeOpening(await jsonBody(request)));
