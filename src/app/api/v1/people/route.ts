import { answer, jsonBody } from "@/server/http";
import { addPerson, listPeople } from "@/server/people";

export const dynamic = "force-dynamic";
export const GET = () => answer(() => listPeople());
export const POST = (request: Request) => answer(async () => addPerson(await jsonBody(request)));
