import { answer, jsonBody } from "@/server/http";
import { appendEntries, readEntries } from "@/server/jobs";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  answer(async () => readEntries((await params).id, Number(new URL(request.url).searchParams.get("after")) || 0));

export const POST = (request: Request, { params }: Context) =>
  answer(async () => appendEntries((await params).id, await jsonBody(request)));
