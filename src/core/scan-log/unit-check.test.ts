import { describe, expect, it } from "vitest";
import { readHead } from "./read";
import type { LoggedEngine } from "./unit-check";

/** Gas constant of air, J/(kg K): flows here come from the ideal gas law, not from what the reader holds them against. */
const AIR = 287;
interface Point {
  readonly rpm: number;
  /** kPa */
  readonly map: number;
  readonly ve: number;
}
/** Air flow of a four-stroke, g/s. @param litres displacement. */
const flow = ({ rpm, map, ve }: Point, litres: number, kelvin = 300) =>
  (1000 * ve * map * 1000 * litres * 1e-3 * rpm) / (120 * AIR * kelvin);

const IDLE: Point = { rpm: 760, map: 33, ve: 0.72 };
const CRUISE: Point = { rpm: 2100, map: 45, ve: 0.8 };
const CLIMB: Point = { rpm: 3000, map: 82, ve: 0.88 };
const FULL: Point = { rpm: 4800, map: 97, ve: 0.95 };
const BOOST: Point = { rpm: 3600, map: 205, ve: 0.92 };
const PER_HOUR = 3.6;

function unitOf(points: readonly Point[], litres: number, scale: number, engine: LoggedEngine, withMap = false) {
  const rows = points.flatMap((p) => Array.from({ length: 8 }, () => p));
  const lines = rows.map((p, i) => {
    const values = [i, p.rpm, (scale * flow(p, litres)).toFixed(2), ...(withMap ? [p.map] : [])];
    return values.join(",");
  });
  const csv = [`Time (s),Engine speed (rpm),Air flow${withMap ? ",Manifold pressure (kPa)" : ""}`, ...lines].join("\n");
  const match = readHead(new TextEncoder().encode(csv), undefined, engine).matches.find((m) => m.channel === "maf");
  return match?.unitFrom === "asked" ? "asked" : match?.unit;
}
const petrol = (litres: number): LoggedEngine => ({ displacement: litres * 1e-3, induction: "natural", fuel: "petrol" });
const turbo = (litres: number): LoggedEngine => ({ displacement: litres * 1e-3, induction: "turbo", fuel: "petrol" });
const diesel = (litres: number): LoggedEngine => ({ displacement: litres * 1e-3, induction: "turbo", fuel: "diesel" });

describe("a unit that the file does not name", () => {
  const messages = (header: string, value: number) =>
    readHead(
      new TextEncoder().encode(
        [`Time (s),Engine speed (rpm),${header}`, ...Array.from({ length: 20 }, (_, i) => `${i},800,${value}`)].join("\n"),
      ),
    ).problems.map((p) => p.message);
  it("is never said to fit none where nothing is known to hold it against", () => {
    expect(messages("Charge air temperature", 34)).toEqual([expect.stringMatching(/°C or °F would fit/)]);
    expect(messages("Charge air temperature", 110)).toEqual([expect.stringMatching(/°C or °F would fit/)]);
    expect(messages("Exhaust gas temperature", 400).join()).not.toMatch(/fit none/);
    expect(messages("Coolant temperature", 900).join()).toMatch(/its numbers fit none/);
  });
});

describe("g/s and kg/h are told apart by displacement and speed", () => {
  it.each<[string, readonly Point[], number, LoggedEngine]>([
    ["idle and cruise", [IDLE, CRUISE], 2.0, petrol(2.0)],
    ["idle to full load", [IDLE, CRUISE, CLIMB, FULL], 1.4, petrol(1.4)],
    ["cruise to full load, with no idle in it", [CRUISE, CLIMB, FULL], 2.0, petrol(2.0)],
    ["a big engine's idle and pull", [IDLE, CLIMB, FULL], 3.2, petrol(3.2)],
    ["a small turbo's pull", [IDLE, CLIMB, BOOST], 1.2, turbo(1.2)],
    ["a diesel, unthrottled", [{ rpm: 820, map: 100, ve: 0.62 }, { rpm: 2000, map: 140, ve: 0.85 }, BOOST], 2.0, diesel(2.0)],
  ])("of %s", (_, points, litres, engine) => {
    expect(unitOf(points, litres, 1, engine)).toBe("g/s");
    expect(unitOf(points, litres, PER_HOUR, engine)).toBe("kg/h");
  });

  it("and where both fit, are asked; with the manifold's pressure beside them they are told", () => {
    // Steady and well loaded at one speed: a quarter of it could be a coast.
    const laden = { rpm: 2000, map: 82, ve: 0.88 };
    expect(unitOf([laden], 2.0, 1, petrol(2.0))).toBe("asked");
    expect(unitOf([laden], 2.0, 1, petrol(2.0), true)).toBe("g/s");
    expect(unitOf([CRUISE], 2.0, PER_HOUR, petrol(2.0), true)).toBe("kg/h");
  });

  it("and held at speed with no load it is told all the same", () => {
    const raised = { rpm: 2500, map: 28, ve: 0.75 };
    expect(unitOf([IDLE, raised, CLIMB], 1.6, 1, petrol(1.6))).toBe("g/s");
    expect(unitOf([IDLE, raised, CLIMB], 1.6, PER_HOUR, petrol(1.6))).toBe("kg/h");
    expect(unitOf([IDLE, raised], 1.6, 1, petrol(1.6))).toBe("g/s");
  });

  it("and a leak that takes a third of the metered air at idle changes nothing of it", () => {
    const leaking = { ...IDLE, ve: IDLE.ve * 0.67 };
    expect(unitOf([leaking, CRUISE, CLIMB], 2.0, 1, petrol(2.0))).toBe("g/s");
    expect(unitOf([leaking, CRUISE, CLIMB], 2.0, PER_HOUR, petrol(2.0))).toBe("kg/h");
  });

  it("and of an engine that nobody described nothing is taken that a second unit explains", () => {
    for (const scale of [1, PER_HOUR])
      expect(["asked", scale === 1 ? "g/s" : "kg/h"]).toContain(unitOf([CRUISE, FULL], 2.0, scale, {}));
  });
});
