import { eraseCustomer, readCustomer, writeCustomer } from "@/server/customers";
import { door, doorFor, jsonBody } from "@/server/http";
import { jobNumber } from "@/server/jobs";
import { loggedOf } from "@/server/security-log";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) => door(request, async () => readCustomer((await params).id) ?? null);
export const PUT = (request: Request, { params }: Context) =>
  doorFor("record", request, async (who) => writeCustomer((await params).id, await jsonBody(request), undefined, who?.role));
export const DELETE = (request: Request, { params }: Context) =>
  doorFor("erase-customer", request, async (who) => {
    const { id } = await params;
    eraseCustomer(id);
    loggedOf(request, "customer-erased", who, `Job ${jobNumber(id)}`);
  });
