import { scrypt, timingSafeEqual } from "node:crypto";
import { promisify } from "node:util";
import { BadInput, validate } from "@/core/input";
import { unlockSchema } from "@/core/people";
import { DEVICE_COOKIE, enrol, SECURE_COOKIE } from "@/server/devices";
import { jsonBody, openDoor } from "@/server/http";
import { takeCode } from "@/server/live";
import { guess } from "@/server/rate-limit";
import { logged } from "@/server/security-log";

const YEAR = 365 * 24 * 3600;
const derive = promisify(scrypt) as (passphrase: string, salt: string, length: number) => Promise<Buffer>;

/** Lets a device in for the shop passphrase, or for a code shown on a device that is in. */
export const POST = (request: Request) =>
  openDoor(request, async () => {
    const gate = process.env.PELOTA_GATE;
    const { passphrase, name = "" } = validate<{ passphrase: string; name?: string }>(
      unlockSchema,
      await jsonBody(request, 4096),
    );
    if (!gate) throw new BadInput("This shop asks for no passphrase");
    const typed = passphrase.trim();
    const asCode = typed.replace(/\s/g, "");
    // The server notes the socket's address there; what a client says of itself is taken off.
    const address = request.headers.get("x-pelota-address") ?? "";
    const guessed = await guess(`passphrase or code from ${address}`, async () => {
      if (/^\d{6}$/.test(asCode) && takeCode(asCode)) return true;
      return timingSafeEqual(await derive(typed, process.env.PELOTA_GATE_SALT ?? "", 32), Buffer.from(gate, "hex"));
    });
    const device = { who: "", device: name, detail: address && `from ${address}` };
    if (guessed.in) {
      logged({ what: "device-in", ...device });
      const secure = request.headers.get("x-pelota-secure") === "1";
      const cookie = `${secure ? SECURE_COOKIE : DEVICE_COOKIE}=${enrol(name)}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${YEAR}${secure ? "; Secure" : ""}`;
      return Response.json({}, { headers: { "set-cookie": cookie } });
    }
    if (guessed.looked) logged({ what: "wrong-passphrase", ...device });
    const said = "That is neither the shop passphrase nor a code that still counts. Ask who started the app";
    if (guessed.wait === 0) throw new BadInput(said, "passphrase");
    return Response.json(
      {
        error: { message: `${said}. Too many wrong guesses: the next one is looked at in ${guessed.wait} s`, path: "passphrase" },
      },
      { status: 429, headers: { "retry-after": String(guessed.wait) } },
    );
  });
