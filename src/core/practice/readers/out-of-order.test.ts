import { describe, expect, it } from "vitest";
import { CHECKS, type CheckId, judgeCheck, type Verdict } from "../../checks";
import type { SmokeRun } from "../../checks/smoke";
import { type BayInstrument, FAULTS_OF, type InstrumentFault } from "../../devices/instrument-fault";
import type { Light } from "../../devices/light";
import { BadInput, validate } from "../../input";
import { seededNoise } from "../../maths/random";
import type { Car } from "../car";
import { caseOf, playableCauses } from "../case";
import { vehicleFor } from "../vehicles";
import { readCheck } from ".";

/** A car with this fault, or none; the first that can have it. */
function carWith(family: "engine" | "evap", id: string | undefined, size = 5 / 7): Car {
  for (let vehicle = 0; vehicle < 256; vehicle++) {
    const at = playableCauses(vehicleFor(family, seededNoise(vehicle)), family).findIndex((c) => c.id === id);
    if (id !== undefined && at < 0) continue;
    const { car } = caseOf({ family, vehicle, faults: [{ cause: Math.max(0, at), size }], symptoms: 0, misleads: false });
    return id === undefined ? { ...car, faults: [] } : car;
  }
  throw new Error(`No car of ${family} has ${id}`);
}

/** Outcome of a check read on instruments that are out of order; "refused" where its record is none. */
function outcome(
  car: Car,
  check: CheckId,
  setup: object,
  out: Partial<Record<BayInstrument, InstrumentFault>>,
  seed = 3,
): Verdict["outcome"] | "refused" {
  const record = readCheck(check, { car, noise: seededNoise(seed), instruments: out }, setup as Record<string, unknown>);
  try {
    return judgeCheck(check, validate<object>(CHECKS[check].fields.schema, record), car.context).outcome;
  } catch (error) {
    if (error instanceof BadInput) return "refused";
    throw error;
  }
}
const DUCT = { entry: "air-meter", blocked: ["tailpipe"], heldOpen: ["throttle"] };

describe("an instrument that is out of order", () => {
  const gasket = carWith("engine", "manifold-gasket");
  const tight = carWith("engine", undefined);
  const capOff = carWith("evap", undefined);

  it("never makes a leak tight, nor what is tight a leak", () => {
    const holdAt = { joint: "booster-diaphragm" };
    for (const [which, faults] of Object.entries(FAULTS_OF) as [BayInstrument, readonly InstrumentFault[]][])
      for (const fault of faults) {
        const out = { [which]: fault };
        const says = (car: Car, check: CheckId, setup: object) => `${fault} ${check} ${outcome(car, check, setup, out)}`;
        for (const setup of [DUCT, { ...DUCT, blocked: ["tailpipe", "throttle"], heldOpen: [] }])
          expect(says(gasket, "smoke", setup)).not.toMatch(/smoke pass/);
        if (which === "smoke-machine") {
          expect(says(tight, "smoke", DUCT)).toMatch(/void/);
          expect(says(capOff, "evap-smoke", {})).toMatch(/void/);
        }
        if (which === "gauge")
          for (const [car, check, setup] of [
            [tight, "hold", holdAt],
            [tight, "vacuum", {}],
            [capOff, "cap", { joint: "filler-cap" }],
            [capOff, "decay", {}],
          ] as const)
            expect(says(car, check, setup)).not.toMatch(/fail/);
      }
  });

  it("is sound in the case that does not mislead", () => {
    expect(outcome(tight, "hold", { joint: "booster-diaphragm" }, {})).toBe("pass");
    expect(outcome(capOff, "decay", {}, {})).toBe("pass");
    expect(caseOf({ family: "engine", level: 1, seed: 77 })).toMatchObject({ instruments: {}, light: { door: "shut" } });
    const out = Array.from({ length: 60 }, (_, seed) => caseOf({ family: "engine", level: 2, seed }).instruments);
    const faulty = out.filter((o) => Object.keys(o).length > 0);
    expect(faulty.length).toBeGreaterThan(10);
    expect(faulty.length).toBeLessThan(45);
  });
});

describe("smoke in the practice bay", () => {
  const seenBy = (light: Light, size: number, lookedAt?: readonly string[]) => {
    const car = carWith("engine", "booster-hose", size);
    const record = readCheck("smoke", { car, noise: seededNoise(3), light }, { ...DUCT, lookedAt }) as SmokeRun;
    return { record, seen: record.seen.length > 0, verdict: judgeCheck("smoke", record, car.context) };
  };
  const dark: Light = { lamp: "lamp", door: "shut" };

  it("is seen only where one looks", () => {
    const { record } = seenBy(dark, 1);
    const joint = record.seen[0]?.joint as string;
    expect(joint).toBeTruthy();
    expect(seenBy(dark, 1, [joint]).seen).toBe(true);
    const elsewhere = seenBy(dark, 1, ["oil-cap"]);
    expect(elsewhere.seen).toBe(false);
    expect(elsewhere.record.noSmokeOutside).toBe(false);
    expect(elsewhere.verdict.outcome).not.toBe("pass");
  });

  it("takes a lamp and still air: without them a run in which nothing is seen proves nothing", () => {
    const bright = seenBy({ lamp: "none", door: "open" }, 0);
    expect(bright.seen).toBe(false);
    expect(bright.record.draughtOrGlare).toBe(true);
    expect(bright.verdict.outcome).toBe("void");
  });
});
