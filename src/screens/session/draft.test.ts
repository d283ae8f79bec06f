import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { draftOver } from "./draft";

const EMPTY = { text: "", count: 0, ticked: false, list: [] as unknown[], inner: { unit: "psi", value: "" }, choice: undefined };
const kindOf = (value: unknown) => (Array.isArray(value) ? "array" : value === null ? "null" : typeof value);

describe("a draft that was kept", () => {
  it("comes back as it was typed", () => {
    const typed = {
      ...EMPTY,
      text: "Clamp",
      list: [{ at: 3 }],
      inner: { unit: "kPa", value: "3" },
      choice: "a",
      extra: { x: 1 },
    };
    expect(draftOver(EMPTY, JSON.parse(JSON.stringify(typed)))).toEqual(typed);
  });

  it("of an older shape gets what is new, and loses nothing else", () => {
    expect(draftOver(EMPTY, { text: "Clamp", inner: { value: "3" } })).toEqual({
      ...EMPTY,
      text: "Clamp",
      inner: { unit: "psi", value: "3" },
    });
  });

  it("has today's types in every field, whatever was in storage (property)", () => {
    const damaged = fc.oneof(
      fc.jsonValue(),
      fc.record({
        text: fc.jsonValue(),
        count: fc.jsonValue(),
        ticked: fc.jsonValue(),
        list: fc.jsonValue(),
        inner: fc.jsonValue(),
      }),
    );
    fc.assert(
      fc.property(damaged, (kept) => {
        const draft = draftOver(EMPTY, kept);
        for (const key of ["text", "count", "ticked", "list", "inner"] as const)
          expect(kindOf(draft[key])).toBe(kindOf(EMPTY[key]));
        expect(typeof draft.inner.unit).toBe("string");
      }),
    );
  });
});
