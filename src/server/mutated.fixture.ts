import { createHash } from "node:crypto";
import { v4 as uuid } from "uuid";
import { NATURAL } from "@/core/core.fixture";
import { seededNoise } from "@/core/maths/random";
import { DEFAULT_SHOP } from "@/core/shop/settings";

/** A request as it is sent, however broken. */
export interface MutatedRequest {
  readonly method: string;
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body?: string;
}

const AT = "2026-03-02T08:00:00.000Z";
/** The opening of a job. */
export const opening = (jobId: string) => ({ id: uuid(), jobId, at: AT, by: "Maren Oake", device: "fuzz", deviceSeq: 1 });
/** An entry of a job. */
export const entryOf = (jobId: string, kind: string, body: object, v = 1) => ({
  ...opening(jobId),
  deviceSeq: 2,
  kind,
  v,
  seenSeq: 1,
  body,
});
export const STORY = { complaint: "Hiss", symptoms: [], verified: "seen" };

/** Requests at every door of jobs that are there: well made, mutated somewhere, or broken in how they are sent. */
export function mutatedRequests(seed: number, jobs: readonly string[], pages: boolean): () => MutatedRequest {
  const noise = seededNoise(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(noise.uniform() * list.length)] as T;

  /** Another type, a strange name, far too deep, far too long, gone. */
  function mutate(value: unknown): unknown {
    if (value !== null && typeof value === "object" && noise.uniform() < 0.75) {
      const keys = Object.keys(value);
      if (keys.length > 0) {
        const key = pick(keys);
        const copy = (Array.isArray(value) ? [...value] : { ...value }) as Record<string, unknown>;
        if (noise.uniform() < 0.12) delete copy[key];
        else copy[key] = mutate(copy[key]);
        return copy;
      }
    }
    let deep: unknown = 1;
    for (let i = 0; i < 60; i++) deep = i % 2 ? [deep] : { a: deep };
    const strange = [null, true, 0, -1, 1e308, "", "tomorrow", "constructor", "__proto__", "\u0000", "\ud800", "x".repeat(5000)];
    const shapes = [[], {}, [null], { toString: 1 }, { value: 1 }, { value: 1, unit: "constructor" }, deep, "<img src=x>"];
    return pick<unknown>([...strange, ...shapes]);
  }

  const entries = (job: string, kind: string, body: object, v = 1) =>
    ["POST", `/api/v1/jobs/${job}/entries`, entryOf(job, kind, body, v)] as const;
  const doors: readonly ((job: string) => readonly [string, string, unknown])[] = [
    () => ["POST", "/api/v1/jobs", opening(uuid())],
    (job) => entries(job, "vehicle", NATURAL),
    (job) => entries(job, "story", STORY),
    (job) => entries(job, "kit", { items: [] }),
    (job) => entries(job, "check", { check: "look", record: { items: [{ id: "pcv-hose", state: "fine" }] } }),
    (job) =>
      entries(
        job,
        "finding",
        {
          joint: pick(["pcv-hose", "constructor", "moon"]),
          what: "split",
          evidence: [],
          confirmed: false,
          failed: { why: "unknown" },
        },
        2,
      ),
    (job) => entries(job, "displaced", { what: "cap off", joint: pick(["oil-cap", "constructor"]) }),
    (job) => ["PUT", `/api/v1/jobs/${job}/customer`, { name: "Ida Wren", contact: "bay 2" }],
    (job) => ["PUT", `/api/v1/jobs/${pick([job, uuid(), "x"])}/live`, { phase: "run", flow: 1 }],
    (job) => ["POST", `/api/v1/jobs/${job}/live/calls`, { call: "more" }],
    () => ["POST", "/api/v1/people", { name: `Tess ${Math.floor(noise.uniform() * 1e6)}` }],
    () => ["PUT", "/api/v1/shop", { base: 0, by: "Wren Alder", shop: DEFAULT_SHOP }],
    () => ["PUT", `/api/v1/mappings/${"0123456789abcdef".repeat(2)}`, { columns: {} }],
    () => ["POST", "/api/v1/session", { passphrase: "guess" }],
    () => ["POST", "/api/v1/import", { format: "pelota-job", version: 1 }],
    (job) => ["POST", `/api/v1/jobs/${job}/pictures?name=a.png`, "no picture"],
    (job) => ["POST", `/api/v1/jobs/${pick([job, uuid(), "constructor"])}/files?name=a.csv`, "Time,RPM"],
    () => ["DELETE", `/api/v1/jobs/${uuid()}/customer`, undefined],
    (job) => [
      "GET",
      `/api/v1/jobs/${pick([job, uuid(), "constructor"])}/entries?behind=${pick(["0", "x", "-1", "1e99"])}`,
      undefined,
    ],
    (job) => [
      "GET",
      `/api/v1/jobs/${job}/${pick(["export", "readings", "customer", "live", "files/x", "pictures/x"])}`,
      undefined,
    ],
    ...(pages
      ? [
          (job: string) =>
            [
              "GET",
              `/${pick(["", "?q=a&q=b", "?all=1&all=2", "?q=%25_", "shop", "new", `jobs/${job}`, "jobs/x", `jobs/${job}/handover`, "jobs/x/live", `api/v1/jobs/${job}/handover`])}`,
              undefined,
            ] as const,
        ]
      : []),
  ];
  const strangeOrigins = ["null", "http://", "://x", "http://elsewhere.example"];
  const strangeCookies = ["pelota_device=%", "pelota_device=\u00ff\u00fe", "=;=;", "a".repeat(4000)];
  const strangeTypes = ["multipart/form-data", "text/html", "x", "application/json; charset=utf-7"];
  const withHeader = (a: MutatedRequest, name: string, value: string): MutatedRequest => ({
    ...a,
    headers: { ...a.headers, [name]: value },
  });
  const withBody = (a: MutatedRequest, body: string): MutatedRequest => (a.body === undefined ? a : { ...a, body });
  const breaks: readonly ((a: MutatedRequest) => MutatedRequest)[] = [
    (a) => a,
    (a) => a,
    (a) => a,
    (a) => ({ ...a, path: `${a.path}${a.path.includes("?") ? "&" : "?"}behind=1&behind=2&name=a&name=b` }),
    (a) => (pages ? { ...a, path: a.path.replace(/[0-9a-f]{8}/, pick(["%E0%A4%A", "%", "%00", "..%2f..", "constructor"])) } : a),
    (a) => withHeader(a, "origin", pick(strangeOrigins)),
    (a) => withHeader(a, "cookie", pick(strangeCookies)),
    (a) => withHeader(a, "content-type", pick(strangeTypes)),
    (a) => (pages ? { ...a, method: pick(["PATCH", "PUT", "DELETE", "HEAD", "OPTIONS"]) } : a),
    (a) => withBody(a, a.body?.slice(0, Math.floor(noise.uniform() * a.body.length)) ?? ""),
    (a) => withBody(a, "[".repeat(100_000)),
    (a) => withBody(a, "null"),
  ];
  return () => {
    const [method, path, value] = pick(doors)(pick(jobs));
    const body = value === undefined ? undefined : JSON.stringify(noise.uniform() < 0.85 ? mutate(value) : value);
    const asked = pick(breaks)({ method, path, headers: {}, ...(body === undefined ? {} : { body }) });
    const hash = createHash("sha256")
      .update(asked.body ?? "")
      .digest("hex");
    return noise.uniform() < 0.9 ? { ...asked, headers: { "content-sha256": hash, ...asked.headers } } : asked;
  };
}
