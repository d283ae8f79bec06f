import { deviceName, putOut } from "@/server/devices";
import { doorFor } from "@/server/http";
import { loggedOf } from "@/server/security-log";

type Context = { params: Promise<{ id: string }> };

/** Puts a device out, at once. */
export const DELETE = (request: Request, { params }: Context) =>
  doorFor("manage-devices", request, async (who) => {
    const { id } = await params;
    putOut(id);
    loggedOf(request, "device-out", who, deviceName(id));
  });
