import { timingSafeEqual } from "node:crypto";
import { type NextRequest, NextResponse } from "next/server";

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;
export const GATE_COOKIE = "pelota_gate";

const same = (a: string, b: string) => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

/**
 * Who may come in. Without a shop passphrase only this machine; with one, only who has given it. Writes must come from
 * our own pages.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get("host") ?? "";
  const gate = process.env.PELOTA_GATE;
  if (!gate && !LOOPBACK.test(host)) {
    return new NextResponse("This shop is open to its own machine only. Start it with --host to ask for a passphrase.", {
      status: 403,
    });
  }
  const origin = request.headers.get("origin");
  if (request.method !== "GET" && request.method !== "HEAD" && origin && new URL(origin).host !== host) {
    return new NextResponse("Requests from other sites are not taken.", { status: 403 });
  }
  const open =
    request.nextUrl.pathname === "/unlock" ||
    request.nextUrl.pathname === "/api/v1/session" ||
    request.nextUrl.pathname.startsWith("/_next/static/");
  if (gate && !open && !same(request.cookies.get(GATE_COOKIE)?.value ?? "", gate)) {
    if (request.nextUrl.pathname.startsWith("/api/")) {
      return NextResponse.json({ error: { message: "Give the shop passphrase first" } }, { status: 401 });
    }
    const door = new URL("/unlock", request.nextUrl);
    door.searchParams.set("to", request.nextUrl.pathname);
    return NextResponse.redirect(door);
  }
  return NextResponse.next();
}
