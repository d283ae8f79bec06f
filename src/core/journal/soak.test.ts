import { describe, expect, it } from "vitest";
import { DEFAULT_LIMITS } from "../shop/limits";
import { soakDoubt } from "./soak";

const END = Date.parse("2026-03-02T10:30:00Z");
const drives = [
  { at: "2026-03-02T10:00:00Z", minutes: 30 },
  { at: "2026-03-01T10:00:00Z", minutes: 30 },
];
const doubt = (seconds: number, check: Parameters<typeof soakDoubt>[0] = "decay") =>
  soakDoubt(check, { drives }, DEFAULT_LIMITS, END + 1000 * seconds);

describe("a tank that has not soaked", () => {
  it("is said before a check that its vapour would spoil, until the soak is over", () => {
    expect(doubt(20 * 60)).toMatch(/^driven 20 min ago: .*soak 8 h/);
    expect(doubt(4 * 3600)).toMatch(/^driven 4\.0 h ago/);
    expect(doubt(8 * 3600)).toBeUndefined();
    // A drive that is still going on, by its minutes
    expect(doubt(-60)).toMatch(/^driven 0 min ago/);
  });
  it("is nothing to a check that does not care, and not known where nobody drove", () => {
    expect(doubt(60, "smoke")).toBeUndefined();
    expect(soakDoubt("decay", { drives: [] }, DEFAULT_LIMITS, END)).toBeUndefined();
  });
});
