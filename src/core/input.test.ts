import fc from "fast-check";
import { describe, expect, it } from "vitest";
import * as yup from "yup";
import { BadInput, line, needed, parseJson, strictObject, validate } from "./input";

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
        throw new RangeError("ours");
      }),
    });
    expect(() => validate(broken, { a: 1 })).toThrow(RangeError);
  });

  it("refuses what a test of the whole stumbles over, because its parts are of another shape", () => {
    const named = strictObject({ list: yup.array().of(yup.string().required()).required() }).test("names", (all) =>
      (all as unknown as { list: string[] }).list.every((name) => name.length > 0),
    );
    expect(() => validate(named, { list: ["a"] })).not.toThrow();
    for (const list of [undefined, null, 1, { length: 2 }, [null]]) expect(() => validate(named, { list })).toThrow(BadInput);
  });
});

describe("a text read as JSON", () => {
  it("is read as it stands, brackets in texts and all (property)", () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 8 }), (value) => {
        expect(parseJson(JSON.stringify(value))).toEqual(JSON.parse(JSON.stringify(value)));
      }),
    );
    expect(parseJson('{"a\\\\":"[[[","b":"\\"{"}')).toEqual({ "a\\": "[[[", b: '"{' });
    const wide = JSON.stringify(Array.from({ length: 500 }, () => [[1]]));
    expect(parseJson(wide)).toHaveLength(500);
    expect(parseJson(JSON.stringify("[".repeat(500)))).toHaveLength(500);
  });

  it("is refused with a sentence where it is none, or lies deeper than anything", () => {
    expect(() => parseJson("{")).toThrow(/cut off/);
    expect(() => parseJson("", "empty")).toThrow("empty");
    expect(() => parseJson(`${"[".repeat(41)}${"]".repeat(41)}`)).toThrow(/nested more than 40 deep/);
    expect(() => parseJson("[".repeat(5e6))).toThrow(BadInput);
  });
});

describe("a line of text", () => {
  it.each(["Ida Wren", "Øst-Ünal 試験 🔧", "two\nlines\tand a tab", ""])("takes %j", (text) => {
    expect(validate(line("The note"), text)).toBe(text);
  });
  it.each(["\ud800", "half \udc00 of one", "a\u0000b", "\u001b[31m"])("refuses %j, which no store gives back", (text) => {
    expect(() => validate(line("The note"), text)).toThrow(/characters that no text has/);
  });
});
