// Installs, builds, fills the demo database and starts: http://127.0.0.1:4310
import { resolve } from "node:path";
import { DEMO_PIN } from "../demo/pin.mjs";
import { install, isBuilt, must, step } from "./run.mjs";

step(1, 4, "Packages: a few minutes the first time, SQLite is compiled here");
await install();
step(2, 4, "The app: about a minute, where its code has changed");
if (!isBuilt()) {
  must("next", ["build"]);
  must("node", ["scripts/bundle.mjs"]);
  must("node", ["scripts/offline.mjs"]);
}
step(3, 4, "The demo's jobs, where there are none yet");
if (await isEmpty()) must("tsx", ["demo/fill.ts"]);
step(4, 4, "Starting");
console.log(`Everybody's PIN in the demo shop: ${DEMO_PIN}`);
process.env.PELOTA_DEMO_PIN = DEMO_PIN;
must("node", ["scripts/start.mjs", ...process.argv.slice(2)]);

/** Whether there is no job yet; what is wrong with the data is said by the start. */
async function isEmpty() {
  const { openData, Unfit } = await import("./data-folder.mjs");
  try {
    const data = openData(resolve(process.env.PELOTA_DATA ?? "data"));
    data.release();
    return data.jobs === 0;
  } catch (error) {
    if (error instanceof Unfit) return false;
    throw error;
  }
}
