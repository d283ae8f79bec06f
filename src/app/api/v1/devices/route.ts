import { deviceIdOf, listDevices } from "@/server/devices";
import { doorFor } from "@/server/http";

export const dynamic = "force-dynamic";

/** Every device that was let in, and which of them asks; whether the shop is open to its network at all. */
export const GET = (request: Request) =>
  doorFor("manage-devices", request, () => ({
    open: Boolean(process.env.PELOTA_GATE),
    own: deviceIdOf(request.headers),
    devices: listDevices(),
  }));
