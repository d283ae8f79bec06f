import { Worker } from "node:worker_threads";
import "./bundle.mjs";

const CODE = new URL("../out/thread.mjs", import.meta.url);
/** One that ends by itself is started again after so long, ms. */
const AGAIN = 1000;

/**
 * Starts the thread that works beside the serving one; it is there when this is done. What is asked of it while it ends
 * fails, and is asked of the next one when it is tried again.
 */
export async function startThread() {
  let worker;
  let stopping = false;
  let up = false;
  let last = 0;
  const open = new Map();
  const start = () =>
    new Promise((ready, fail) => {
      worker = new Worker(CODE);
      worker.on("message", (said) => {
        if (said === "ready") {
          up = true;
          return ready();
        }
        if (said.changed) {
          for (const tell of globalThis.pelotaListeners ?? []) tell(said.changed);
          return;
        }
        const asked = open.get(said.id);
        open.delete(said.id);
        if (said.failed) asked?.fail(said.failed);
        else asked?.done(said.done);
      });
      worker.on("error", (error) => {
        console.error(error);
        fail(error);
      });
      worker.on("exit", () => {
        up = false;
        for (const { fail: failed } of open.values()) failed({ message: "The thread beside the server has ended" });
        open.clear();
        if (!stopping) setTimeout(() => start().catch(() => {}), AGAIN).unref();
      });
    });
  await start();
  return {
    ask: (what, argument) =>
      new Promise((done, fail) => {
        if (!up) return fail({ message: "The thread beside the server is being started" });
        open.set(++last, { done, fail });
        worker.postMessage({ id: last, what, argument });
      }),
    kill: () => worker.terminate(),
    stop() {
      stopping = true;
      worker.postMessage("stop");
    },
  };
}
