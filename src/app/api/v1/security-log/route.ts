import { doorFor } from "@/server/http";
import { readSecurityLog } from "@/server/security-log";

export const dynamic = "force-dynamic";

/** Events at the doors, the newest first: for the lead. */
export const GET = (request: Request) => doorFor("see-security-log", request, () => readSecurityLog());
