import { randomBytes, scryptSync } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { Unfit } from "./data-folder.mjs";
import { weakness } from "./passphrase.mjs";

/** What the app is told of the gate where there is none. */
export const NO_GATE = { PELOTA_GATE: "", PELOTA_GATE_SALT: "" };

/** What the app is told of the gate that a shop passphrase shuts, with the salt that lies in the data folder. Throws Unfit. */
export function gateOf(folder, passphrase) {
  const weak = weakness(passphrase);
  if (weak) throw new Unfit(`The shop passphrase ${weak}.`);
  const saltFile = join(folder, "gate-salt");
  mkdirSync(folder, { recursive: true });
  if (!existsSync(saltFile)) writeFileSync(saltFile, randomBytes(16).toString("hex"), { mode: 0o600 });
  const salt = readFileSync(saltFile, "utf8");
  return { PELOTA_GATE: scryptSync(passphrase.trim(), salt, 32).toString("hex"), PELOTA_GATE_SALT: salt };
}
