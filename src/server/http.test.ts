import { afterEach, expect, it, vi } from "vitest";
import { BadInput } from "@/core/input";
import { answer, answerLines } from "./http";

afterEach(() => vi.restoreAllMocks());

async function* three(fail?: Error) {
  yield { jobs: 2 };
  yield { job: 1 };
  if (fail) throw fail;
  yield { job: 2 };
}
const linesIn = async (response: Response) =>
  (await response.text())
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line));

it("answers line by line, and says at its end what went wrong on the way", async () => {
  const ended = vi.fn();
  expect(await linesIn(await answerLines(three(), ended))).toEqual([{ jobs: 2 }, { job: 1 }, { job: 2 }]);
  expect(ended).toHaveBeenCalledTimes(1);
  const full = Object.assign(new Error("no space"), { code: "ENOSPC" });
  vi.spyOn(console, "error").mockImplementation(() => {});
  const [, , last] = await linesIn(await answerLines(three(full), ended));
  expect(last.error.message).toMatch(/disk .* is full/);
  expect(ended).toHaveBeenCalledTimes(2);
});

it("refuses at once what is refused before the first line", async () => {
  const ended = vi.fn();
  // biome-ignore lint/correctness/useYield: it fails before it says anything
  const refused = (async function* () {
    throw new BadInput("no archive");
  })();
  const response = await answer(() => answerLines(refused, ended));
  expect([response.status, (await response.json()).error.message]).toEqual([400, "no archive"]);
  expect(ended).toHaveBeenCalledTimes(1);
});

it("stops the work when nobody listens any more", async () => {
  let reached = 0;
  const ended = vi.fn();
  const work = (async function* () {
    for (;;) yield ++reached;
  })();
  const reader = ((await answerLines(work, ended)).body as ReadableStream<Uint8Array>).getReader();
  await reader.read();
  await reader.cancel();
  expect(ended).toHaveBeenCalledTimes(1);
  const then = reached;
  await new Promise((done) => setTimeout(done, 20));
  expect(reached).toBe(then);
});
