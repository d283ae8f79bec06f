import { describe, expect, it } from "vitest";
import { dayWords } from "./day-words";

describe("a time as the workshop says it", () => {
  const at = (day: number, hour: number, minute = 0) => new Date(2026, 2, day, hour, minute).getTime();
  it.each([
    [at(2, 18, 5), "18:05 today"],
    [at(3, 6, 40), "06:40 tomorrow"],
    [at(5, 14), "14:00 on Thu 5 Mar"],
  ])("%s is %s", (ms, words) => {
    expect(dayWords(ms, at(2, 8))).toBe(words);
  });
});
