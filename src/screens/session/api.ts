import { wrap } from "comlink";
import type { HashWorker } from "@/workers/hash.worker";
import { doorHeaders } from "./sign-in";

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
const NO_ANSWER = "No connection to the shop's server. What you typed is kept here and goes out when it is back";

interface Request {
  readonly method: string;
  readonly body?: BodyInit;
  readonly headers?: Record<string, string>;
  readonly signal?: AbortSignal;
}

async function call<T>(path: string, request: Request): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api/v1/${path}`, { ...request, headers: { ...request.headers, ...doorHeaders() } });
  } catch {
    throw new Offline(NO_ANSWER);
  }
  const answer = (await response.json().catch(() => undefined)) as { error?: { message: string } } | undefined;
  if (!response.ok) throw new Refused(answer?.error?.message ?? `The server answered ${response.status}`, response.status);
  // An answer that was cut off on its way is none.
  if (answer === undefined) throw new Offline(NO_ANSWER);
  return answer as T;
}

/** A server that says nothing for so long is not there, ms. */
const SILENCE = 20_000;

export const getJson = <T>(path: string) => call<T>(path, { method: "GET", signal: AbortSignal.timeout(SILENCE) });
export const sendJson = <T>(method: "POST" | "PUT" | "DELETE", path: string, body: unknown = {}) =>
  call<T>(path, {
    method,
    body: JSON.stringify(body),
    headers: { "content-type": "application/json" },
    signal: AbortSignal.timeout(SILENCE),
  });

/** The SHA-256 of a file, worked out in a thread of its own. */
export async function hashOf(bytes: Blob): Promise<string> {
  const thread = new Worker(new URL("../../workers/hash.worker.ts", import.meta.url), { type: "module" });
  try {
    return await wrap<HashWorker>(thread).sha256(bytes);
  } finally {
    thread.terminate();
  }
}

/** Sends bytes with their hash, so that the server can tell whether all of them arrived. */
export const sendBytes = async <T>(path: string, bytes: Blob) =>
  call<T>(path, {
    method: "POST",
    body: bytes,
    headers: { "content-type": "application/octet-stream", "content-sha256": await hashOf(bytes) },
  });
