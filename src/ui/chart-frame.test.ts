import { describe, expect, it } from "vitest";
import { spanning } from "./chart-frame";

describe("the span of an axis", () => {
  const percent = spanning(10, 5, 0);
  it("holds every value, its ends on whole steps", () => {
    expect(percent([-12.3, 31])).toEqual([-15, 35]);
    expect(percent([2, 31])).toEqual([0, 35]);
  });
  it("is never so short that its marks stand for nothing: readings all alike have room about them", () => {
    expect(spanning(5, 1)([16.48, 16.4803])).toEqual([13, 19]);
    expect(percent([0, 0])).toEqual([-5, 5]);
  });
  it("stands where there is nothing to show", () => {
    expect(percent([Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY])).toEqual([-5, 5]);
    expect(spanning(5, 1)([Number.NaN, Number.NaN])).toEqual([0, 5]);
  });
});
