import { BadInput } from "@/core/input";
import { Conflict, NotFound } from "./jobs";

/** Runs a route's work; what the doors refuse becomes a JSON answer that says what was wrong. */
export async function answer(work: () => unknown | Promise<unknown>): Promise<Response> {
  try {
    const result = await work();
    return result instanceof Response ? result : Response.json(result === undefined ? {} : result);
  } catch (error) {
    const status = error instanceof BadInput ? 400 : error instanceof Conflict ? 409 : error instanceof NotFound ? 404 : 500;
    if (status === 500) {
      console.error(error);
      return Response.json({ error: { message: "The server could not do this. Nothing was saved; try again" } }, { status });
    }
    const path = error instanceof BadInput ? error.path : "";
    return Response.json({ error: { message: (error as Error).message, path } }, { status });
  }
}

/** A request's JSON body; throws BadInput for anything else or more than `limit` bytes. */
export async function jsonBody(request: Request, limit = 16 * 1024 * 1024): Promise<unknown> {
  const text = await request.text();
  if (text.length > limit) throw new BadInput(`The request is too large (over ${Math.round(limit / 1048576)} MB)`);
  try {
    return JSON.parse(text);
  } catch {
    throw new BadInput("The request is not JSON: it was cut off on the way. Send it again");
  }
}
