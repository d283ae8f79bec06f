import { door } from "@/server/http";
import { newCode } from "@/server/live";

/** A code for one more device; whoever may ask is in already. Null where the shop is open to this machine alone. */
export const POST = (request: Request) => door(request, () => (process.env.PELOTA_GATE ? newCode() : null));
