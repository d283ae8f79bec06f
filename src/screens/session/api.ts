import { wrap } from "comlink";
import type { HashWorker } from "@/workers/hash.worker";

/** What a door of the server said: wrong input (kept here), or no answer at all. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}
export class Offline extends Error {}

async function call<T>(method: string, path: string, body?: BodyInit, headers: Record<string, string> = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api/v1/${path}`, {
      method,
      headers,
      ...(body === undefined ? {} : { body }),
    });
  } catch {
    throw new Offline("No connection to the shop's server. What you typed is kept here and goes out when it is back");
  }
  const answer = (await response.json().catch(() => ({}))) as { error?: { message: string } };
  if (!response.ok) throw new Refused(answer.error?.message ?? `The server answered ${response.status}`, response.status);
  return answer as T;
}

export const getJson = <T>(path: string) => call<T>("GET", path);
export const sendJson = <T>(method: "POST" | "PUT" | "DELETE", path: string, body: unknown = {}) =>
  call<T>(method, path, JSON.stringify(body), { "content-type": "application/json" });

/** The SHA-256 of a file, worked out in a thread of its own. */
async function hashOf(bytes: Blob): Promise<string> {
  const thread = new Worker(new URL("../../workers/hash.worker.ts", import.meta.url), { type: "module" });
  try {
    return await wrap<HashWorker>(thread).sha256(bytes);
  } finally {
    thread.terminate();
  }
}

/** Sends bytes with their hash, so that the server can tell whether all of them arrived. */
export const sendBytes = async <T>(path: string, bytes: Blob) =>
  call<T>("POST", path, bytes, { "content-type": "application/octet-stream", "content-sha256": await hashOf(bytes) });
