import { describe, expect, it } from "vitest";
import { CHECKS, judgeCheck } from "../../checks";
import { validate } from "../../input";
import { seededNoise } from "../../maths/random";
import { caseOf } from "../case";
import { readCheck } from ".";
import { shownOn } from "./instrument";

const gauge = (value: number, unit: "kPa" | "inHg" | "hPa" | "V", zero = 0) =>
  ({ name: "Gauge", division: { value, unit }, zero: { value: zero, unit } }) as const;
const { car } = caseOf({ family: "engine", vehicle: 3, faults: [{ cause: 0, size: 0.5 }], symptoms: 0, misleads: false });
const sound = { ...car, faults: [] };
const read = (check: "vacuum" | "crankcase", instrument: object) =>
  validate<object>(CHECKS[check].fields.schema, readCheck(check, { car: sound, noise: seededNoise(4) }, { instrument }));

describe("a gauge in the practice bay", () => {
  it("shows no more than its divisions, and a check that it is too coarse for is not sure", () => {
    const fine = read("crankcase", gauge(0.1, "hPa")) as { idle: { value: number } };
    expect(fine.idle.value).not.toBe(Math.round(fine.idle.value));
    const coarse = read("crankcase", gauge(1, "kPa")) as { idle: { value: number } };
    expect(Math.abs(coarse.idle.value % 10)).toBe(0);
    expect(judgeCheck("crankcase", coarse, car.context).outcome).toBe("unsure");
  });

  it("stands off by what it shows with nothing on it", () => {
    const [right, off] = [read("vacuum", gauge(0.1, "inHg")), read("vacuum", gauge(0.1, "inHg", 2))] as {
      vacuum: { value: number };
    }[];
    expect((off?.vacuum.value ?? 0) - (right?.vacuum.value ?? 0)).toBeCloseTo(2, 5);
    expect(judgeCheck("vacuum", off as object, car.context).outcome).toBe("unsure");
  });

  it("leaves alone what it does not measure, what was set, and what is absolute", () => {
    const record = {
      rpm: 740,
      ambient: { value: 1006.4, unit: "hPa", kind: "absolute" },
      ratings: { tool: { value: 2.034, unit: "bar", kind: "gauge" } },
      steps: [{ pressure: { value: 0.523, unit: "bar", kind: "gauge" } }],
      still: [
        [0, 20.04],
        [60, 0.01],
      ],
      unit: "inHg",
    };
    expect(shownOn(CHECKS["pressure-test"].fields.members, record, gauge(10, "kPa"))).toMatchObject({
      rpm: 740,
      ambient: record.ambient,
      ratings: record.ratings,
      steps: [{ pressure: { value: 0.5, unit: "bar" } }],
      still: [
        [0, expect.closeTo(20.67, 1)],
        [60, 0],
      ],
    });
    expect(shownOn(CHECKS["pressure-test"].fields.members, record, gauge(0.01, "V"))).toMatchObject(record);
  });

  it("comes up late to what it is on, and shows no more than its scale does", () => {
    const still = {
      unit: "inHg",
      still: [
        [0, 20],
        [1, 10],
        [2, 10],
        [60, 10],
      ],
    };
    const { still: late } = shownOn(CHECKS.hold.fields.members, still, gauge(0.01, "inHg")) as { still: [number, number][] };
    const [first, next, later, last] = late.map(([, v]) => v) as [number, number, number, number];
    expect(first).toBe(20);
    expect(next).toBeCloseTo(10 + 10 * Math.exp(-1 / 0.8), 1);
    expect(later).toBeLessThan(next);
    expect(last).toBe(10);
    const ends = { ...gauge(0.5, "inHg"), end: { value: 15, unit: "inHg" } } as const;
    expect(shownOn(CHECKS.vacuum.fields.members, { vacuum: { value: 20.2, unit: "inHg", kind: "vacuum" } }, ends)).toMatchObject({
      vacuum: { value: 15 },
    });
    const verdict = judgeCheck(
      "vacuum",
      read("vacuum", { ...gauge(0.5, "inHg"), end: { value: 17, unit: "inHg" } }),
      car.context,
    );
    expect(verdict).toMatchObject({ outcome: "unsure", headline: expect.stringContaining("stood at its end") });
  });
});
