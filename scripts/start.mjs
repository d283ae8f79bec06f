// Starts the built app on 127.0.0.1:4310. `--host 0.0.0.0` listens wider, behind a shop passphrase.
import { spawn } from "node:child_process";
import { randomBytes, scryptSync } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { parseArgs } from "node:util";
import { quietEnv } from "./run.mjs";

const { values } = parseArgs({ options: { host: { type: "string" }, port: { type: "string" } } });
const host = values.host ?? process.env.PELOTA_HOST ?? "127.0.0.1";
const port = values.port ?? process.env.PORT ?? "4310";
const env = { ...quietEnv, PELOTA_GATE: "", PELOTA_GATE_SALT: "" };

if (!["127.0.0.1", "localhost", "::1"].includes(host)) {
  const passphrase = process.env.PELOTA_PASSPHRASE ?? (await ask());
  if (passphrase.trim().length < 8) {
    console.error("The shop passphrase needs at least 8 characters. Nothing was started.");
    process.exit(2);
  }
  const folder = process.env.PELOTA_DATA ?? "data";
  const saltFile = join(folder, "gate-salt");
  mkdirSync(folder, { recursive: true });
  if (!existsSync(saltFile)) writeFileSync(saltFile, randomBytes(16).toString("hex"), { mode: 0o600 });
  env.PELOTA_GATE_SALT = readFileSync(saltFile, "utf8");
  env.PELOTA_GATE = scryptSync(passphrase.trim(), env.PELOTA_GATE_SALT, 32).toString("hex");
}

// A connection that a tablet keeps open is not shut under the entry it is about to send.
const KEEP_ALIVE = "65000";
const server = spawn("npx", ["next", "start", "--hostname", host, "--port", port, "--keepAliveTimeout", KEEP_ALIVE], {
  stdio: "inherit",
  env,
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));

async function ask() {
  if (!process.stdin.isTTY) return "";
  const line = createInterface({ input: process.stdin, output: process.stdout });
  const typed = await line.question("Shop passphrase for devices on this network (8 characters or more): ");
  line.close();
  return typed;
}
