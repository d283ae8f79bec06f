import { randomBytes } from "node:crypto";
import { type NextRequest, NextResponse } from "next/server";
import { turnedAway } from "@/server/network-access";
import { NONCE_HEADER, policyOf } from "@/server/page-policy";

/** The gate before every page. The doors of `/api` ask by themselves: bodies would be held in memory on their way through here. */
export const config = { matcher: ["/((?!api/).*)"] };

/** For devices that are not in: where one is let in, and what the app is kept by. */
const OPEN = ["/unlock", "/sw.js", "/manifest.webmanifest", "/icon.svg"];

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
  const refusal = turnedAway(request, OPEN.includes(pathname) || pathname.startsWith("/_next/static/"));
  if (!refusal) return pathname.startsWith("/_next/") ? NextResponse.next() : page(request);
  if (refusal.status === 403) return new NextResponse(refusal.message, { status: 403 });
  const door = new URL("/unlock", request.nextUrl);
  door.searchParams.set("to", pathname);
  return NextResponse.redirect(door);
}
