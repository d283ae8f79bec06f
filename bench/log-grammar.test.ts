import { describe, expect, it } from "vitest";
import { logGrammar } from "./log-grammar";

describe("scan logs from a grammar that writes what a tool could", () => {
  it("reads them right or asks one question, and takes no unit in silence", () => {
    const score = logGrammar(80, 7_000);
    expect(score.silentlyWrong, score.wrong.join("\n")).toBe(0);
    expect(score.right / score.files).toBeGreaterThanOrEqual(0.92);
    expect((score.right + score.oneQuestion) / score.files).toBeGreaterThanOrEqual(0.95);
  });
});
