import { doorFor } from "@/server/http";
import { playedBy } from "@/server/practice";

export const dynamic = "force-dynamic";

/** Practice cases played: one's own, and everybody's for a lead. */
export const GET = (request: Request) => doorFor("record", request, (who) => playedBy(who));
