import { BadInput, parseJson } from "@/core/input";
import { type Act, SIGN_IN } from "@/core/people";
import { db } from "./db/open";
import { diskTrouble } from "./disk";
import { turnedAway } from "./network-access";
import { Conflict, Forbidden, NotFound, NotSignedIn, TooSoon } from "./refusals";
import { allowed, type Who } from "./sign-in";

/** More bytes than a door takes. */
export class TooLarge extends BadInput {}

/** HTTP status of each refusal; the narrower ones first. */
const STATUSES = [
  [TooLarge, 413],
  [BadInput, 400],
  [Conflict, 409],
  [NotFound, 404],
  [NotSignedIn, 401],
  [Forbidden, 403],
  [TooSoon, 429],
] as const;

/** Error as told to whoever asked. */
function toldOf(error: unknown): { readonly message: string; readonly path?: string; readonly status: number } {
  const status = STATUSES.find(([refusal]) => error instanceof refusal)?.[1];
  if (status !== undefined)
    return {
      message: (error as Error).message,
      path: error instanceof BadInput ? error.path : error instanceof NotSignedIn ? SIGN_IN : "",
      status,
    };
  console.error(error);
  return diskTrouble(error) ?? { message: "The server could not do this. Nothing was saved; try again", status: 500 };
}

/** Runs a route's work; what the doors refuse becomes a JSON answer that says what was wrong. */
export async function answer(work: () => unknown | Promise<unknown>): Promise<Response> {
  try {
    const result = await work();
    return result instanceof Response ? result : Response.json(result === undefined ? {} : result);
  } catch (error) {
    const { status, ...told } = toldOf(error);
    const headers: HeadersInit = error instanceof TooSoon ? { "retry-after": String(error.wait) } : {};
    return Response.json({ error: told }, { status, headers });
  }
}

/**
 * An answer that comes as it is worked out, one JSON a line; the first is waited for, so that what is refused at once is
 * refused as always. What goes wrong later is the last line; whoever stops listening stops the work. @param ended is called at its end.
 */
export async function answerLines(work: AsyncGenerator<unknown>, ended: () => void): Promise<Response> {
  const encoder = new TextEncoder();
  const lineOf = (value: unknown) => encoder.encode(`${JSON.stringify(value)}\n`);
  let next = work.next();
  try {
    await next;
  } catch (error) {
    ended();
    throw error;
  }
  const lines = new ReadableStream<Uint8Array>({
    async pull(stream) {
      try {
        const { done, value } = await next;
        if (!done) {
          stream.enqueue(lineOf(value));
          next = work.next();
          // Whoever pulls again hears what became of it.
          next.catch(() => {});
          return;
        }
      } catch (error) {
        stream.enqueue(lineOf({ error: toldOf(error) }));
      }
      stream.close();
      ended();
    },
    async cancel() {
      await work.return(undefined);
      ended();
    },
  });
  return new Response(lines, { headers: { "content-type": "application/x-ndjson", "cache-control": "no-store" } });
}

/** An answer that nobody on the way keeps, and no browser: who asks next may be another person. Pictures say otherwise themselves. */
async function kept(work: () => unknown | Promise<unknown>): Promise<Response> {
  const response = await answer(work);
  if (!response.headers.has("cache-control")) response.headers.set("cache-control", "no-store");
  return response;
}

/** Asks at a door who comes: whoever may not come in is told so. */
function asked(request: Request, work: () => unknown | Promise<unknown>, open: boolean): Promise<Response> {
  const refusal = turnedAway(request, open);
  return refusal
    ? Promise.resolve(Response.json({ error: { message: refusal.message } }, { status: refusal.status }))
    : kept(() => {
        // Where the data are gone nothing is taken in, nor a folder made in their place.
        db();
        return work();
      });
}

/** Handler common to all routes of `/api`: who comes is asked first, then the work is done and answered. */
export const door = (request: Request, work: () => unknown | Promise<unknown>) => asked(request, work, false);

/** A door for what not everybody may: the work is told who does it, nobody where the shop has no lead yet. */
export const doorFor = (act: Act, request: Request, work: (who: Who | undefined) => unknown | Promise<unknown>) =>
  asked(request, () => work(allowed(request, act)), false);

/** The door where the shop passphrase is given. */
export const openDoor = (request: Request, work: () => unknown | Promise<unknown>) => asked(request, work, true);

const sizeWords = (bytes: number) => (bytes < 1048576 ? `${Math.round(bytes / 1024)} kB` : `${Math.round(bytes / 1048576)} MB`);

/** A request's JSON body; throws BadInput for anything else or more than `limit` bytes. */
export async function jsonBody(request: Request, limit = 16 * 1024 * 1024): Promise<unknown> {
  const tooLarge = () => new TooLarge(`The request is too large (over ${sizeWords(limit)})`);
  if (Number(request.headers.get("content-length") ?? 0) > limit) throw tooLarge();
  const parts: Uint8Array[] = [];
  let bytes = 0;
  // Counted as it comes: what is too much is never held.
  for await (const part of request.body ?? []) {
    bytes += part.byteLength;
    if (bytes > limit) throw tooLarge();
    parts.push(part);
  }
  return parseJson(new TextDecoder().decode(Buffer.concat(parts)));
}
