import { door, doorFor, jsonBody } from "@/server/http";
import { readMapping, writeMapping } from "@/server/mappings";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ signature: string }> };

export const GET = (request: Request, { params }: Context) =>
  door(request, async () => readMapping((await params).signature) ?? null);
export const PUT = (request: Request, { params }: Context) =>
  doorFor("record", request, async () => writeMapping((await params).signature, await jsonBody(request)));
