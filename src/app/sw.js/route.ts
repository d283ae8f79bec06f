import { readFileSync } from "node:fs";
import { resolve } from "node:path";

export const dynamic = "force-dynamic";

/** The service worker, as it was bundled with this build. */
export function GET(): Response {
  try {
    const code = readFileSync(resolve(/* turbopackIgnore: true */ "out/sw.js"), "utf8");
    return new Response(code, { headers: { "content-type": "text/javascript; charset=utf-8", "cache-control": "no-cache" } });
  } catch {
    // Under development nothing is bundled.
    return new Response("", { status: 404 });
  }
}
