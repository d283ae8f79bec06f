import { BadInput } from "@/core/input";
import { Conflict, NotFound } from "./refusals";
import type { TASKS } from "./tasks";

type Tasks = typeof TASKS;
type Done<K extends keyof Tasks> = Awaited<ReturnType<Tasks[K]>>;

/** An error as it goes from one thread to another: classes do not. */
export interface Failure {
  readonly message: string;
  readonly refusal?: "bad-input" | "conflict" | "not-found";
  readonly path?: string;
  readonly code?: unknown;
}

export function failureOf(error: unknown): Failure {
  const { message, code } = error as Error & { code?: unknown };
  if (error instanceof BadInput) return { message, refusal: "bad-input", path: error.path };
  if (error instanceof Conflict) return { message, refusal: "conflict" };
  if (error instanceof NotFound) return { message, refusal: "not-found" };
  return { message, code };
}

function errorOf({ message, refusal, path, code }: Failure): Error {
  if (refusal === "bad-input") return new BadInput(message, path);
  if (refusal === "conflict") return new Conflict(message);
  if (refusal === "not-found") return new NotFound(message);
  return Object.assign(new Error(message), { code });
}

/** The thread beside the one that serves; whoever starts the server puts it there. It fails with a Failure. */
interface Thread {
  ask<K extends keyof Tasks>(what: K, argument: string): Promise<Done<K>>;
  ask(what: "folded"): Promise<void>;
}
const thread = (): Thread | undefined => (globalThis as typeof globalThis & { pelotaThread?: Thread }).pelotaThread;

/** Whether there is a thread beside this one. */
export const hasWorker = () => thread() !== undefined;

/** Until the thread beside has followed every journal as far as it was written when this was called. Throws where there is none, or it ends. */
export async function journalsFollowed(): Promise<void> {
  const there = thread();
  if (!there) throw new Error("There is no thread beside the server");
  await there.ask("folded");
}

/**
 * Has something worked out beside the serving thread, so that nobody waits for another's long job; here where there is none.
 * @param argument what the work is done on: a job's id, or a text. Throws what the work throws.
 */
export async function inWorker<K extends keyof Tasks>(what: K, argument: string): Promise<Done<K>> {
  const there = thread();
  if (!there) {
    const { TASKS: here } = await import("./tasks");
    return (await here[what](argument)) as Done<K>;
  }
  try {
    return await there.ask(what, argument);
  } catch (failure) {
    throw errorOf(failure as Failure);
  }
}
