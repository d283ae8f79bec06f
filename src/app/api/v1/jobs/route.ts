import { answer, jsonBody } from "@/server/http";
import { openJob } from "@/server/jobs";

export const POST = (request: Request) => answer(async () => openJob(await jsonBody(request)));
