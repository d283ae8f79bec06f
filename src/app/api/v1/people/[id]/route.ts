import { doorFor, jsonBody } from "@/server/http";
import { changePerson } from "@/server/people";

type Context = { params: Promise<{ id: string }> };

/** Role, PIN, whether they work here: a lead's. */
export const PUT = (request: Request, { params }: Context) =>
  doorFor("manage-people", request, async () => changePerson((await params).id, await jsonBody(request, 4096)));
