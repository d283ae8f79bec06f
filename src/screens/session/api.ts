import { wrap } from "comlink";
import type { HashWorker } from "@/workers/hash.worker";
import { heardTime } from "./clock";
import { doorHeaders } from "./sign-in";

/** Answer of a route of the server: wrong input (kept here), or no answer at all. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
    /** Its subject, where the door says so */
    readonly path = "",
  ) {
    super(message);
  }
}
export class Offline extends Error {}
const NO_ANSWER = "No connection to the shop's server. What you typed is kept here and is sent when it is back";

const CUT_OFF =
  "The answer broke off on its way: look at what came in, then do it again. What is there already is not taken twice";

interface Refusal {
  readonly error?: { readonly message: string; readonly path?: string };
}

interface Request {
  readonly method: string;
  readonly body?: BodyInit;
  readonly headers?: Record<string, string>;
  readonly signal?: AbortSignal;
}

async function ask(path: string, request: Request): Promise<Response> {
  try {
    const response = await fetch(`/api/v1/${path}`, { ...request, headers: { ...request.headers, ...doorHeaders() } });
    heardTime(response.headers.get("date"));
    return response;
  } catch {
    throw new Offline(NO_ANSWER);
  }
}

async function call<T>(path: string, request: Request): Promise<T> {
  const response = await ask(path, request);
  const answer = (await response.json().catch(() => undefined)) as Refusal | undefined;
  if (!response.ok)
    throw new Refused(answer?.error?.message ?? `The server answered ${response.status}`, response.status, answer?.error?.path);
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

const bytesRequest = async (bytes: Blob): Promise<Request> => ({
  method: "POST",
  body: bytes,
  headers: { "content-type": "application/octet-stream", "content-sha256": await hashOf(bytes) },
});

/** Sends bytes with their hash, so that the server can tell whether all of them arrived. */
export const sendBytes = async <T>(path: string, bytes: Blob) => call<T>(path, await bytesRequest(bytes));

/** The same where the answer comes line by line, as it is worked out. Throws what goes wrong on the way, and nothing when `signal` ends it. */
export async function sendForLines<T>(path: string, bytes: Blob, signal: AbortSignal, heard: (line: T) => void): Promise<void> {
  try {
    const response = await ask(path, { ...(await bytesRequest(bytes)), signal });
    if (!response.ok || !response.body) {
      const answer = (await response.json().catch(() => undefined)) as Refusal | undefined;
      throw new Refused(answer?.error?.message ?? `The server answered ${response.status}`, response.status);
    }
    let held = "";
    for await (const text of textOf(response.body)) {
      const lines = (held + text).split("\n");
      held = lines.pop() ?? "";
      for (const line of lines) {
        const said = JSON.parse(line) as T & Refusal;
        if (said.error) throw new Refused(said.error.message, 500);
        heard(said);
      }
    }
    if (held !== "") throw new Offline(CUT_OFF);
  } catch (error) {
    if (!signal.aborted) throw error;
  }
}

/** A body's text as it comes. */
async function* textOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader();
  try {
    for (let part = await reader.read(); !part.done; part = await reader.read()) yield part.value;
  } catch {
    throw new Offline(CUT_OFF);
  }
}
