import { parentPort } from "node:worker_threads";
import { followJournals } from "./board";
import { db } from "./db/open";
import { TASKS } from "./tasks";
import { failureOf } from "./worker";

/** The thread beside the one that serves: it keeps the board's columns folded, and works out what takes long. */

interface Ask {
  readonly id: number;
  readonly what: keyof typeof ASKED;
  readonly argument: string;
}

const port = parentPort;
if (!port) throw new Error("This is a thread of the server: start that");

/** How often the journals are looked at, ms. */
const LOOK_EVERY = 200;
/** The data may be away for a while: they are looked for again after so long, ms. */
const PAUSE = 5000;
let notBefore = 0;

const follow = () => followJournals((jobId) => port.postMessage({ changed: jobId }));

/** Follows the journals by itself; what goes wrong is said, and tried again. */
async function look(): Promise<void> {
  if (Date.now() < notBefore) return;
  try {
    await follow();
  } catch (error) {
    console.error(error);
    notBefore = Date.now() + PAUSE;
  }
}

/** Requests to the thread: the work that takes long, and to have followed the journals. */
const ASKED = { ...TASKS, folded: follow };

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
    port.postMessage({ id: ask.id, done: await ASKED[ask.what](ask.argument) });
  } catch (error) {
    port.postMessage({ id: ask.id, failed: failureOf(error) });
  }
});

db();
port.postMessage("ready");
void look();
setInterval(() => void look(), LOOK_EVERY);
