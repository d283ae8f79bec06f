import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SYMPTOMS } from "../faults";
import { CASE_VERSION, type CaseSpec, CODE_FAMILIES, CODE_SYMPTOMS, caseCode, readCaseCode } from "./code";

const family = fc.constantFrom(...CODE_FAMILIES);
const size = fc.integer({ min: 0, max: 7 }).map((n) => n / 7);
const drawn = fc.record({
  family,
  level: fc.constantFrom(1 as const, 2 as const, 3 as const),
  seed: fc.integer({ min: 0, max: 2 ** 20 - 1 }),
});
const composed = fc.record({
  family,
  vehicle: fc.integer({ min: 0, max: 255 }),
  faults: fc.array(fc.record({ cause: fc.integer({ min: 0, max: 126 }), size }), { minLength: 1, maxLength: 2 }),
  symptoms: fc.integer({ min: 0, max: 2 ** 30 - 1 }),
  misleads: fc.boolean(),
});
const spec: fc.Arbitrary<CaseSpec> = fc.oneof(drawn, composed);

describe("a case's code", () => {
  it("says all of the case, whatever case it is typed in, with what is easily misread", () => {
    fc.assert(
      fc.property(spec, (one) => {
        const code = caseCode(one);
        expect(readCaseCode(code)).toEqual(one);
        expect(readCaseCode(` ${code.toLowerCase().replace(/-/g, " ").replace(/0/g, "o").replace(/1/g, "l")} `)).toEqual(one);
      }),
    );
  });

  it("is short", () => {
    expect(caseCode({ family: "engine", level: 1, seed: 12345 })).toMatch(/^[0-9A-Z]{4}-[0-9A-Z]{4}$/);
    fc.assert(
      fc.property(composed, (one) => {
        expect(caseCode(one).length).toBeLessThanOrEqual(20);
      }),
    );
  });

  it("with one sign wrong, two changed round, or one left out or too many is refused", () => {
    fc.assert(
      fc.property(spec, fc.nat(), fc.constantFrom(..."0123456789ABCDEFGHJKMNPQRSTVWXYZ"), (one, where, sign) => {
        const code = caseCode(one).replace(/-/g, "");
        const i = where % code.length;
        const wrong = code.slice(0, i) + sign + code.slice(i + 1);
        if (wrong !== code) expect(() => readCaseCode(wrong)).toThrow(/no case code/);
        expect(() => readCaseCode(code.slice(0, -1))).toThrow(/case code|version/);
        expect(() => readCaseCode(`${code}0`)).toThrow(/case code|version/);
      }),
    );
    let slipped = 0;
    for (let seed = 0; seed < 500; seed++) {
      const code = caseCode({ family: "evap", level: 2, seed: seed * 2003 }).replace(/-/g, "");
      for (let i = 1; i < code.length; i++) {
        const turned = code.slice(0, i - 1) + code[i] + code[i - 1] + code.slice(i + 1);
        if (turned === code) continue;
        try {
          readCaseCode(turned);
          slipped++;
        } catch {}
      }
    }
    expect(slipped).toBeLessThan(10);
  });

  it("of another version says so, and nothing typed is taken for a case", () => {
    const other = caseCode({ family: "boost", level: 3, seed: 9 }).replace(/-/g, "");
    // The first four bits are the version: the first sign moved by two is the next one.
    const digits = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
    const moved = digits[digits.indexOf(other[0] as string) + 2] + other.slice(1, -1);
    const withCheck = [...digits].map((d) => moved + d);
    expect(
      withCheck.some((code) => {
        try {
          readCaseCode(code);
          return false;
        } catch (error) {
          return (error as Error).message.includes(`version ${CASE_VERSION + 1}`);
        }
      }),
    ).toBe(true);
    for (const typed of ["", "-", "A", "hello", "P0171", "ÄÖÜ", "0000-0000", "ZZZZ-ZZZZ"])
      expect(() => readCaseCode(typed)).toThrow(/case code|version/);
  });

  it("gives each symptom a bit that it keeps, so that a code that was shared stays the same story", () => {
    expect(CODE_SYMPTOMS.toSorted()).toEqual(SYMPTOMS.map(([id]) => id).toSorted());
    expect([CODE_SYMPTOMS[0], CODE_SYMPTOMS[11], CODE_SYMPTOMS[12], CODE_SYMPTOMS[18]]).toEqual([
      "hiss-idle",
      "stalls",
      "nozzle-clicks",
      "pump-howl",
    ]);
  });
});
