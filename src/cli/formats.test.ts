import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
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

it.each(blocks.filter((b) => b.side === "in"))("docs/formats.md: $command answers as it says", async ({ command, value }) => {
  const answer = await COMMANDS[command]?.run(JSON.stringify(value), []);
  const said = blocks.find((b) => b.command === command && b.side === "out");
  expect(answer).toBeDefined();
  if (said) expect(rounded(answer)).toEqual(rounded(said.value));
});

it("docs/formats.md names every command", () => {
  for (const command of Object.keys(COMMANDS)) expect(text).toContain(`### ${command}\n`);
});
