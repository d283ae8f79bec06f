import { ROLES } from "@/core/people";
import { doorFor, jsonBody } from "@/server/http";
import { changePerson } from "@/server/people";
import { loggedOf } from "@/server/security-log";

type Context = { params: Promise<{ id: string }> };

/** Role, PIN, whether they work here: a lead's. */
export const PUT = (request: Request, { params }: Context) =>
  doorFor("manage-people", request, async (who) => {
    const change = (await jsonBody(request, 4096)) as { readonly pin?: unknown };
    const person = await changePerson((await params).id, change);
    const how = person.left ? "has left the shop" : ROLES[person.role].toLowerCase();
    loggedOf(request, change.pin === undefined ? "person-changed" : "pin-changed", who, `${person.name}, ${how}`);
    return person;
  });
