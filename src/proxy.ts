import { randomBytes } from "node:crypto";
import { type NextRequest, NextResponse } from "next/server";
import { NONCE_HEADER, turnedAway } from "@/server/gate";

/** The gate before every page and door, but those that take bytes: bodies are held in memory on their way through here. */
export const config = {
  matcher: ["/((?!api/v1/import$|api/v1/jobs/[^/]+/files$|api/v1/jobs/[^/]+/pictures$).*)"],
};

/**
 * What a page may do: run our own scripts and those that carry this answer's nonce, show our own pictures and those made
 * on the page, talk to this server, stand in no other page. Charts and maps place things by style.
 */
const policyOf = (nonce: string) =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");

/** A page with its policy: the framework takes the nonce from the request's own header, our theme script from the other. */
function page(request: NextRequest): NextResponse {
  const nonce = randomBytes(16).toString("base64");
  const policy = policyOf(nonce);
  const headers = new Headers(request.headers);
  headers.set("content-security-policy", policy);
  headers.set(NONCE_HEADER, nonce);
  const answer = NextResponse.next({ request: { headers } });
  answer.headers.set("content-security-policy", policy);
  return answer;
}

export function proxy(request: NextRequest): NextResponse {
  const { pathname } = request.nextUrl;
  const open = pathname === "/unlock" || pathname === "/api/v1/session" || pathname.startsWith("/_next/static/");
  const refusal = turnedAway(request, open);
  if (!refusal) return /^\/(api|_next)\//.test(pathname) ? NextResponse.next() : page(request);
  if (refusal.status === 403) return new NextResponse(refusal.message, { status: 403 });
  if (pathname.startsWith("/api/")) return NextResponse.json({ error: { message: refusal.message } }, { status: 401 });
  const door = new URL("/unlock", request.nextUrl);
  door.searchParams.set("to", pathname);
  return NextResponse.redirect(door);
}
