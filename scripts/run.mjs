import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { delimiter, join, resolve } from "node:path";

/** What is installed here is called by its name: npx takes most of a second to find the same. */
const PATH = `${resolve("node_modules/.bin")}${delimiter}${process.env.PATH}`;
export const quietEnv = { ...process.env, PATH, NEXT_TELEMETRY_DISABLED: "1" };

/** Runs a command with its output shown; ends this process when it fails. */
export function must(command, args, env = quietEnv) {
  const done = spawnSync(command, args, { stdio: "inherit", env });
  if (done.status !== 0) process.exit(done.status ?? 1);
}

/** Runs a command with its output shown; tells whether it succeeded. */
export const tried = (command, args, env = quietEnv) => spawnSync(command, args, { stdio: "inherit", env }).status === 0;

/** Says which of a command's steps begins, and about how long it takes. */
export const step = (number, of, what) => console.log(`\n[${number}/${of}] ${what}`);

/** What the app is built of. */
const SOURCES = ["src", "next.config.ts", "postcss.config.mjs", "tsconfig.json", "package-lock.json"];
const newest = (path) =>
  statSync(path).isDirectory()
    ? Math.max(statSync(path).mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))))
    : statSync(path).mtimeMs;

/** Whether the app was built after all that it is built of last changed. */
export const isBuilt = () => existsSync(BUILD) && statSync(BUILD).mtimeMs > Math.max(...SOURCES.map(newest));
const BUILD = ".next/BUILD_ID";

/**
 * Installs the packages of the lock file, unless they are in already. What has to be compiled is being compiled when this returns:
 * the promise waits for it, and ends this process when it fails.
 */
export function install() {
  const lock = createHash("sha256").update(readFileSync("package-lock.json")).digest("hex");
  const mark = "node_modules/.pelota-installed";
  if (existsSync(mark) && readFileSync(mark, "utf8") === lock) return Promise.resolve();
  must("npm", ["ci", "--ignore-scripts", "--no-audit", "--no-fund"]);
  // SQLite is one file of a quarter million lines: optimised less, it is compiled in half the time.
  const env = { ...quietEnv, CFLAGS: "-O1", CXXFLAGS: "-O1", JOBS: "max" };
  const compiling = spawn("npm", ["rebuild"], { stdio: "inherit", env });
  return new Promise((done) => {
    compiling.on("close", (code) => {
      if (code !== 0) process.exit(code ?? 1);
      writeFileSync(mark, lock);
      done();
    });
  });
}
