import { door, doorFor, jsonBody } from "@/server/http";
import { eraseCustomer, readCustomer, writeCustomer } from "@/server/jobs";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) => door(request, async () => readCustomer((await params).id) ?? null);
export const PUT = (request: Request, { params }: Context) =>
  doorFor("record", request, async () => writeCustomer((await params).id, await jsonBody(request)));
export const DELETE = (request: Request, { params }: Context) =>
  doorFor("erase-customer", request, async () => eraseCustomer((await params).id));
