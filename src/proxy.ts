import { randomBytes } from "node:crypto";
import { type NextRequest, NextResponse } from "next/server";
import { turnedAway } from "@/server/gate";
import { NONCE_HEADER, policyOf } from "@/server/page-policy";

/** The gate before every page and door, but those that take bytes: bodies are held in memory on their way through here. */
export const config = {
  matcher: ["/((?!api/v1/import$|api/v1/jobs/[^/]+/files$|api/v1/jobs/[^/]+/pictures$).*)"],
};

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
