import { answer, jsonBody } from "@/server/http";
import { eraseCustomer, readCustomer, writeCustomer } from "@/server/jobs";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

export const GET = (_request: Request, { params }: Context) => answer(async () => readCustomer((await params).id) ?? null);
export const PUT = (request: Request, { params }: Context) =>
  answer(async () => writeCustomer((await params).id, await jsonBody(request)));
export const DELETE = (_request: Request, { params }: Context) => answer(async () => eraseCustomer((await params).id));
