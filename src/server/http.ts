import { BadInput, parseJson } from "@/core/input";
import { diskTrouble } from "./disk";
import { Conflict, NotFound } from "./refusals";

/** More bytes than a door takes. */
export class TooLarge extends BadInput {}

/** What each refusal is answered with; the narrower ones first. */
const STATUSES = [
  [TooLarge, 413],
  [BadInput, 400],
  [Conflict, 409],
  [NotFound, 404],
] as const;

/** Runs a route's work; what the doors refuse becomes a JSON answer that says what was wrong. */
export async function answer(work: () => unknown | Promise<unknown>): Promise<Response> {
  try {
    const result = await work();
    return result instanceof Response ? result : Response.json(result === undefined ? {} : result);
  } catch (error) {
    const status = STATUSES.find(([refusal]) => error instanceof refusal)?.[1];
    if (status === undefined) {
      console.error(error);
      const trouble = diskTrouble(error);
      if (trouble) return Response.json({ error: { message: trouble.message } }, { status: trouble.status });
      return Response.json({ error: { message: "The server could not do this. Nothing was saved; try again" } }, { status: 500 });
    }
    const path = error instanceof BadInput ? error.path : "";
    return Response.json({ error: { message: (error as Error).message, path } }, { status });
  }
}

const sizeWords = (bytes: number) => (bytes < 1048576 ? `${Math.round(bytes / 1024)} kB` : `${Math.round(bytes / 1048576)} MB`);

/** A request's JSON body; throws BadInput for anything else or more than `limit` bytes. */
export async function jsonBody(request: Request, limit = 16 * 1024 * 1024): Promise<unknown> {
  const text = await request.text();
  if (text.length > limit) throw new TooLarge(`The request is too large (over ${sizeWords(limit)})`);
  return parseJson(text);
}
