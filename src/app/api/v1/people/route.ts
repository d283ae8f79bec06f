import { door, doorFor, jsonBody } from "@/server/http";
import { addPerson, listPeople } from "@/server/people";

export const dynamic = "force-dynamic";
export const GET = (request: Request) => door(request, () => listPeople());
export const POST = (request: Request) => doorFor("manage-people", request, async () => addPerson(await jsonBody(request)));
