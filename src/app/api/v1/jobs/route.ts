import { door, jsonBody } from "@/server/http";
import { openJob } from "@/server/jobs";

export const POST = (request: Request) => door(request, async () => openJob(await jsonBody(request)));
