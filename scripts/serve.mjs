import { spawn } from "node:child_process";
import { randomBytes } from "node:crypto";
import { createServer, request as httpRequest } from "node:http";
import { createServer as createSecureServer } from "node:https";
import { fileURLToPath } from "node:url";
import next from "next";
import { shopCertificates, shownAddress } from "./authority.mjs";
import { Unfit } from "./data-folder.mjs";
import { answerPlain } from "./plain-page.mjs";
import { startThread } from "./thread.mjs";

/** A connection that a tablet keeps open is not shut under the entry it is about to send, ms. */
const KEEP_ALIVE = 65_000;
/** What is still being answered when the app is stopped gets so long, ms. */
const GRACE = 1000;

/** How long after the start the day's backup is first looked for, and how often then, ms. */
const FIRST_BACKUP = 60_000;
const BACKUP_EVERY = 3600_000;
/** How often it is looked whether the folder is still held, ms. */
const HELD_LOOKED_AT = 1000;
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

/** How the app is asked. */
const METHODS = ["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"];
const ROUTER_HEADERS = ["next-router-state-tree", "next-action"];
/** What the framework reads as JSON before any door of ours; it fails on anything else. */
function isRouterState(value) {
  if (value === undefined) return true;
  try {
    return Array.isArray(JSON.parse(decodeURIComponent(value)));
  } catch {
    return false;
  }
}

const isLoopback = (address = "") => address === "::1" || /^(::ffff:)?127\./.test(address);
const inUrl = (host) => (host.includes(":") ? `[${host}]` : host);

function listening(server, port, host) {
  return new Promise((ready, failed) => {
    server.once("error", (error) =>
      failed(
        error.code === "EADDRINUSE" ? new Unfit(`Port ${port} on ${host} is taken: stop what uses it, or name another.`) : error,
      ),
    );
    server.listen(port, host, ready);
  });
}

/** How often the machine's certificate is looked at: addresses change, and it ends, ms. */
const LOOKED_AT = 3600_000;

/**
 * HTTPS on the shop's network, and on the plain port for other devices nothing but the way there.
 * @param app answers a request of the app. @returns both servers, and what to say of them.
 */
async function secured({ host, port, securePort, folder, app }) {
  let certificates = shopCertificates(folder);
  const secure = createSecureServer({ key: certificates.key, cert: certificates.cert }, app);
  const secureAt = (asked) => `https://${asked.replace(/:\d+$/, "")}:${securePort}`;
  const plain = createServer((request, response) => {
    // The shop's own machine needs nobody's certificate to talk to itself.
    if (isLoopback(request.socket.remoteAddress)) return app(request, response);
    return answerPlain(request, response, { secureAt, ...certificates }).catch((error) => {
      console.error(error);
      if (!response.headersSent) response.writeHead(500);
      response.end();
    });
  });
  await listening(secure, securePort, host);
  await listening(plain, port, host);
  setInterval(() => {
    const now = shopCertificates(folder);
    if (now.cert !== certificates.cert) secure.setSecureContext({ key: now.key, cert: now.cert });
    certificates = now;
  }, LOOKED_AT).unref();
  const address = ["0.0.0.0", "::"].includes(host) ? shownAddress() : host;
  return {
    servers: [secure, plain],
    says: [
      `Ready on http://127.0.0.1:${port} on this machine`,
      `Other devices: http://${inUrl(address)}:${port} shows how to trust this shop, then https://${inUrl(address)}:${securePort}`,
      `Fingerprint of the shop's authority (SHA-256): ${certificates.fingerprint}`,
    ],
    network: { plain: `http://${inUrl(address)}:${port}`, fingerprint: certificates.fingerprint },
  };
}

/** The built app, ready to answer; which shop's data it answers from is said by `PELOTA_DATA`, looked at each time. */
export async function prepareApp(host, port) {
  const app = next({ dev: false, hostname: host, port });
  await app.prepare();
  return app.getRequestHandler();
}

/**
 * Opens a shop to its devices: the thread beside, and what listens.
 * @param handle the app; @param securePort where the app is on HTTPS for other devices; undefined serves plain HTTP alone.
 * @returns what to say of it, and how it is shut: `shutDoors` takes nobody in any more, `shut` ends what is still open.
 */
export async function openShop({ host, port, securePort, folder, handle }) {
  // The server's own first look at its pages comes in by this; nobody else knows it.
  process.env.PELOTA_SELF = randomBytes(32).toString("hex");
  const thread = await startThread();
  globalThis.pelotaThread = thread;
  const answer = (request, response) => {
    // What is no address is answered here: nothing further in could say so.
    if (!METHODS.includes(request.method)) {
      response.writeHead(405, { "content-type": "application/json", allow: METHODS.join(", ") });
      return response.end(JSON.stringify({ error: { message: "Nothing here is asked in that way" } }));
    }
    // A page's own script says in these where it stands: what no script of ours writes is taken off.
    for (const name of ROUTER_HEADERS) if (!isRouterState(request.headers[name])) delete request.headers[name];
    if (isAddress(request.url)) {
      // Who asks, and how, is known by the socket alone: nothing that a client can send.
      request.headers["x-pelota-address"] = request.socket.remoteAddress ?? "";
      request.headers["x-pelota-secure"] = request.socket.encrypted ? "1" : "";
      return handle(request, response);
    }
    response.writeHead(400, { "content-type": "application/json" });
    response.end(JSON.stringify({ error: { message: "This address is broken: a part of it is no text" } }));
  };
  const { servers, says, network } = securePort
    ? await secured({ host, port, securePort, folder, app: answer })
    : await plainly({ host, port, app: answer });
  for (const server of servers) server.keepAliveTimeout = KEEP_ALIVE;
  await loadPages(host, port);
  delete process.env.PELOTA_SELF;
  // What other devices are to open, for the page that lets one more in.
  if (network) process.env.PELOTA_NETWORK = JSON.stringify(network);
  return {
    says,
    shutDoors() {
      for (const server of servers) {
        server.close();
        server.closeIdleConnections();
      }
      thread.stop();
    },
    shut() {
      for (const server of servers) server.closeAllConnections();
      globalThis.pelotaDb?.db.$client.close();
    },
  };
}

/** Serves the built app; a signal stops it within two seconds, `onStop` last. */
export async function serve({ onStop, isHeld = () => true, ...shop }) {
  const { says, shutDoors, shut } = await openShop({ ...shop, handle: await prepareApp(shop.host, shop.port) });
  for (const line of says) console.log(line);
  setTimeout(backUp, FIRST_BACKUP).unref();
  setInterval(backUp, BACKUP_EVERY).unref();
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    shutDoors();
    setTimeout(() => {
      shut();
      onStop();
      process.exit(0);
    }, GRACE);
  };
  // Where its mark was taken away, another server may have begun on the same data.
  setInterval(() => {
    if (isHeld()) return;
    console.error("Another server has begun on this folder, whose mark was taken away: this one stops.");
    stop();
  }, HELD_LOOKED_AT).unref();
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, stop);
}

async function plainly({ host, port, app }) {
  const server = createServer(app);
  await listening(server, port, host);
  return { servers: [server], says: [`Ready on http://${inUrl(host)}:${port}`] };
}

function isAddress(url) {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}
