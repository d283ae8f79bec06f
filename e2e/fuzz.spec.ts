import { request } from "node:http";
import { v4 as uuid } from "uuid";
import { NATURAL } from "@/core/core.fixture";
import { entryOf, type MutatedRequest, mutatedRequests, opening, STORY } from "@/server/mutated.fixture";
import { startServer } from "./server";
import { expect, test } from "./test";

/** Through the real server, its pages too; more at the routes themselves are asked in a unit test, and ten thousand in the bench. */
const REQUESTS = 200;
const ABREAST = 2;
/** No answer takes longer, ms; other tests share the two cores. */
const HANGS = 10_000;

/** The answer's status, or 0 with what the connection said. */
const send = (port: number, { method, path, headers, body }: MutatedRequest) =>
  new Promise<{ status: number; said: string }>((done) => {
    try {
      const sent = request({ host: "127.0.0.1", port, method, path, headers }, (answer) => {
        answer.resume();
        answer.on("end", () => done({ status: answer.statusCode ?? 0, said: "" }));
        answer.on("error", (e) => done({ status: 0, said: e.message }));
      });
      sent.setTimeout(HANGS, () => sent.destroy(new Error("hangs")));
      sent.on("error", (e) => done({ status: 0, said: e.message }));
      if (body !== undefined) sent.write(body);
      sent.end();
    } catch (e) {
      // Node itself will not send some of it: that is no request.
      done({ status: -1, said: (e as Error).message });
    }
  });

test("no request breaks the server, however it is made", async () => {
  const port = 4329;
  const server = await startServer(port);
  try {
    const post = (path: string, body: unknown) =>
      fetch(`${server.url}/api/v1/${path}`, { method: "POST", body: JSON.stringify(body) }).then((r) => r.ok);
    const jobs = Array.from({ length: 8 }, () => uuid());
    for (const job of jobs) {
      expect(await post("jobs", opening(job))).toBe(true);
      expect(await post(`jobs/${job}/entries`, [entryOf(job, "vehicle", NATURAL), entryOf(job, "story", STORY)])).toBe(true);
    }
    const next = mutatedRequests(7, jobs, true);
    const wrong: string[] = [];
    let left = 0;
    const lane = async () => {
      while (left-- > 0) {
        const asked = next();
        const { status, said } = await send(port, asked);
        if (status >= 500 || status === 0)
          wrong.push(`${status} ${said}: ${asked.method} ${asked.path} ${asked.body?.slice(0, 200)}`);
      }
    };
    const round = (count: number) => {
      left = count;
      return Promise.all(Array.from({ length: ABREAST }, lane));
    };
    // What the framework itself would stumble over, before any door of ours.
    const odd: MutatedRequest[] = [
      { method: "TRACE", path: "/", headers: {} },
      { method: "TRACE", path: "/api/v1/people", headers: {} },
      ...["x", "%", "{}", "%5B%5B", "[[[["].map((state) => ({
        method: "GET",
        path: "/shop?_rsc=1",
        headers: { rsc: "1", "next-router-state-tree": state },
      })),
      { method: "POST", path: "/", headers: { "next-action": "x" }, body: "x" },
      ...["Infinity", "-Infinity", "NaN", "1e308", "-1"].map((quiet) => ({
        method: "GET",
        path: `/?quiet=${quiet}`,
        headers: {},
      })),
    ];
    for (const asked of odd) {
      const { status, said } = await send(port, asked);
      if (status >= 500 || status === 0)
        wrong.push(`${status} ${said}: ${asked.method} ${asked.path} ${JSON.stringify(asked.headers)}`);
    }
    await round(REQUESTS / 2);
    const half = server.memory();
    await round(REQUESTS / 2);
    expect(wrong.slice(0, 10)).toEqual([]);
    expect(server.memory() - half).toBeLessThan(200e6);
    // And it still does its work.
    expect((await fetch(server.url)).ok).toBe(true);
    for (const job of jobs) expect((await fetch(`${server.url}/jobs/${job}`)).ok, job).toBe(true);
  } finally {
    await server.stop();
  }
});
