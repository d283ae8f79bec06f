/// <reference lib="webworker" />
import { CacheFirst, ExpirationPlugin, NetworkOnly, type PrecacheEntry, Serwist } from "serwist";

declare const self: ServiceWorkerGlobalScope;
/** Everything that the built app is made of, put here as it is built. */
declare const PRECACHED: PrecacheEntry[];

/** A server that says nothing for so long is not there, ms. */
const SILENCE = 5000;
const SEEN = 400;

/** Shell that a page is drawn from without the server: a job's from the bench, whichever job it is; what has no shell, from what this device holds. */
const shellFor = (path: string): string => {
  if (/^\/jobs\/[^/]+$/.test(path)) return "/bench";
  return PRECACHED.some((entry) => entry.url === path) ? path : "/away";
};

const worker = new Serwist({
  precacheEntries: PRECACHED,
  // The address asks for a check, or names a code: the page is the same.
  precacheOptions: { cleanupOutdatedCaches: true, ignoreURLParametersMatching: [/.*/] },
  // A page is drawn by the build it came from: the new one takes over as the next page is opened.
  skipWaiting: false,
  clientsClaim: true,
  runtimeCaching: [
    {
      // Pictures are named by their content: what was seen once is kept.
      matcher: ({ url, sameOrigin, request }) =>
        sameOrigin && request.method === "GET" && /^\/api\/v1\/jobs\/[^/]+\/pictures\//.test(url.pathname),
      handler: new CacheFirst({ cacheName: "pictures", plugins: [new ExpirationPlugin({ maxEntries: SEEN })] }),
    },
  ],
});

const online = new NetworkOnly({ networkTimeoutSeconds: SILENCE / 1000 });

/** A worker takes what it is to do from its own address, and that is its script's: a kept script must not bring its own. */
self.addEventListener("fetch", (event) => {
  if (event.request.destination !== "worker") return;
  event.stopImmediatePropagation();
  event.respondWith(
    worker
      .matchPrecache(event.request.url.split("?")[0] as string)
      .then((kept) => (kept ? new Response(kept.body, { headers: kept.headers }) : fetch(event.request))),
  );
});

/** Pages come from the server as long as it answers; jobs and customers in them are not kept. */
self.addEventListener("fetch", (event) => {
  const { request } = event;
  if (request.mode !== "navigate" || new URL(request.url).origin !== self.location.origin) return;
  const { pathname } = new URL(request.url);
  // Papers and files take the server the time they take.
  if (pathname.startsWith("/api/")) return;
  event.stopImmediatePropagation();
  event.respondWith(
    online.handle({ event, request }).catch(async () => {
      const shell = await worker.matchPrecache(shellFor(pathname));
      return shell ?? Response.error();
    }),
  );
});

self.addEventListener("message", ({ data }) => {
  if (data === "take over") void self.skipWaiting();
});

worker.addEventListeners();
