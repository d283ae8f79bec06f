import { createInterface } from "node:readline";
import { BadInput } from "@/core/input";
import { answerLine, errorOf } from "./batch";
import { commandCalled } from "./commands";
import type { Command } from "./commands/door";

async function readStdin(): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of process.stdin) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString("utf8");
}

const print = (value: unknown, to: NodeJS.WriteStream = process.stdout) => to.write(`${JSON.stringify(value)}\n`);

/** JSON Lines of {command, input, args?} in, one answer a line out, in their order. */
async function batch(): Promise<void> {
  for await (const line of createInterface({ input: process.stdin })) {
    if (line.trim() !== "") print(await answerLine(line));
  }
}

const takesInput = ({ reads }: Command, args: readonly string[]) =>
  reads === undefined || (reads === "arguments" && args.length === 0);

async function main(): Promise<void> {
  const [name = "", ...args] = process.argv.slice(2);
  if (name === "batch") return batch();
  try {
    const command = commandCalled(name);
    const answer = await command.run(takesInput(command, args) ? await readStdin() : "", args);
    // A text is a table as it stands: CSV.
    if (typeof answer === "string") process.stdout.write(answer);
    else print(answer);
  } catch (error) {
    print(errorOf(error), process.stderr);
    process.exitCode = error instanceof BadInput ? 2 : 1;
  }
}

await main();
