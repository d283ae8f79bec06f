import { type NextRequest, NextResponse } from "next/server";
import { turnedAway } from "@/server/gate";

/** The gate before every page and door, but those that take bytes: bodies are held in memory on their way through here. */
export const config = {
  matcher: ["/((?!api/v1/import$|api/v1/jobs/[^/]+/files$|api/v1/jobs/[^/]+/pictures$).*)"],
};

export function proxy(request: NextRequest): NextResponse {
  const { pathname } = request.nextUrl;
  const open = pathname === "/unlock" || pathname === "/api/v1/session" || pathname.startsWith("/_next/static/");
  const refusal = turnedAway(request, open);
  if (!refusal) return NextResponse.next();
  if (refusal.status === 403) return new NextResponse(refusal.message, { status: 403 });
  if (pathname.startsWith("/api/")) return NextResponse.json({ error: { message: refusal.message } }, { status: 401 });
  const door = new URL("/unlock", request.nextUrl);
  door.searchParams.set("to", pathname);
  return NextResponse.redirect(door);
}
