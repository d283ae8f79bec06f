import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { createServer, request as httpRequest } from "node:http";
import { fileURLToPath } from "node:url";
import next from "next";
import { Unfit } from "./data-folder.mjs";
import { startThread } from "./thread.mjs";

/** A connection that a tablet keeps open is not shut under the entry it is about to send, ms. */
const KEEP_ALIVE = 65_000;
/** What is still being answered when the app is stopped gets so long, ms. */
const GRACE = 1000;

/** How long after the start the day's backup is first looked for, and how often then, ms. */
const FIRST_BACKUP = 60_000;
const BACKUP_EVERY = 3600_000;
const PELOTA = fileURLToPath(new URL("pelota.mjs", import.meta.url));

/** Takes the day's backup in a process of its own, where one is due; what goes wrong is said here and tried again. */
function backUp() {
  const child = spawn(process.execPath, [PELOTA, "daily-backup"], { stdio: ["ignore", "ignore", "pipe"] });
  let said = "";
  child.stderr.on("data", (part) => {
    said += part;
  });
  child.on("close", (code) => {
    if (code !== 0) console.error(`The daily backup was not taken: ${said.trim()}`);
  });
}

/** Asked for once before anybody is told that the app is ready: the first who comes does not wait for them to be loaded. */
const PAGES = ["/", "/new", "/shop", "/jobs/none", "/jobs/none/handover", "/api/v1/people", "/api/v1/jobs/none/entries"];

async function loadPages(host, port) {
  const wide = ["0.0.0.0", "::"].includes(host);
  const headers = { host: `127.0.0.1:${port}`, cookie: `pelota_device=${process.env.PELOTA_SELF}` };
  for (const path of PAGES)
    await new Promise((done) => {
      const asked = httpRequest({ host: wide ? "127.0.0.1" : host, port, path, headers }, (answer) => {
        answer.resume();
        answer.on("close", done);
      });
      // Whoever asks next is told what is wrong.
      asked.on("error", done);
      asked.end();
    });
}

/** Serves the built app; a signal stops it within two seconds, `onStop` last. */
export async function serve({ host, port, onStop }) {
  // The server's own first look at its pages comes in by this; nobody else knows it.
  process.env.PELOTA_SELF = randomBytes(32).toString("hex");
  const app = next({ dev: false, hostname: host, port });
  const thread = await startThread();
  globalThis.pelotaThread = thread;
  await app.prepare();
  const handle = app.getRequestHandler();
  const server = createServer((request, response) => {
    // What is no address is answered here: nothing further in could say so.
    if (isAddress(request.url)) {
      // Who asks is known by the socket alone: nothing that a client can send.
      request.headers["x-pelota-address"] = request.socket.remoteAddress ?? "";
      return handle(request, response);
    }
    response.writeHead(400, { "content-type": "application/json" });
    response.end(JSON.stringify({ error: { message: "This address is broken: a part of it is no text" } }));
  });
  server.keepAliveTimeout = KEEP_ALIVE;
  await new Promise((ready, failed) => {
    server.once("error", (error) =>
      failed(
        error.code === "EADDRINUSE" ? new Unfit(`Port ${port} on ${host} is taken: stop what uses it, or name another.`) : error,
      ),
    );
    server.listen(port, host, ready);
  });
  await loadPages(host, port);
  delete process.env.PELOTA_SELF;
  console.log(`Ready on http://${host.includes(":") ? `[${host}]` : host}:${port}`);
  setTimeout(backUp, FIRST_BACKUP).unref();
  setInterval(backUp, BACKUP_EVERY).unref();
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    server.close();
    server.closeIdleConnections();
    thread.stop();
    setTimeout(() => {
      server.closeAllConnections();
      globalThis.pelotaDb?.db.$client.close();
      onStop();
      process.exit(0);
    }, GRACE);
  };
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, stop);
}

function isAddress(url) {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}
