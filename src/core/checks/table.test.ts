import { describe, expect, it } from "vitest";
import { readTable } from "./table";

describe("a typed table of readings", () => {
  it("takes blanks, tabs and semicolons between, a decimal point or comma, and empty lines", () => {
    expect(readTable("0 10.00\n\n30\t9,21\n60; 8.45\n")).toEqual([
      [0, 10],
      [30, 9.21],
      [60, 8.45],
    ]);
    expect(readTable("")).toEqual([]);
  });
  it.each([
    ["0 10\n5", /^Line 2: type seconds and pressure/],
    ["0 10\n5 9 8", /^Line 2: type seconds/],
    ["zero 10", /^Line 1: /],
    ["0 10\n30 9\n20 8", /^Line 3: time must rise/],
  ])("says which line of %j is wrong", (text, message) => {
    expect(readTable(text)).toMatch(message);
  });
});
