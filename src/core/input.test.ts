import { describe, expect, it } from "vitest";
import * as yup from "yup";
import { BadInput, line, needed, strictObject, validate } from "./input";

const schema = strictObject({
  name: needed("The name", "Type a name", 10),
  note: line("The note", 5).optional(),
  count: yup.number().min(1, "At least one").required(),
});
const refusal = (value: unknown, path?: string) => {
  try {
    validate(schema, value, path);
    return undefined;
  } catch (error) {
    expect(error).toBeInstanceOf(BadInput);
    return error as BadInput;
  }
};

describe("validating at a door", () => {
  it("returns the value as it was given, untouched", () => {
    const given = { name: " Maren ", count: 2 };
    expect(validate(schema, given)).toBe(given);
    expect(given.name).toBe(" Maren ");
  });

  it("names what is wrong before what is missing", () => {
    expect(refusal({ name: "x", count: 0 })).toMatchObject({ message: "At least one", path: "count" });
    expect(refusal({ count: 0 })).toMatchObject({ message: "At least one" });
    expect(refusal({ count: 1 })).toMatchObject({ message: "Type a name", path: "name" });
  });

  it("takes no text for a number and no blank for a text", () => {
    expect(refusal({ name: "x", count: "2" })?.path).toBe("count");
    expect(refusal({ name: "   ", count: 1 })?.message).toBe("Type a name");
    expect(refusal({ name: "x".repeat(11), count: 1 })?.message).toBe("The name is too long: keep it under 10 characters");
  });

  it("puts the place of the whole before the place within", () => {
    expect(refusal({ name: "x", count: 1, note: "too long" }, "entries[3]")?.path).toBe("entries[3].note");
    expect(refusal({ name: "x", count: 1, colour: "red" })?.message).toMatch(/unknown key: colour/);
  });

  it("lets an error of ours through as it is", () => {
    const broken = strictObject({
      a: yup.mixed().test("boom", () => {
        throw new TypeError("ours");
      }),
    });
    expect(() => validate(broken, { a: 1 })).toThrow(TypeError);
  });
});
