/**
 * Speed and accuracy, measured and printed; nothing here passes or fails. `npm run bench` runs all parts, `npm run bench --
 * trims gates` those that are named. Speed is measured with nothing beside it, the rest side by side on all cores. A run of
 * all parts is kept in bench/results.md.
 */
import { spawn } from "node:child_process";
import { writeFileSync } from "node:fs";
import { cpus } from "node:os";
import { PARTS } from "./parts";

const [first, ...others] = process.argv.slice(2);
if (first === "--part") {
  await PARTS[others[0] as string]?.run();
  process.exit(0);
}

const asked = first === undefined ? Object.keys(PARTS) : [first, ...others];
const unknown = asked.filter((name) => !PARTS[name]);
if (unknown.length > 0) {
  console.error(`No such part: ${unknown.join(", ")}. There are ${Object.keys(PARTS).join(", ")}.`);
  process.exit(2);
}

/** Runs a part in a process of its own; @returns what it printed. */
function measured(name: string): Promise<string> {
  return new Promise((done) => {
    const start = Date.now();
    const child = spawn("npx", ["tsx", "bench/run.ts", "--part", name], { stdio: ["ignore", "pipe", "inherit"] });
    let said = "";
    child.stdout.on("data", (part) => {
      said += part;
    });
    child.on("close", (code) => {
      const text = `${said}${code === 0 ? "" : `  broke off with code ${code}\n`}`;
      console.log(`${name}, ${Math.round((Date.now() - start) / 1000)} s\n${text}`);
      done(text);
    });
  });
}

const results = new Map<string, string>();
const run = async (name: string) => results.set(name, await measured(name));
for (const name of asked.filter((name) => PARTS[name]?.alone)) await run(name);
const rest = asked.filter((name) => !PARTS[name]?.alone);
const worker = async () => {
  for (let name = rest.shift(); name !== undefined; name = rest.shift()) await run(name);
};
await Promise.all(cpus().map(worker));

if (first === undefined) {
  const at = `${new Date().toISOString().slice(0, 10)}, ${cpus().length} cores, Node ${process.version}`;
  const parts = Object.keys(PARTS).map((name) => `## ${name}\n\n\`\`\`text\n${results.get(name)?.trimEnd()}\n\`\`\`\n`);
  writeFileSync("bench/results.md", `# Measured ${at}\n\n\`npm run bench\` writes this anew.\n\n${parts.join("\n")}`);
}
