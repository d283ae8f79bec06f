import { createHash } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v4 as uuid } from "uuid";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { NATURAL } from "@/core/core.fixture";
import { doorProof, SIGN_IN_HEADER, type SignedIn, signed } from "@/core/people";
import * as board from "@/server/board";
import { db } from "@/server/db/open";
import { firstStart } from "@/server/first-start";
import * as jobs from "@/server/jobs";
import { entryOf, type MutatedRequest, mutatedRequests, opening, STORY } from "@/server/mutated.fixture";
import { listPeople } from "@/server/people";
import { signIn } from "@/server/sign-in";
import { trials } from "../../trials.fixture";

const REQUESTS = trials(800, 10_000);
/** No answer takes longer, ms. */
const HANGS = 2000;
let folder: string;

// Each has a shop of its own: in the one everybody has a PIN, in the other nobody.
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "pelota-routes-"));
  vi.stubEnv("PELOTA_DATA", folder);
});
afterEach(() => {
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

async function ask({ method, path, headers, body }: MutatedRequest): Promise<Response> {
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

/** Whoever may ask at a door of a shop with people; undefined for a stranger. */
async function identities(): Promise<readonly (SignedIn | undefined)[]> {
  const people = [
    { name: "Tobin Falk", role: "technician" as const, pin: "2468" },
    { name: "Isla Renn", role: "apprentice" as const, pin: "2468" },
  ];
  const lead = await firstStart({ shop: "Ferrowick Slip Garage", lead: { name: "Maren Oake", pin: "2468" }, people });
  const others = listPeople().filter((p) => p.name !== "Maren Oake");
  return [undefined, lead, ...(await Promise.all(others.map(({ id }) => signIn({ person: id, pin: "2468" }, ""))))];
}

/** A request as somebody makes it: with their proof, and under their signature as odd as it is. */
function askedBy(who: SignedIn, { body, headers, ...asked }: MutatedRequest): MutatedRequest {
  const sign = (value: unknown) =>
    value !== null && typeof value === "object" && !Array.isArray(value)
      ? signed({ ...value, person: who.personId, madeAt: new Date().toISOString() }, who.signIn, who.key)
      : value;
  let own = body;
  try {
    if (/\/jobs(\/[^/]+\/entries)?$/.test(asked.path)) own = JSON.stringify(sign(JSON.parse(body ?? "")));
  } catch {
    // What is no JSON is signed by nobody.
  }
  return {
    ...asked,
    headers: { ...headers, [SIGN_IN_HEADER]: doorProof(who.signIn, who.key) },
    ...(own === undefined ? {} : { body: own }),
  };
}

describe("every route of a shop with people", () => {
  it("keeps a picture for nobody who is not in, and no answer is kept on its way", async () => {
    const job = uuid();
    jobs.openJob(opening(job));
    const [, lead] = await identities();
    const picture: MutatedRequest = {
      method: "POST",
      path: `/api/v1/jobs/${job}/pictures?name=a.png`,
      headers: {},
      body: "no picture",
    };
    const hash = createHash("sha256").update("no picture").digest("hex");
    const sent = { ...picture, headers: { "content-sha256": hash } };
    expect((await ask(sent)).status).toBe(401);
    const refused = await ask(askedBy(lead as SignedIn, sent));
    expect(refused.status).toBe(400);
    expect(await refused.text()).toContain("no picture");
    for (const path of ["/api/v1/people", "/api/v1/sign-in", `/api/v1/jobs/${job}/entries`, "/api/v1/shop"])
      expect((await ask({ method: "GET", path, headers: {} })).headers.get("cache-control"), path).toBe("no-store");
  });

  it(`answers ${REQUESTS} mutated requests of stranger, apprentice, technician and lead with no fault of ours`, async () => {
    vi.spyOn(console, "warn").mockImplementation(() => {});
    const faults = vi.spyOn(console, "error").mockImplementation(() => {});
    const known = Array.from({ length: 8 }, () => uuid());
    for (const job of known) jobs.openJob(opening(job));
    const who = await identities();
    const next = mutatedRequests(2027, known, false);
    const wrong: string[] = [];
    const statuses = new Map<string, Map<number, number>>(who.map((one) => [one?.role ?? "stranger", new Map()]));
    for (let i = 0; i < REQUESTS; i++) {
      const one = who[i % who.length];
      const asked = one ? askedBy(one, next()) : next();
      const { status } = await ask(asked);
      const seen = statuses.get(one?.role ?? "stranger") as Map<number, number>;
      seen.set(status, (seen.get(status) ?? 0) + 1);
      if (status >= 500) wrong.push(`${status} ${one?.role}: ${asked.method} ${asked.path} ${asked.body?.slice(0, 300)}`);
    }
    expect(faults.mock.calls.map((call) => String(call[0])).slice(0, 3)).toEqual([]);
    expect(wrong.slice(0, 10)).toEqual([]);
    for (const [name, seen] of statuses)
      for (const status of name === "stranger" ? [401] : [200, 400])
        expect(seen.get(status) ?? 0, `${name} ${status}`).toBeGreaterThan(5);
    expect(statuses.get("apprentice")?.get(403) ?? 0).toBeGreaterThan(5);
    // Whatever name stood on it, everything is under its own maker's name and role.
    const roles = new Map(who.map((one) => [one?.name, one?.role]));
    for (const job of known)
      for (const { by, role, kind } of jobs.readEntries(job))
        if (kind !== "opened") expect([by, role]).toEqual([by, roles.get(by)]);
    vi.restoreAllMocks();
  });
});

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
