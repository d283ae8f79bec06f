import { BadInput } from "@/core/input";
import { COMMANDS } from "./commands";

async function readStdin(): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of process.stdin) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString("utf8");
}

async function main(): Promise<void> {
  const [name = "", ...args] = process.argv.slice(2);
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  try {
    if (!command) {
      throw new BadInput(`There is no command "${name}". Known: ${Object.keys(COMMANDS).join(", ")}`, "command");
    }
    const result = await command.run(command.reads === "arguments" && args.length > 0 ? "" : await readStdin(), args);
    process.stdout.write(`${JSON.stringify(result)}\n`);
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    process.stderr.write(`${JSON.stringify({ error: { message: error.message, path: error.path } })}\n`);
    process.exitCode = 2;
  }
}

await main();
