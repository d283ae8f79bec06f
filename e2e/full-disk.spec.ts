import { execFileSync } from "node:child_process";
import { createHash, randomUUID } from "node:crypto";
import { readdirSync } from "node:fs";
import { startServer } from "./server";
import { expect, test } from "./test";

test("where files can grow no further nothing is acknowledged that is not there, and work goes on once there is room", async ({
  request,
}) => {
  // As much as the database needs to begin with, and little more.
  const server = await startServer(4342, [], {}, 2048);
  try {
    const jobId = randomUUID();
    const made = () => ({
      id: randomUUID(),
      jobId,
      at: new Date().toISOString(),
      by: "Wren Alder",
      device: "tablet",
      deviceSeq: 1,
    });
    const job = `${server.url}/api/v1/jobs/${jobId}`;
    expect((await request.post(`${server.url}/api/v1/jobs`, { data: made() })).status()).toBe(200);

    const log = Buffer.alloc(3_000_000, "Time,RPM\n");
    const hash = createHash("sha256").update(log).digest("hex");
    const headers = { "content-type": "application/octet-stream", "content-sha256": hash };
    const upload = () => request.post(`${job}/files?name=drive.csv`, { data: log, headers });
    const refused = await upload();
    expect(refused.status()).toBe(507);
    expect((await refused.json()).error.message).toMatch(/disk of the shop's computer is full: nothing was saved/);
    const kept = readdirSync(server.data, { recursive: true, withFileTypes: true }).filter((f) => f.isFile());
    expect(kept.filter((f) => /incoming|files/.test(f.parentPath))).toEqual([]);

    const notes = () =>
      Array.from({ length: 40 }, (_, i) => ({
        ...made(),
        kind: "note",
        v: 1,
        seenSeq: 0,
        body: { text: `${i} ${"x".repeat(900)}` },
      }));
    let acknowledged = 1;
    let last = notes();
    for (let tries = 0; tries < 100; tries++, last = notes()) {
      const answer = await request.post(`${job}/entries`, { data: last });
      if (answer.status() !== 200) {
        expect(answer.status()).toBe(507);
        expect((await answer.json()).error.message).toMatch(/full.*: nothing was saved/);
        break;
      }
      acknowledged += last.length;
    }
    const recorded = async () => ((await (await request.get(`${job}/entries`)).json()) as object[]).length;
    expect(acknowledged).toBeGreaterThan(40);
    expect(await recorded()).toBe(acknowledged);
    expect((await request.get(server.url)).status()).toBe(200);

    server.unlimit();
    expect((await request.post(`${job}/entries`, { data: last })).status()).toBe(200);
    expect(await recorded()).toBe(acknowledged + last.length);
    expect((await upload()).status()).toBe(200);
    const verified = execFileSync("node", ["scripts/pelota.mjs", "verify", server.data], { encoding: "utf8" });
    expect(JSON.parse(verified)).toMatchObject({ jobs: 1, files: 1, wrong: [] });
  } finally {
    await server.stop();
  }
});
