import { describe, expect, it } from "vitest";
import { seededNoise } from "../maths/random";
import { type Car, holeOf } from "./car";
import { caseOf, playableCauses } from "./case";
import { monitorCodes } from "./ecu-codes";
import { PracticeEngine } from "./engine";
import { airArrives, evapMonitor } from "./monitors";
import { vehicleFor } from "./vehicles";

/** Cars of a family with this fault at a size, by how their monitor works. */
function carsWith(family: "evap" | "secondary-air", id: string, size: number): Car[] {
  return Array.from({ length: 30 }, (_, vehicle) => vehicle).flatMap((vehicle) => {
    const cause = playableCauses(vehicleFor(family, seededNoise(vehicle)), family).findIndex((c) => c.id === id);
    return cause < 0 ? [] : [caseOf({ family, vehicle, faults: [{ cause, size }], symptoms: 0, misleads: false }).car];
  });
}
const byPump = (car: Car) => car.context.vehicle.evap?.monitor === "canister-pump";

describe("the car's own EVAP monitor", () => {
  it("finds what its system loses, by engine vacuum and by a pump, from the gas itself", () => {
    for (const size of [0.1, 0.5, 1])
      for (const pump of [false, true]) {
        const cars = carsWith("evap", "tank-line", size).filter((c) => byPump(c) === pump);
        expect(cars.length).toBeGreaterThan(2);
        for (const car of cars) {
          const truth = holeOf(car.faults[0] as Car["faults"][number], car.context.vehicle);
          expect(Math.abs(evapMonitor(car) / truth - 1), `${pump ? "pump" : "vacuum"} ${truth * 1e3} mm`).toBeLessThan(0.25);
        }
      }
  });

  it("finds a tight one tight, and sets no code on it", () => {
    for (const whole of carsWith("evap", "tank-line", 0.5)) {
      const car = { ...whole, faults: [] };
      expect(evapMonitor(car)).toBeLessThan(0.2e-3);
      expect(monitorCodes(car)).toEqual([]);
    }
  });

  it("names a gross leak where no vacuum comes at all", () => {
    const [car] = carsWith("evap", "filler-cap", 1).filter((c) => !byPump(c)) as [Car];
    const [fault] = car.faults as [Car["faults"][number]];
    // As wide as all of these together nothing is pulled.
    const off = { ...car, faults: Array.from({ length: 30 }, () => fault) };
    expect(monitorCodes(off)).toContain("P0455");
  });
});

describe("the secondary-air monitor", () => {
  it("finds air that gets lost on its way, and none where pump, valve or vacuum is dead", () => {
    for (const [id, size] of [
      ["air-hose-joint", 0.3],
      ["air-pump", 0.5],
    ] as const)
      for (const car of carsWith("secondary-air", id, size)) {
        expect(airArrives(car)).toBeLessThan(0.8);
        expect(monitorCodes(car)).toContain("P0491");
        expect(airArrives({ ...car, faults: [] })).toBe(1);
        expect(monitorCodes({ ...car, faults: [] })).not.toContain("P0491");
      }
  });
});

describe("an ECU that gives boost up", () => {
  const truth = { displacement: 1.6e-3, ambient: 100e3, temperature: 293, boost: 90e3, hole: 0 };
  const pulled = (more: object, seconds = 12) => {
    const engine = new PracticeEngine({ ...truth, ...more }, 3);
    engine.driving = { road: { rpm: 3000 } };
    engine.advance(seconds);
    return engine;
  };

  it("takes it away after two seconds short or over, until the key was off", () => {
    expect(pulled({}).limp).toBe(false);
    for (const boostShare of [0.7, 1.35]) {
      const engine = pulled({ boostShare });
      expect(engine.limp).toBe(true);
      expect(engine.state.charge).toBeLessThan(108e3);
      // Off the pedal it stays away; the key brings it back.
      engine.driving = {};
      engine.advance(engine.time + 20);
      expect(engine.limp).toBe(true);
      engine.keyOff();
      expect(engine.limp).toBe(false);
    }
  });

  it("leaves it where it is short for a moment, or by less than matters", () => {
    expect(pulled({ boostShare: 0.92 }).limp).toBe(false);
    expect(pulled({ boostShare: 0.7 }, 1.5).limp).toBe(false);
  });
});

describe("an engine started cold", () => {
  it("warms up, idles faster until it has, and closes its loop on the way", () => {
    const engine = new PracticeEngine({ displacement: 1.6e-3, ambient: 100e3, temperature: 288, hole: 2e-3, coolant: 288 }, 4);
    engine.advance(12);
    const cold = engine.read();
    expect(cold.loop).toBe(0);
    expect(cold.coolant as number).toBeLessThan(300);
    expect(cold.rpm as number).toBeGreaterThan(950);
    expect(Math.abs((cold["short-trim-1"] as number) + (cold["long-trim-1"] as number))).toBeLessThan(3);
    engine.advance(600);
    const warm = engine.read();
    expect(warm.loop).toBe(1);
    expect(warm.coolant as number).toBeGreaterThan(355);
    expect(Math.abs((warm.rpm as number) - 740)).toBeLessThan(40);
    expect((warm["short-trim-1"] as number) + (warm["long-trim-1"] as number)).toBeGreaterThan(6);
  });
});
