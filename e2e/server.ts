import { type ChildProcess, execFileSync, fork, spawn } from "node:child_process";
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** A shop's server with a database of its own, for tests that need a second one. */
export interface OtherShop {
  readonly url: string;
  readonly data: string;
  /** @param keep the data, for one that is started on them again; settled once it has let go of them */
  stop(keep?: boolean): Promise<void>;
}

export interface ShopOptions {
  /** Of a shop that was there before; an empty one of its own, gone with it, where none is named */
  readonly data?: string;
  /** Whose devices on the network it lets in; on this machine alone without one */
  readonly passphrase?: string;
  /** Whether other devices are on HTTPS */
  readonly secure?: boolean;
}

/** Opens one shop after another in one process of the worker: nothing of the app is loaded twice. */
export class ShopHost {
  #host: ChildProcess | undefined;
  #asked = 0;
  readonly port: number;
  readonly log: string[] = [];

  constructor(worker: number) {
    this.port = 4380 + 2 * worker;
  }
  get securePort(): number {
    return this.port + 1;
  }

  async open({ data, passphrase, secure = false }: ShopOptions = {}): Promise<OtherShop> {
    const folder = data ?? mkdtempSync(join(tmpdir(), "pelota-shop-"));
    await this.#ask("begin", {
      folder,
      port: this.port,
      ...(passphrase === undefined ? {} : { passphrase, host: "0.0.0.0" }),
      ...(secure ? { securePort: this.securePort } : {}),
    });
    let stopped = false;
    return {
      url: `http://127.0.0.1:${this.port}`,
      data: folder,
      stop: async (keep = false) => {
        if (!stopped) await this.#ask("end");
        stopped = true;
        if (!keep && !data) rmSync(folder, { recursive: true, force: true });
      },
    };
  }

  close(): void {
    this.#host?.disconnect();
  }

  #ask(ask: "begin" | "end", shop?: object): Promise<void> {
    const host = this.#started();
    const id = ++this.#asked;
    return new Promise((done, fail) => {
      const answered = (answer: { id: number; failed?: string }) => {
        if (answer.id !== id) return;
        host.off("message", answered);
        host.off("exit", ended);
        if (answer.failed) fail(new Error(answer.failed));
        else done();
      };
      const ended = (code: number | null) => {
        this.#host = undefined;
        fail(new Error(`The process that serves the shops has ended with ${code}:\n${this.log.slice(-20).join("")}`));
      };
      host.on("message", answered);
      host.once("exit", ended);
      host.send({ id, ask, shop });
    });
  }

  #started(): ChildProcess {
    if (this.#host) return this.#host;
    const env = { ...process.env, PELOTA_KEEP_BACKUPS: "0" };
    const host = fork("e2e/shop-host.mjs", { env, stdio: ["ignore", "pipe", "pipe", "ipc"] });
    for (const stream of [host.stdout, host.stderr]) stream?.on("data", (part) => this.log.push(String(part)));
    this.#host = host;
    return host;
  }
}

/** A shop's server in a process of its own, for what is tried on the process itself. */
export interface OtherServer extends OtherShop {
  /** Memory that its processes hold, bytes */
  memory(): number;
  /** Lifts the limit on the size of its files */
  unlimit(): void;
}

/**
 * @param fileLimit the largest file that it can write, kB: as on a disk that is nearly full; @param root where the build is that it
 * serves: this one's, or another's.
 */
export async function startServer(
  port: number,
  args: string[] = [],
  env: Record<string, string> = {},
  fileLimit?: number,
  root = process.cwd(),
): Promise<OtherServer> {
  const data = env.PELOTA_DATA ?? mkdtempSync(join(tmpdir(), "pelota-other-"));
  const command = ["node", "scripts/start.mjs", "--port", String(port), ...args];
  const limited = fileLimit === undefined ? command : ["bash", "-c", `ulimit -Sf ${fileLimit}; exec "$@"`, "bash", ...command];
  const server: ChildProcess = spawn(limited[0] as string, limited.slice(1), {
    env: { ...process.env, PELOTA_DATA: data, ...env },
    stdio: "ignore",
    detached: true,
    cwd: root,
  });
  const url = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 100; tries++) {
    if (
      await fetch(`${url}/unlock`).then(
        (r) => r.ok,
        () => false,
      )
    )
      break;
    await new Promise((done) => setTimeout(done, 200));
  }
  // It leads a process group of its own.
  const memory = () =>
    Number(
      execFileSync("ps", ["-e", "-o", "pgid=,rss="], { encoding: "utf8" })
        .split("\n")
        .map((line) => line.trim().split(/\s+/).map(Number))
        .filter(([group]) => group === server.pid)
        .reduce((sum, [, rss]) => sum + (rss ?? 0), 0),
    ) * 1024;
  return {
    url,
    data,
    memory,
    unlimit: () => execFileSync("prlimit", ["--pid", String(server.pid), "--fsize=unlimited"]),
    async stop(keep = false) {
      // One that was stopped already has nothing left to stop.
      const ended = server.exitCode !== null || server.signalCode !== null;
      const over = ended ? Promise.resolve() : new Promise((done) => server.once("exit", done));
      if (!ended) process.kill(-(server.pid as number));
      await over;
      if (!keep && !env.PELOTA_DATA) rmSync(data, { recursive: true, force: true });
    },
  };
}

/** A build that differs from this one in its name, as the next one will: what it serves is the same app. */
export function newerBuild(): string {
  const root = mkdtempSync(join(tmpdir(), "pelota-newer-"));
  const here = process.cwd();
  for (const part of ["node_modules", "scripts", "src", "package.json", "next.config.ts"])
    symlinkSync(join(here, part), join(root, part));
  mkdirSync(join(root, ".next"));
  const id = readFileSync(join(here, ".next", "BUILD_ID"), "utf8").trim();
  const newer = `${id.slice(0, -5)}newer`;
  for (const part of readdirSync(join(here, ".next"))) {
    if (part === "static") cpSync(join(here, ".next", part), join(root, ".next", part), { recursive: true });
    else if (part !== "BUILD_ID" && part !== "cache") symlinkSync(join(here, ".next", part), join(root, ".next", part));
  }
  writeFileSync(join(root, ".next", "BUILD_ID"), newer);
  renameSync(join(root, ".next", "static", id), join(root, ".next", "static", newer));
  mkdirSync(join(root, "out"));
  writeFileSync(join(root, "out", "sw.js"), readFileSync(join(here, "out", "sw.js"), "utf8").replaceAll(id, newer));
  return root;
}
