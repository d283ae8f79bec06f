import { timingSafeEqual } from "node:crypto";

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;
export const GATE_COOKIE = "pelota_gate";

function same(a: string, b: string): boolean {
  // Compared as bytes: a cookie may hold anything.
  const [given, wanted] = [Buffer.from(a), Buffer.from(b)];
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}

/** Whether a request's origin is this very host; what is no address is none of ours. */
const isOurs = (origin: string, host: string) => URL.canParse(origin) && new URL(origin).host === host;

/** The value of our own cookie in a request's cookies, whatever else stands there. */
function gateCookie(header: string | null): string {
  const own = (header ?? "").split(";").map((c) => c.trim());
  return own.find((c) => c.startsWith(`${GATE_COOKIE}=`))?.slice(GATE_COOKIE.length + 1) ?? "";
}

export interface TurnedAway {
  readonly status: 401 | 403;
  readonly message: string;
}

/**
 * Who may come in. Without a shop passphrase only this machine; with one, only who has given it. Writes must come from
 * our own pages. Undefined lets in; `open` doors ask for no passphrase.
 */
export function turnedAway({ headers, method }: Pick<Request, "headers" | "method">, open = false): TurnedAway | undefined {
  const host = headers.get("host") ?? "";
  const gate = process.env.PELOTA_GATE;
  if (!gate && !LOOPBACK.test(host)) {
    return {
      status: 403,
      message: "This shop is open to its own machine only. Start it with --host to ask for a passphrase.",
    };
  }
  const origin = headers.get("origin");
  if (method !== "GET" && method !== "HEAD" && origin !== null && !isOurs(origin, host))
    return { status: 403, message: "Requests from other sites are not taken." };
  if (gate && !open && !same(gateCookie(headers.get("cookie")), gate))
    return { status: 401, message: "Give the shop passphrase first" };
  return undefined;
}
