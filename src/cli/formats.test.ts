import { readdirSync, readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { CHECK_IDS } from "@/core/checks";
import { COMMANDS } from "./commands";

const text = readFileSync("docs/formats.md", "utf8");
const blocks = [...text.matchAll(/```json (\S+) (in|out)\n([\s\S]*?)```/g)].map(([, command, side, json]) => ({
  command: command as string,
  side,
  value: JSON.parse(json as string) as unknown,
}));

/** Numbers are written to five figures in the document. */
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value), (_key, v) => (typeof v === "number" ? Number(v.toPrecision(4)) : v));

const said = (command: string) => blocks.find((b) => b.command === command && b.side === "out")?.value;

it.each(blocks.filter((b) => b.side === "in"))("docs/formats.md: $command answers as it says", async ({ command, value }) => {
  const [name, ...args] = command.split(":");
  const answer = await COMMANDS[name as string]?.run(JSON.stringify(value), args);
  expect(answer).toBeDefined();
  if (said(command)) expect(rounded(answer)).toEqual(rounded(said(command)));
});

/** An example of each check: a record in its context, and the head of its verdict. */
const EXAMPLES = readdirSync("docs/examples").map((file) => ({
  file,
  ...(JSON.parse(readFileSync(`docs/examples/${file}`, "utf8")) as { input: unknown; output: object }),
}));

it.each(EXAMPLES)("docs/examples/$file gets the verdict it shows", async ({ file, input, output }) => {
  const check = /^judge-(.+)\.json$/.exec(file)?.[1] as string;
  expect(rounded(await COMMANDS.judge?.run(JSON.stringify(input), [check]))).toMatchObject(rounded(output) as object);
});

it("docs/examples has one of every check, and docs/formats.md leads to each", () => {
  expect(EXAMPLES.map((e) => e.file).toSorted()).toEqual(CHECK_IDS.map((check) => `judge-${check}.json`).toSorted());
  for (const { file } of EXAMPLES) expect(text).toContain(`examples/${file}`);
});

it("docs/formats.md names every command", () => {
  for (const command of Object.keys(COMMANDS)) expect(text).toContain(`### ${command}\n`);
});
