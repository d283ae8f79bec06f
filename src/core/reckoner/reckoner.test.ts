import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Draft, toRecord } from "../form";
import { decayTrace } from "../gas/network/tank";
import { BadInput } from "../input";
import { toSi } from "../units";
import { type Answer, TOOLS, toolOf } from ".";

/** Answer of a tool of what was typed; what is wrong, where it says nothing. */
function says(id: string, typed: Draft): Answer | string {
  const tool = toolOf(id);
  if (!tool) throw new Error(`No tool ${id}`);
  const filled = toRecord(tool.form, typed, undefined);
  if (!filled.record) return filled.errors.map((f) => f.message).join("; ");
  try {
    return tool.reckon(filled.record);
  } catch (error) {
    if (error instanceof RangeError || error instanceof BadInput) return error.message;
    throw error;
  }
}
const row = (answer: Answer | string, name: string | RegExp) => {
  if (typeof answer === "string") throw new Error(answer);
  const found = answer.rows.find((r) => (typeof name === "string" ? r.name.startsWith(name) : name.test(r.name)));
  if (!found) throw new Error(`No ${name} among ${answer.rows.map((r) => r.name).join(", ")}`);
  return found;
};
const value = (answer: Answer | string, name: string | RegExp) => row(answer, name).value.value;

describe("the reckoner", () => {
  it("has the published flows of reference holes, both ways", () => {
    // Air at 20 °C into 101.325 kPa, Cd 0.61, L/min at 20 °C and 101.325 kPa.
    for (const [hole, pressure, flow] of [
      ["0.010 in", "10 inH2O", 0.119],
      ["0.020 in", "13 inH2O", 0.543],
      ["0.040 in", "0.5 psi", 2.243],
      ["0.020 in", "1 psi", 0.792],
    ] as const) {
      expect(value(says("flow", { diameter: hole, pressure }), "Flow")).toBeCloseTo(flow, 3);
      const back = row(says("hole", { flow: `${flow} L/min`, pressure }), /^Hole/).value as { value: number; unit: "mm" };
      expect(Math.abs(toSi(back) / (Number.parseFloat(hole) * 0.0254) - 1)).toBeLessThan(0.005);
    }
  });

  it("goes back and forth between hole and flow (property)", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 3, noNaN: true }), fc.double({ min: 2, max: 40, noNaN: true }), (mm, inches) => {
        const pressure = `${inches.toFixed(4)} inH2O`;
        const flow = value(says("flow", { diameter: `${mm.toFixed(6)} mm`, pressure }), "Flow");
        expect(value(says("hole", { flow: `${flow} L/min`, pressure }), "Hole")).toBeCloseTo(mm, 3);
      }),
      { numRuns: 40 },
    );
  });

  it("fills and settles: τ of 30 L at 13 inH2O by 12 L/min, and what the fill heats", () => {
    const answer = says("fill", { volume: "30 L", pressure: "13 inH2O", flow: "12 L/min" });
    expect(value(answer, "Settling")).toBeCloseTo((30 * 13 * 249.0889) / 101325 / 0.2, 2);
    expect(value(answer, "Smoke has swept")).toBeCloseTo(150, 6);
    expect(value(answer, /heats/)).toBeGreaterThan(2);
    expect(says("fill", { volume: "30 L", pressure: "13 inH2O", flow: "0 L/min" })).toMatch(/fills nothing/);
  });

  it("sizes a fall that a network made, and says what it could have seen", () => {
    const tank = { volume: 30e-3, leak: 0.5e-3, wallTime: 25, ambient: 101_325, temperature: 293.15 };
    const fall = decayTrace(tank, { pressure: 2491, held: 120, duration: 150, every: 10 });
    const samples = fall.map(([t, p]) => `${t} ${(p / 249.0889).toFixed(3)}`).join("\n");
    const answer = says("decay", { samples, volume: "30 L" });
    const hole = row(answer, "Hole");
    expect(Math.abs((hole.value.value as number) - 0.5)).toBeLessThan(0.06);
    expect(hole.low).toBeLessThan(0.5);
    expect(hole.high).toBeGreaterThan(0.5);
    expect((answer as Answer).fall?.fitted.length).toBeGreaterThan(3);
    expect(says("decay", { samples: "0 10\n30 9.5", volume: "30 L" })).toMatch(/four readings/);
    expect(says("decay", { samples: "0 10\n30 nine", volume: "30 L" })).toMatch(/"30 nine": type seconds and pressure/);
  });

  it("reckons a loss on a hand pump: 5 % of 20 inHg in 60 s on 30 mL is 0.013 mm", () => {
    const answer = says("held", { volume: "30 mL", start: "20 inHg", end: "19 inHg", seconds: "60" });
    expect(value(answer, "Lost")).toBeCloseTo(5, 6);
    expect(value(answer, "Hole")).toBeCloseTo(0.013, 3);
    expect(says("held", { volume: "30 mL", start: "20 inHg", end: "21 inHg", seconds: "60" })).toMatch(/nothing leaks uphill/);
    expect(says("held", { volume: "30 mL", start: "29.9 inHg", end: "20 inHg", seconds: "60", ambient: "900 hPa" })).toMatch(
      /more vacuum than the air/,
    );
  });

  it("sees less with a coarser gauge, more with more time", () => {
    const of = (division: string, seconds: string) =>
      value(says("seen", { volume: "30 L", pressure: "10 inH2O", division, seconds }), "Smallest") as number;
    expect(of("0.1 inH2O", "120")).toBeLessThan(of("0.5 inH2O", "120"));
    expect(of("0.1 inH2O", "240")).toBeLessThan(of("0.1 inH2O", "120"));
    expect(says("seen", { volume: "30 L", pressure: "1 inH2O", division: "0.5 inH2O", seconds: "120" })).toMatch(/finer one/);
  });

  it("names what binds a boost test, and never goes above the shop's ceiling", () => {
    const bound = says("stage", { maxBoost: "1.1 bar", bladder: "0.8 bar" });
    expect(value(bound, /bar$/)).toBeCloseTo(0.8, 9);
    expect((bound as Answer).notes?.join()).toMatch(/bladder/);
    expect(value(says("stage", {}), /bar$/)).toBeCloseTo(1.2, 9);
  });

  it("has λ 1 of gases that burnt to nothing, and Brettschneider's 1.100", () => {
    expect(value(says("lambda", { co: "0", co2: "15", o2: "0", hc: "0" }), "λ")).toBeCloseTo(1, 9);
    const lean = row(says("lambda", { co: "0", co2: "14.23", o2: "2.025", hc: "0" }), "λ");
    expect(lean.value.value).toBeCloseTo(1.1, 3);
    expect(lean.low).toBeLessThan(1.1);
    expect(says("lambda", { co: "0", co2: "0", o2: "2", hc: "0" })).toMatch(/Without carbon dioxide nothing burned/);
  });

  it("says how far to drive: 19, 5.1 and 4.1 times the mean; 19, 5, 3 runs; cold starts by beta-binomial", () => {
    const random = (list: string) => value(says("drive", { kind: "random", recorded: list }), /needed|Enough/) as number;
    expect(random("10")).toBeCloseTo(190, 0);
    expect(random("10\n10\n10")).toBeCloseTo(51.4, 0);
    expect(random("10\n10\n10\n10\n10")).toBeCloseTo(41, 0);
    const runs = (list: string) => value(says("drive", { kind: "sets-in", recorded: list }), /needed|Enough/);
    expect([runs("10"), runs("10\n12"), runs("10\n12\n9")]).toEqual([19, 5, 3]);
    expect(says("drive", { kind: "sets-in", recorded: "" })).toMatch(/at least one distance/);
    expect(says("drive", { kind: "cold-starts" })).toMatch(/how many of how many/);
    expect(value(says("drive", { kind: "cold-starts", came: "3", of: "8" }), /needed|Enough/)).toBeGreaterThan(3);
  });

  it("puts units side by side and keeps the kind", () => {
    const answer = says("units", { reading: "13 inH2O" }) as Answer;
    expect(value(answer, "psi")).toBeCloseTo(0.4697, 4);
    expect(value(answer, "mbar")).toBeCloseTo(32.38, 2);
    expect(value(says("units", { reading: "20 °C" }), "°F")).toBeCloseTo(68, 6);
    expect(value(says("units", { reading: "0.020 in" }), "mm")).toBeCloseTo(0.508, 6);
    expect(row(says("units", { reading: "95 kPa abs" }), "bar").value).toMatchObject({ kind: "absolute" });
    expect(says("units", { reading: "13" })).toMatch(/names no unit/);
    expect(says("units", { reading: "13 furlong" })).toMatch(/names no unit/);
  });

  it("asks for what is missing and never throws, whatever is typed (property)", () => {
    for (const tool of TOOLS) {
      const names = Object.keys(tool.form.fields);
      fc.assert(
        fc.property(
          fc.dictionary(
            fc.constantFrom(...names),
            fc.constantFrom("", "0", "-3", "1e9", "x", "13 inH2O", "20", "0.5 mm", "900 hPa"),
          ),
          (typed) => {
            expect(() => says(tool.id, typed)).not.toThrow();
          },
        ),
        { numRuns: 60 },
      );
      expect(tool.formula.length).toBeGreaterThan(5);
      expect(tool.symbols.length).toBeGreaterThan(0);
      expect(tool.valid).not.toBe("");
    }
  });
});
