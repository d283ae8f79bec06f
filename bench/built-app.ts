import { type ChildProcess, spawn } from "node:child_process";
import { Agent, request } from "node:http";

export const PORT = 4399;
export const agent = new Agent({ keepAlive: true, maxSockets: 32 });

interface Answer {
  readonly status: number;
  readonly text: string;
  /** ms */
  readonly took: number;
}

/** Asks the built app something. */
export function ask(method: string, path: string, body?: unknown): Promise<Answer> {
  return new Promise((done, fail) => {
    const start = performance.now();
    const sent = request(
      { host: "127.0.0.1", port: PORT, agent, method, path, headers: { "content-type": "application/json" } },
      (got) => {
        const parts: Buffer[] = [];
        got.on("data", (part) => parts.push(part));
        got.on("end", () =>
          done({ status: got.statusCode ?? 0, text: Buffer.concat(parts).toString("utf8"), took: performance.now() - start }),
        );
      },
    );
    sent.on("error", fail);
    sent.end(body === undefined ? undefined : JSON.stringify(body));
  });
}
/** The same for a door that takes JSON; throws what it refuses. */
export const post = async (path: string, body: unknown): Promise<Answer> => {
  const answer = await ask("POST", `/api/v1/${path}`, body);
  if (answer.status !== 200) throw new Error(`${answer.status}: ${answer.text}`);
  return answer;
};

/** Starts the built app on a folder of data. */
export async function started(folder: string): Promise<ChildProcess> {
  const server = spawn("node", ["scripts/start.mjs", "--port", String(PORT)], { env: { ...process.env, PELOTA_DATA: folder } });
  await new Promise<void>((ready) =>
    server.stdout.on("data", (part) => {
      if (String(part).includes("Ready on")) ready();
    }),
  );
  return server;
}
export const stopped = (server: ChildProcess) =>
  new Promise<void>((done) => {
    server.on("exit", () => done());
    server.kill();
  });
