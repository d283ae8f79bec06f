import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  absolute,
  convert,
  findUnit,
  formatQuantity,
  fromSi,
  parseField,
  parseNumber,
  parseQuantity,
  plausibility,
  type Quantity,
  quantitySchema,
  toAbsolute,
  toSi,
  UNIT_IDS,
  UNITS,
  type UnitId,
} from ".";

const pressure = { dimension: "pressure", unit: "psi", kind: "gauge" } as const;
const read = (text: string, expected: Parameters<typeof parseQuantity>[1] = pressure) => {
  const parsed = parseQuantity(text, expected);
  return parsed.ok ? parsed.value : parsed.message;
};

describe("units", () => {
  it("converts by the published factors", () => {
    expect(toSi({ value: 1, unit: "psi" })).toBeCloseTo(6894.757, 3);
    expect(toSi({ value: 1, unit: "inHg" })).toBeCloseTo(3386.389, 3);
    expect(toSi({ value: 1, unit: "mmHg" })).toBeCloseTo(133.3224, 4);
    expect(toSi({ value: 1, unit: "inH2O" })).toBeCloseTo(249.0889, 4);
    expect(toSi({ value: 20, unit: "thou" })).toBeCloseTo(0.508e-3, 9);
    expect(toSi({ value: 1, unit: "SCFH" }) * 60e3).toBeCloseTo(28.316847 / 60, 6);
    expect(toSi({ value: 1, unit: "lb·ft" })).toBeCloseTo(1.355818, 6);
    expect(toSi({ value: 212, unit: "°F" })).toBeCloseTo(373.15, 9);
    expect(toSi({ value: 1, unit: "gal" })).toBeCloseTo(3.785412e-3, 8);
    expect(convert({ value: 13.8, unit: "inH2O", kind: "gauge" }, "psi").value).toBeCloseTo(0.5, 2);
  });

  it("returns to the same value through SI in every unit", () => {
    fc.assert(
      fc.property(fc.constantFrom(...UNIT_IDS), fc.double({ min: -1e4, max: 1e4, noNaN: true }), (unit, value) => {
        expect(fromSi(toSi({ value, unit }), unit).value).toBeCloseTo(value, 5);
      }),
    );
  });

  it("finds every unit by its own name and its aliases", () => {
    for (const id of UNIT_IDS) {
      expect(findUnit(id)).toBe(id);
      for (const alias of UNITS[id].aliases) expect(UNITS[findUnit(alias) ?? "Pa"].dimension).toBe(UNITS[id].dimension);
    }
    expect(findUnit("furlong")).toBeUndefined();
  });

  it("refuses to convert across dimensions", () => {
    expect(() => convert({ value: 1, unit: "mm" }, "psi")).toThrow(RangeError);
  });
});

describe("parsing what people type", () => {
  it.each([
    ["13 inH2O", { value: 13, unit: "inH2O", kind: "gauge" }],
    ["-18 inhg", { value: -18, unit: "inHg", kind: "gauge" }],
    ["18 inHg vac", { value: 18, unit: "inHg", kind: "vacuum" }],
    ["0,4 psi", { value: 0.4, unit: "psi", kind: "gauge" }],
    ["1.013 bar abs", { value: 1.013, unit: "bar", kind: "absolute" }],
    ["14.7psia", { value: 14.7, unit: "psi", kind: "absolute" }],
    ["1 barg", { value: 1, unit: "bar", kind: "gauge" }],
    ["0.5", { value: 0.5, unit: "psi", kind: "gauge" }],
    ["12 in. H2O", { value: 12, unit: "inH2O", kind: "gauge" }],
  ])("reads %s", (text, expected) => expect(read(text)).toEqual(expected));

  it("keeps the unit of other dimensions", () => {
    expect(read("20 thou", { dimension: "length" })).toEqual({ value: 20, unit: "thou" });
    expect(read("2 g", { dimension: "length" })).toMatch(/not known/);
    expect(read("24 nm", { dimension: "torque" })).toEqual({ value: 24, unit: "N·m" });
  });

  it("says what was wrong and what to do", () => {
    expect(read("")).toMatch(/Nothing typed/);
    expect(read("abc")).toMatch(/does not start with a number/);
    expect(read("12 furlongs")).toMatch(/Unit "furlongs" is not known here. Known: Pa/);
    expect(read("12 mm")).toMatch(/measures length/);
    expect(read("-3 bar abs")).toMatch(/cannot be negative/);
    expect(read("5", { dimension: "pressure" })).toMatch(/Add a unit/);
    expect(read("1,000 psi")).toMatch(/can mean 1000 or 1.000/);
  });

  it("reads both decimal signs", () => {
    expect(parseNumber("1.013,25")).toEqual({ ok: true, value: 1013.25 });
    expect(parseNumber("1,013.25")).toEqual({ ok: true, value: 1013.25 });
    expect(parseNumber("−5")).toEqual({ ok: true, value: -5 });
    expect(parseNumber("1e3")).toEqual({ ok: true, value: 1000 });
    expect(parseNumber("--1").ok).toBe(false);
  });

  it("never throws, whatever is typed", () => {
    fc.assert(fc.property(fc.string(), (text) => void parseQuantity(text, pressure)));
  });
});

describe("kinds of pressure", () => {
  it("counts gauge, vacuum and absolute from their own zero", () => {
    const ambient = absolute(100e3);
    expect(toAbsolute({ value: 10, unit: "kPa", kind: "gauge" }, ambient)).toBe(110e3);
    expect(toAbsolute({ value: 10, unit: "kPa", kind: "vacuum" }, ambient)).toBe(90e3);
    expect(toAbsolute({ value: 10, unit: "kPa", kind: "absolute" }, ambient)).toBe(10e3);
    expect(() => toAbsolute({ value: -2, unit: "bar", kind: "gauge" }, ambient)).toThrow(/absolute zero/);
  });

  it("is never shown without unit and kind", () => {
    expect(formatQuantity({ value: 0.42, unit: "psi", kind: "gauge" })).toBe("0.42 psi gauge");
    expect(formatQuantity({ value: 0.42, unit: "psi", kind: "gauge" }, 1, { decimal: "," })).toBe("0,4 psi gauge");
    expect(formatQuantity({ value: -0.001, unit: "kPa", kind: "vacuum" })).toBe("0.00 kPa vacuum");
  });
});

describe("a field's own way of typing", () => {
  const typed = (text: string, field: Parameters<typeof parseField>[1] = "displacement", unit: UnitId = "L") => {
    const parsed = parseField(text, field, unit);
    return parsed.ok ? `${parsed.value.value} ${parsed.value.unit}` : parsed.message;
  };
  it.each([
    ["1998", "1998 mL"],
    ["1998 cc", "1998 mL"],
    ["1998ml", "1998 mL"],
    ["1.998,5 cc", "1998.5 mL"],
    ["2.0", "2 L"],
    ["2,0 L", "2 L"],
    ["2", "2 L"],
    // A unit that was typed stands, and is asked about; what fits nothing is left as it is.
    ["1998 L", "1998 L"],
    ["50", "50 L"],
    ["19980", "19980 L"],
  ])("displacement: %s is %s", (text, means) => expect(typed(text)).toBe(means));

  it("leaves the unit alone where people do not leave it out", () => {
    expect(typed("990", "ambient", "kPa")).toBe("990 kPa");
    expect(typed("two litres")).toMatch(/does not start with a number/);
  });
});

describe("plausibility", () => {
  it("asks about a value that fits a neighbour unit", () => {
    const query = plausibility({ value: 330, unit: "hPa", kind: "absolute" }, "manifold");
    expect(query).toBeNull();
    const slip = plausibility({ value: 990, unit: "kPa", kind: "absolute" }, "ambient");
    expect(slip?.message).toMatch(/990 kPa absolute is out of range.*990 hPa absolute/);
    expect(slip?.suggestions.map((s: Quantity) => s.unit)).toContain("mbar");
  });

  it("guards every door with the same schema", () => {
    const door = quantitySchema("smokePressure");
    const says = (value: unknown) => {
      try {
        door.validateSync(value, { strict: true });
        return "ok";
      } catch (error) {
        return (error as Error).message;
      }
    };
    expect(says({ value: 10, unit: "inH2O", kind: "gauge" })).toBe("ok");
    expect(says({ value: 10, unit: "inH2O", kind: "absolute" })).toMatch(/is gauge, not absolute/);
    expect(says({ value: 10, unit: "furlong" })).toMatch(/not known/);
    expect(says({ value: 40, unit: "psi", kind: "gauge" })).toMatch(/out of range/);
    expect(says({ value: Number.NaN, unit: "psi" })).not.toBe("ok");
    expect(says({ value: 10, unit: "inH2O", extra: 1 })).toMatch(/unspecified keys: extra/);
  });
});
