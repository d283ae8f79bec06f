import { ROLES } from "@/core/people";
import { door, doorFor, jsonBody } from "@/server/http";
import { addPerson, listPeople } from "@/server/people";
import { loggedOf } from "@/server/security-log";

export const dynamic = "force-dynamic";
export const GET = (request: Request) => door(request, () => listPeople());
export const POST = (request: Request) =>
  doorFor("manage-people", request, async (who) => {
    const person = await addPerson(await jsonBody(request, 4096));
    loggedOf(request, "person-added", who, `${person.name}, ${ROLES[person.role].toLowerCase()}`);
    return person;
  });
