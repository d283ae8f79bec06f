import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { NATURAL } from "@/core/core.fixture";
import * as board from "@/server/board";
import { db } from "@/server/db/open";
import * as jobs from "@/server/jobs";
import { type Asked, entryOf, mutatedRequests, opening, STORY } from "@/server/mutated.fixture";
import { trials } from "../../trials.fixture";

const REQUESTS = trials(1500, 10_000);
/** No answer takes longer, ms. */
const HANGS = 2000;
let folder: string;

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "pelota-routes-"));
  vi.stubEnv("PELOTA_DATA", folder);
});
afterAll(() => {
  db().$client.close();
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
});

type Door = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;
/** The module of each route, and the names of what stands in its address. */
const ROUTES: readonly (readonly [RegExp, readonly string[], () => Promise<object>])[] = [
  [/^\/api\/v1\/jobs$/, [], () => import("./v1/jobs/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/entries$/, ["id"], () => import("./v1/jobs/[id]/entries/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/customer$/, ["id"], () => import("./v1/jobs/[id]/customer/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/live$/, ["id"], () => import("./v1/jobs/[id]/live/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/live\/calls$/, ["id"], () => import("./v1/jobs/[id]/live/calls/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/engine$/, ["id"], () => import("./v1/jobs/[id]/engine/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/export$/, ["id"], () => import("./v1/jobs/[id]/export/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/readings$/, ["id"], () => import("./v1/jobs/[id]/readings/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/files$/, ["id"], () => import("./v1/jobs/[id]/files/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/files\/([^/]+)$/, ["id", "sha256"], () => import("./v1/jobs/[id]/files/[sha256]/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/pictures$/, ["id"], () => import("./v1/jobs/[id]/pictures/route")],
  [/^\/api\/v1\/jobs\/([^/]+)\/pictures\/([^/]+)$/, ["id", "sha256"], () => import("./v1/jobs/[id]/pictures/[sha256]/route")],
  [/^\/api\/v1\/people$/, [], () => import("./v1/people/route")],
  [/^\/api\/v1\/people\/own-pin$/, [], () => import("./v1/people/own-pin/route")],
  [/^\/api\/v1\/people\/([^/]+)$/, ["id"], () => import("./v1/people/[id]/route")],
  [/^\/api\/v1\/sign-in$/, [], () => import("./v1/sign-in/route")],
  [/^\/api\/v1\/practice$/, [], () => import("./v1/practice/route")],
  [/^\/api\/v1\/devices$/, [], () => import("./v1/devices/route")],
  [/^\/api\/v1\/devices\/([^/]+)$/, ["id"], () => import("./v1/devices/[id]/route")],
  [/^\/api\/v1\/queue$/, [], () => import("./v1/queue/route")],
  [/^\/api\/v1\/shop$/, [], () => import("./v1/shop/route")],
  [/^\/api\/v1\/session$/, [], () => import("./v1/session/route")],
  [/^\/api\/v1\/import$/, [], () => import("./v1/import/route")],
  [/^\/api\/v1\/mappings\/([^/]+)$/, ["signature"], () => import("./v1/mappings/[signature]/route")],
];

async function ask({ method, path, headers, body }: Asked): Promise<Response> {
  const url = new URL(path, "http://127.0.0.1:4310");
  const found = ROUTES.find(([pattern]) => pattern.test(url.pathname));
  if (!found) throw new Error(`No route for ${path}`);
  const [pattern, names, load] = found;
  const door = ((await load()) as Record<string, Door>)[method];
  if (!door) throw new Error(`No ${method} at ${path}`);
  const values = pattern.exec(url.pathname)?.slice(1) ?? [];
  const params = Object.fromEntries(names.map((name, i) => [name, decodeURIComponent(values[i] as string)]));
  const sent = new Headers({ host: "127.0.0.1:4310" });
  // What cannot stand in a header never reaches a route.
  for (const [name, value] of Object.entries(headers)) if (/^[\x20-\x7e\xa0-\xff]*$/.test(value)) sent.set(name, value);
  return door(new Request(url, { method, headers: sent, ...(body === undefined ? {} : { body }) }), {
    params: Promise.resolve(params),
  });
}

describe("every route", () => {
  it(`answers ${REQUESTS} mutated requests with no fault of ours, and none takes long`, async () => {
    vi.spyOn(console, "warn").mockImplementation(() => {});
    const faults = vi.spyOn(console, "error").mockImplementation(() => {});
    const known = Array.from({ length: 20 }, () => uuid());
    for (const job of known) {
      jobs.openJob(opening(job));
      jobs.appendEntries(job, [entryOf(job, "vehicle", NATURAL), entryOf(job, "story", STORY)]);
    }
    const next = mutatedRequests(2026, known, false);
    const wrong: string[] = [];
    const statuses = new Map<number, number>();
    for (let i = 0; i < REQUESTS; i++) {
      const asked = next();
      const start = performance.now();
      const { status } = await ask(asked);
      const took = performance.now() - start;
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
      if (status >= 500 || took > HANGS)
        wrong.push(`${status} after ${took.toFixed(0)} ms: ${asked.method} ${asked.path} ${asked.body?.slice(0, 300)}`);
    }
    expect(faults.mock.calls.map((call) => String(call[0])).slice(0, 3)).toEqual([]);
    expect(wrong.slice(0, 10)).toEqual([]);
    // It was taken in at some doors and refused at others: neither all nor nothing.
    for (const status of [200, 400, 404, 413]) expect(statuses.get(status) ?? 0, String(status)).toBeGreaterThan(5);
    // What was taken is sound: every journal folds, and the board is its fold.
    expect(board.rebuildBoard()).toBe(board.listJobs({ includeClosed: true, limit: 10_000 }).length);
    vi.restoreAllMocks();
  });
});
