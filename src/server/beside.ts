import type { WORK } from "./work";

type Work = typeof WORK;
type Done<K extends keyof Work> = Awaited<ReturnType<Work[K]>>;

/** The thread beside the one that serves; whoever starts the server puts it there. */
interface Thread {
  readonly ask: <K extends keyof Work>(what: K, jobId: string) => Promise<Done<K>>;
}
const thread = (): Thread | undefined => (globalThis as typeof globalThis & { pelotaThread?: Thread }).pelotaThread;

/** Whether there is a thread beside this one. */
export const besides = () => thread() !== undefined;

/** Has something worked out beside the serving thread, so that nobody waits for another's long job; here where there is none. */
export async function beside<K extends keyof Work>(what: K, jobId: string): Promise<Done<K>> {
  const there = thread();
  if (there) return there.ask(what, jobId);
  const { WORK: here } = await import("./work");
  return (await here[what](jobId)) as Done<K>;
}
