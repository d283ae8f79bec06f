import { afterEach, expect, it, vi } from "vitest";
import { giveTicket, takeTicket } from "./tickets";

afterEach(() => vi.useRealTimers());

it("opens its door once, within a minute, and for what it was given for", () => {
  vi.useFakeTimers();
  const [one, two] = [giveTicket({ customers: false }), giveTicket({ customers: true })];
  expect(one).not.toBe(two);
  expect(takeTicket(two)).toEqual({ customers: true });
  expect(() => takeTicket(two)).toThrow(/good once/);
  expect(() => takeTicket("")).toThrow(/good once/);
  vi.advanceTimersByTime(61_000);
  expect(() => takeTicket(one)).toThrow(/good once/);
});
