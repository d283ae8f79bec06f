import { BadInput } from "@/core/input";
import type { Command } from "./door";

/** A command that loads its code when it is run: a small one starts without the large ones. */
const late = (load: () => Promise<Command>, facts: Omit<Command, "run"> = {}): Command => ({
  ...facts,
  run: async (input, args) => (await load()).run(input, args),
});

/** Every command by the name scripts call it. */
export const COMMANDS: Readonly<Record<string, Command>> = {
  orifice: late(async () => (await import("./gas")).orifice),
  "leak-size": late(async () => (await import("./gas")).leakSize),
  decay: late(async () => (await import("./gas")).decay),
  trims: late(async () => (await import("./trims")).trims),
  "read-log": late(async () => (await import("./logs")).readLog, { reads: "arguments" }),
  assess: late(async () => (await import("./jobs")).assess),
  judge: late(async () => (await import("./checks")).judge),
  probe: late(async () => (await import("./checks")).probe, { reads: "arguments" }),
  obd: late(async () => (await import("./logs")).obd, { reads: "arguments" }),
  boost: late(async () => (await import("./gas")).boost),
  filter: late(async () => (await import("./gas")).filter),
  "exhaust-gas": late(async () => (await import("./gas")).exhaustGas),
  comeback: late(async () => (await import("./comeback")).comeback),
  "cold-starts": late(async () => (await import("./comeback")).coldStartsCommand),
  simulate: late(async () => (await import("./simulate")).simulateCommand, { reads: "arguments" }),
  practice: late(async () => (await import("./practice")).practice, { reads: "arguments" }),
  reckon: late(async () => (await import("./reckon")).reckon),
  suspects: late(async () => (await import("./jobs")).suspects, { reads: "arguments" }),
  backup: late(async () => (await import("./data")).backup, { reads: "nothing" }),
  "daily-backup": late(async () => (await import("./data")).dailyBackup, { reads: "nothing" }),
  restore: late(async () => (await import("./data")).restore, { reads: "nothing" }),
  "export-shop": late(async () => (await import("./data")).exportShop, { reads: "nothing" }),
  "import-shop": late(async () => (await import("./data")).importShop, { reads: "nothing" }),
  "new-pin": late(async () => (await import("./people")).newPin),
  verify: late(async () => (await import("./data")).verify, { reads: "nothing" }),
};

/** The command of a name. Throws BadInput with the known names. */
export function commandCalled(name: string): Command {
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  if (!command)
    throw new BadInput(`There is no command "${name}". Known: ${[...Object.keys(COMMANDS), "batch"].join(", ")}`, "command");
  return command;
}
