import { putOut } from "@/server/devices";
import { doorFor } from "@/server/http";

type Context = { params: Promise<{ id: string }> };

/** Puts a device out, at once. */
export const DELETE = (request: Request, { params }: Context) =>
  doorFor("manage-devices", request, async () => putOut((await params).id));
