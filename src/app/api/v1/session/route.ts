import { scryptSync, timingSafeEqual } from "node:crypto";
import { BadInput } from "@/core/input";
import { GATE_COOKIE } from "@/proxy";
import { answer, jsonBody } from "@/server/http";
import { takeCode } from "@/server/live";

const YEAR = 365 * 24 * 3600;

/** Lets a device in for the shop passphrase, or for a code shown on a device that is in. */
export const POST = (request: Request) =>
  answer(async () => {
    const gate = process.env.PELOTA_GATE;
    const { passphrase } = (await jsonBody(request, 4096)) as { passphrase?: unknown };
    if (!gate || typeof passphrase !== "string") throw new BadInput("Type the shop passphrase");
    const typed = passphrase.trim();
    const given = scryptSync(typed, process.env.PELOTA_GATE_SALT ?? "", 32);
    const asCode = typed.replace(/\s/g, "");
    if (!timingSafeEqual(given, Buffer.from(gate, "hex")) && !(/^\d{6}$/.test(asCode) && takeCode(asCode)))
      throw new BadInput("That is neither the shop passphrase nor a code that still counts. Ask who started the app");
    return Response.json(
      {},
      { headers: { "set-cookie": `${GATE_COOKIE}=${gate}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${YEAR}` } },
    );
  });
