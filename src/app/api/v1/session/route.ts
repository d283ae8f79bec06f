import { scryptSync, timingSafeEqual } from "node:crypto";
import { BadInput } from "@/core/input";
import { GATE_COOKIE } from "@/proxy";
import { answer, jsonBody } from "@/server/http";

const YEAR = 365 * 24 * 3600;

/** Lets a device in for the shop passphrase. */
export const POST = (request: Request) =>
  answer(async () => {
    const gate = process.env.PELOTA_GATE;
    const { passphrase } = (await jsonBody(request, 4096)) as { passphrase?: unknown };
    if (!gate || typeof passphrase !== "string") throw new BadInput("Type the shop passphrase");
    const given = scryptSync(passphrase.trim(), process.env.PELOTA_GATE_SALT ?? "", 32);
    if (!timingSafeEqual(given, Buffer.from(gate, "hex")))
      throw new BadInput("That is not the shop passphrase. Ask who started the app");
    return Response.json(
      {},
      { headers: { "set-cookie": `${GATE_COOKIE}=${gate}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${YEAR}` } },
    );
  });
