import { parentPort } from "node:worker_threads";
import { failureOf } from "./beside";
import { staleJobs, tryRefresh } from "./board";
import { db } from "./db/open";
import { WORK } from "./work";

/** The thread beside the one that serves: it keeps the board's columns folded, and works out what takes long. */

interface Ask {
  readonly id: number;
  readonly what: keyof typeof WORK;
  readonly argument: string;
}

const port = parentPort;
if (!port) throw new Error("This is a thread of the server: start that");

const turn = () => new Promise<void>((next) => setImmediate(next));

/** How often the journals are looked at, ms. */
const LOOK_EVERY = 200;
/** What could not be folded, or written, is tried again after so long, ms. */
const PAUSE = 5000;
let folding = false;
let notBefore = 0;

/** Columns can be folded anew: whoever writes a journal meanwhile does not wait for the disk on their behalf. */
function withoutWaiting<T>(write: () => T): T {
  const { $client } = db();
  $client.pragma("synchronous = NORMAL");
  try {
    return write();
  } finally {
    $client.pragma("synchronous = FULL");
  }
}

/** Folds what was written to, one job at a time, so that who asks meanwhile waits for one at most. */
async function follow(): Promise<void> {
  if (folding || Date.now() < notBefore) return;
  folding = true;
  try {
    for (const jobId of staleJobs()) {
      if (withoutWaiting(() => tryRefresh(jobId))) port?.postMessage({ changed: jobId });
      else notBefore = Date.now() + PAUSE;
      await turn();
    }
  } catch (error) {
    // The data may be away for a while: the next look tells.
    console.error(error);
    notBefore = Date.now() + PAUSE;
  } finally {
    folding = false;
  }
}

port.on("message", async (ask: Ask | "stop") => {
  if (ask === "stop") {
    try {
      db().$client.close();
    } finally {
      // Data that are away need no closing.
      process.exit(0);
    }
  }
  try {
    port.postMessage({ id: ask.id, done: await WORK[ask.what](ask.argument) });
  } catch (error) {
    port.postMessage({ id: ask.id, failed: failureOf(error) });
  }
});

db();
port.postMessage("ready");
void follow();
setInterval(() => void follow(), LOOK_EVERY);
