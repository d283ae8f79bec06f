import { readFileSync } from "node:fs";
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

it.each(blocks.filter((b) => b.side === "in"))("docs/formats.md: $command answers as it says", async ({ command, value }) => {
  const [name, ...args] = command.split(":");
  const answer = await COMMANDS[name as string]?.run(JSON.stringify(value), args);
  const said = blocks.find((b) => b.command === command && b.side === "out");
  expect(answer).toBeDefined();
  // A verdict is shown by its head; every other answer whole.
  if (said && name === "judge") expect(rounded(answer)).toMatchObject(rounded(said.value) as object);
  else if (said) expect(rounded(answer)).toEqual(rounded(said.value));
});

it("docs/formats.md shows judge on every check", () => {
  for (const check of CHECK_IDS) expect(blocks.filter((b) => b.command === `judge:${check}`)).toHaveLength(2);
});

it("docs/formats.md names every command", () => {
  for (const command of Object.keys(COMMANDS)) expect(text).toContain(`### ${command}\n`);
});
