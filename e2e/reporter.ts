import { relative } from "node:path";
import type { FullResult, Reporter, Suite, TestCase, TestResult } from "@playwright/test/reporter";

/** How much of an expectation and of a log is shown: a failure stands on one screen. */
const LINES = 24;
const ESCAPES = new RegExp(`${String.fromCharCode(27)}\\[[0-9;]*m`, "g");

const last = (lines: readonly string[]) => (lines.length > LINES ? ["…", ...lines.slice(-LINES)] : lines);
const indented = (lines: readonly string[]) => lines.map((line) => `    ${line}`).join("\n");

/** Says how far the tests are, and of each that fails on one screen: which, what was expected, what the server said meanwhile, and a picture. */
export default class OneScreen implements Reporter {
  readonly #server: { readonly at: number; readonly line: string }[] = [];
  #all = 0;
  #done = 0;

  onBegin(_config: unknown, suite: Suite): void {
    this.#all = suite.allTests().length;
    console.log(`${this.#all} tests in a browser`);
  }

  /** Without a test it is the server that speaks. */
  onStdOut(chunk: string | Buffer, test?: TestCase): void {
    if (test) return void process.stdout.write(chunk);
    for (const line of String(chunk).split("\n")) if (line.trim() !== "") this.#server.push({ at: Date.now(), line });
  }
  onStdErr(chunk: string | Buffer, test?: TestCase): void {
    this.onStdOut(chunk, test);
  }

  onTestEnd(test: TestCase, result: TestResult): void {
    this.#done++;
    if (this.#done % 20 === 0) console.log(`  ${this.#done} of ${this.#all}`);
    if (test.ok() || result.status === "skipped") return;
    const from = result.startTime.getTime();
    const during = this.#server.filter(({ at }) => at >= from && at <= from + result.duration).map(({ line }) => line);
    const said = result.attachments.flatMap(({ name, body }) => (name === "shop" && body ? String(body).split("\n") : []));
    const { file, line } = test.location;
    console.log(
      `\nFAILED ${relative(process.cwd(), file)}:${line} ${test.title} (${result.status}, ${Math.round(result.duration / 1000)} s)`,
    );
    for (const { message, snippet } of result.errors)
      console.log(
        indented(
          [...(message ?? "").split("\n"), ...(snippet ?? "").split("\n")].map((l) => l.replace(ESCAPES, "")).slice(0, LINES),
        ),
      );
    if (during.length + said.length > 0) console.log(`  The server said meanwhile:\n${indented(last([...during, ...said]))}`);
    for (const { name, path } of result.attachments)
      if (name === "screenshot" && path) console.log(`  Picture: ${relative(process.cwd(), path)}`);
  }

  onError({ message }: { readonly message?: string }): void {
    console.log(message);
  }

  onEnd({ status }: FullResult): void {
    console.log(`${this.#done} of ${this.#all} tests in a browser ended: ${status}`);
  }

  printsToStdio(): boolean {
    return true;
  }
}
