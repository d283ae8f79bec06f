import { door } from "@/server/http";
import { newCode } from "@/server/live";

/** A code for one more device; whoever may ask is in already. Null where the shop is open to this machine alone. */
export const POST = (request: Request) =>
  door(request, () => {
    const { PELOTA_GATE: gate, PELOTA_NETWORK: network } = process.env;
    // Where this shop is on HTTPS, other devices come by the plain page that tells how to trust it.
    return gate ? { ...newCode(), ...(network ? JSON.parse(network) : {}) } : null;
  });
