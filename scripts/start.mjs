// Starts the built app on 127.0.0.1:4310. `--host 0.0.0.0` listens wider: on HTTPS, behind a shop passphrase.
import { resolve } from "node:path";
import { createInterface } from "node:readline/promises";
import { parseArgs } from "node:util";
import { lastBackup, openData, Unfit } from "./data-folder.mjs";
import { gateOf, NO_GATE } from "./gate.mjs";
import { serve } from "./serve.mjs";

const { values } = parseArgs({
  options: { host: { type: "string" }, port: { type: "string" }, "https-port": { type: "string" }, http: { type: "boolean" } },
});
const host = values.host ?? process.env.PELOTA_HOST ?? "127.0.0.1";
const port = Number(values.port ?? process.env.PORT ?? "4310");
const securePort = Number(values["https-port"] ?? port + 1);
const folder = resolve(process.env.PELOTA_DATA ?? "data");

try {
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Unfit(`The port "${values.port ?? process.env.PORT}" is none: name one from 1 to 65535.`);
  if (!Number.isInteger(securePort) || securePort < 1 || securePort > 65535 || securePort === port)
    throw new Unfit(`The port "${values["https-port"] ?? securePort}" is none for HTTPS: name another one with --https-port.`);
  const data = openData(folder);
  const wide = !["127.0.0.1", "localhost", "::1"].includes(host);
  // Whoever comes from another machine gives the shop's passphrase.
  const gate = wide ? gateOf(folder, process.env.PELOTA_PASSPHRASE ?? (await ask())) : NO_GATE;
  Object.assign(process.env, { NEXT_TELEMETRY_DISABLED: "1", ...gate });
  if (wide && values.http)
    console.warn(
      "Plain HTTP: whoever listens on this network reads passphrase, PINs and every record, can write in others' names, and tablets cannot keep the app for when the server is away.",
    );
  // What is given once to start with is nobody's business afterwards.
  delete process.env.PELOTA_PASSPHRASE;
  console.log(
    `Data: ${folder}, ${data.jobs === 1 ? "1 job" : `${data.jobs} jobs`}, last backed up: ${lastBackup(folder) ?? "never"}`,
  );
  await serve({ host, port, ...(wide && !values.http ? { securePort } : {}), folder, onStop: data.release, isHeld: data.isHeld });
} catch (error) {
  if (!(error instanceof Unfit)) throw error;
  console.error(`${error.message} Nothing was started.`);
  process.exit(2);
}

async function ask() {
  if (!process.stdin.isTTY) return "";
  const line = createInterface({ input: process.stdin, output: process.stdout });
  const typed = await line.question("Shop passphrase for devices on this network (8 characters or more): ");
  line.close();
  return typed;
}
