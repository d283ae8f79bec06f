import { deviceIdOf } from "@/server/devices";
import { door, jsonBody } from "@/server/http";
import { hasLead, listPeople } from "@/server/people";
import { signIn } from "@/server/sign-in";

export const dynamic = "force-dynamic";

/** Who may sign in, and whether the shop has a lead; in the demo everybody's PIN. */
export const GET = (request: Request) =>
  door(request, () => ({
    people: listPeople()
      .filter((p) => p.hasPin && !p.left)
      .map(({ id, name, role }) => ({ id, name, role })),
    lead: hasLead(),
    ...(process.env.PELOTA_DEMO_PIN ? { demoPin: process.env.PELOTA_DEMO_PIN } : {}),
  }));

/** A person and their PIN for a sign-in, and the key that what they make is signed with. */
export const POST = (request: Request) =>
  door(request, async () => signIn(await jsonBody(request, 4096), deviceIdOf(request.headers)));
