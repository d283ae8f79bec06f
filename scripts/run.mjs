import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";

export const quietEnv = { ...process.env, NEXT_TELEMETRY_DISABLED: "1" };

/** Runs a command with its output shown; ends this process when it fails. */
export function must(command, args, env = quietEnv) {
  const done = spawnSync(command, args, { stdio: "inherit", env });
  if (done.status !== 0) process.exit(done.status ?? 1);
}

/** Runs a command with its output shown; tells whether it succeeded. */
export const tried = (command, args, env = quietEnv) => spawnSync(command, args, { stdio: "inherit", env }).status === 0;

/** Installs the packages of the lock file, unless they are in already. */
export function install() {
  const lock = createHash("sha256").update(readFileSync("package-lock.json")).digest("hex");
  const mark = "node_modules/.pelota-installed";
  if (existsSync(mark) && readFileSync(mark, "utf8") === lock) return;
  must("npm", ["ci", "--no-audit", "--no-fund"]);
  mkdirSync("node_modules", { recursive: true });
  writeFileSync(mark, lock);
}
