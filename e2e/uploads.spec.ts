import { createHash, randomBytes } from "node:crypto";
import { v4 as uuid } from "uuid";
import type { OtherShop } from "./server";
import { expect, test } from "./test";

const MEGABYTE = 1024 * 1024;
let server: OtherShop;
const job = uuid();
test.beforeAll(async ({ shops }) => {
  server = await shops.open();
  const opening = { id: uuid(), jobId: job, at: new Date().toISOString(), by: "Wren Alder", device: "test", deviceSeq: 1 };
  expect((await fetch(`${server.url}/api/v1/jobs`, { method: "POST", body: JSON.stringify(opening) })).ok).toBe(true);
});
test.afterAll(() => server.stop());

const hashOf = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");
const send = async (
  bytes: Buffer,
  headers: Record<string, string> = { "content-sha256": hashOf(bytes) },
  path = `jobs/${job}/files?name=log.csv`,
) => {
  const answer = await fetch(`${server.url}/api/v1/${path}`, { method: "POST", body: new Uint8Array(bytes), headers });
  return { status: answer.status, body: (await answer.json()) as { sha256?: string; error?: { message: string } } };
};
const back = async (sha256: string) => {
  const answer = await fetch(`${server.url}/api/v1/jobs/${job}/files/${sha256}`);
  return answer.ok ? hashOf(Buffer.from(await answer.arrayBuffer())) : answer.status;
};

test("a log is kept whole, whatever its size, or not at all", async () => {
  test.setTimeout(120_000);
  for (const size of [1, 149]) {
    const bytes = randomBytes(size * MEGABYTE);
    const kept = await send(bytes);
    expect(kept, `${size} MB`).toMatchObject({ status: 200, body: { sha256: hashOf(bytes) } });
    expect(await back(hashOf(bytes)), `${size} MB`).toBe(hashOf(bytes));
  }
  const tooLarge = await send(randomBytes(151 * MEGABYTE));
  expect(tooLarge.status).toBe(413);
  expect(tooLarge.body.error?.message).toMatch(/larger than 150 MB/);
});

test("bytes that are not what their sender hashed are refused, and nothing of them is kept", async () => {
  const bytes = randomBytes(MEGABYTE);
  const other = randomBytes(MEGABYTE);
  expect(await send(bytes, { "content-sha256": hashOf(other) })).toMatchObject({
    status: 400,
    body: { error: { message: expect.stringMatching(/cut off or changed on the way/) } },
  });
  expect(await send(bytes, {})).toMatchObject({
    status: 400,
    body: { error: { message: expect.stringMatching(/its SHA-256/) } },
  });
  expect(await send(bytes, { "content-sha256": hashOf(bytes), "content-type": "multipart/form-data; boundary=x" })).toMatchObject(
    {
      status: 400,
      body: { error: { message: expect.stringMatching(/not as a form/) } },
    },
  );
  expect((await send(Buffer.alloc(0), { "content-sha256": hashOf(Buffer.alloc(0)) })).status).toBe(400);
  expect((await send(bytes, undefined, `jobs/${uuid()}/files?name=log.csv`)).status).toBe(404);
  expect(await back(hashOf(bytes))).toBe(404);
  expect(await back(hashOf(other))).toBe(404);
});

test("the doors for bytes ask who comes, as all others do", async ({ shops }) => {
  const bytes = Buffer.from("Time,RPM\n0,700\n");
  const paths = ["import", `jobs/${job}/files`, `jobs/${job}/pictures`];
  const asked = async (headers: Record<string, string>) => {
    const answers = paths.map((path) =>
      fetch(`${server.url}/api/v1/${path}`, {
        method: "POST",
        body: new Uint8Array(bytes),
        headers: { "content-sha256": hashOf(bytes), ...headers },
      }),
    );
    return (await Promise.all(answers)).map(({ status }) => status);
  };
  expect(await asked({ origin: "http://elsewhere.example" })).toEqual([403, 403, 403]);
  await server.stop();
  server = await shops.open({ passphrase: "tide and timber" });
  expect(await asked({})).toEqual([401, 401, 401]);
});
