import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Another shop's server with an empty database of its own, for tests that need a second one. */
export interface OtherServer {
  readonly url: string;
  readonly data: string;
  /** Memory that its processes hold, bytes */
  memory(): number;
  /** Lifts the limit on the size of its files */
  unlimit(): void;
  /** @param keep the data, for one that is started on them again */
  stop(keep?: boolean): void;
}

/** @param fileLimit the largest file that it can write, kB: as on a disk that is nearly full. */
export async function startServer(
  port: number,
  args: string[] = [],
  env: Record<string, string> = {},
  fileLimit?: number,
): Promise<OtherServer> {
  const data = env.PELOTA_DATA ?? mkdtempSync(join(tmpdir(), "pelota-other-"));
  const command = ["node", "scripts/start.mjs", "--port", String(port), ...args];
  const limited = fileLimit === undefined ? command : ["bash", "-c", `ulimit -Sf ${fileLimit}; exec "$@"`, "bash", ...command];
  const server: ChildProcess = spawn(limited[0] as string, limited.slice(1), {
    env: { ...process.env, PELOTA_DATA: data, ...env },
    stdio: "ignore",
    detached: true,
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
    stop(keep = false) {
      // One that was stopped already has nothing left to stop.
      if (server.exitCode === null && server.signalCode === null) process.kill(-(server.pid as number));
      if (!keep && !env.PELOTA_DATA) rmSync(data, { recursive: true, force: true });
    },
  };
}
