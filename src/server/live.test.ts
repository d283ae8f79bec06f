import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { validate } from "@/core/input";
import { type LiveRun, liveCallSchema, liveRunSchema } from "@/core/live";
import { callOut, newCode, publish, takeCode, watch } from "./live";

const RUN: LiveRun = {
  by: "Maren Oake",
  machine: "Fen smoker",
  seconds: 42,
  running: true,
  flow: { value: 6.4, max: 12, unit: "L/min" },
  pressure: { value: 12.4, unit: "inH2O" },
  words: "Settled",
  seen: [],
};

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

describe("a run on a second device", () => {
  it("is seen while its own device speaks, and calls go back to it once each", () => {
    expect(watch("job-1")).toBeUndefined();
    expect(callOut("job-1", "more")).toBe(false);
    expect(publish("job-1", RUN, 0)).toEqual([]);
    expect(watch("job-1")?.run).toEqual(RUN);
    expect(callOut("job-1", "more")).toBe(true);
    expect(callOut("job-1", "there")).toBe(true);
    const heard = publish("job-1", RUN, 0);
    expect(heard.map((c) => c.call)).toEqual(["more", "there"]);
    expect(publish("job-1", RUN, heard[1]?.number ?? 0)).toEqual([]);
    vi.advanceTimersByTime(21_000);
    expect(watch("job-1")).toBeUndefined();
    expect(callOut("job-1", "less")).toBe(false);
  });

  it("lets one device in by one code, within its time", () => {
    const { code } = newCode();
    expect(code).toMatch(/^\d{6}$/);
    expect(takeCode(code)).toBe(true);
    expect(takeCode(code)).toBe(false);
    const late = newCode().code;
    vi.advanceTimersByTime(10 * 60_000 + 1);
    expect(takeCode(late)).toBe(false);
  });

  it("takes no word its schema does not know", () => {
    expect(() => validate(liveRunSchema, RUN)).not.toThrow();
    expect(() => validate(liveRunSchema, { ...RUN, flow: { value: Number.NaN, max: 1, unit: "L/min" } })).toThrow();
    expect(() => validate(liveRunSchema, { ...RUN, extra: 1 })).toThrow(/unknown key/);
    expect(() => validate(liveCallSchema, { call: "stop" })).toThrow(/more, less or there/);
  });
});
