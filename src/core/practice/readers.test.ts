import { describe, expect, it } from "vitest";
import { CHECKS, type CheckId, judgeCheck, type Verdict } from "../checks";
import type { Trait } from "../faults";
import { validate } from "../input";
import { seededNoise } from "../maths/random";
import { candidatesOf, type PossibleCheck } from "../suspects";
import { type Car, holeOf } from "./car";
import { caseOf, playableCauses } from "./case";
import { CODE_FAMILIES } from "./code";
import { READERS } from "./readers";
import { vehicleFor } from "./vehicles";

function verdictOf(car: Car, candidate: PossibleCheck, seed: number): Verdict {
  const read = READERS[candidate.check];
  if (!read) throw new Error(`Nobody reads a ${candidate.check}`);
  const record = read(
    { car, noise: seededNoise(seed) },
    { joint: candidate.place, entry: candidate.place, spots: candidate.tested },
  );
  // What a record was read by is what its steps and cautions were made for.
  expect(CHECKS[candidate.check].plan(car.context, record).refused).toBeUndefined();
  return judgeCheck(candidate.check, validate<object>(CHECKS[candidate.check].fields.schema, record), car.context);
}
/** A car of each family with this fault, or the first that can have it. */
function carWith(family: (typeof CODE_FAMILIES)[number], id: string | undefined): Car {
  for (let vehicle = 0; vehicle < 40; vehicle++) {
    const cause = playableCauses(vehicleFor(family, seededNoise(vehicle)), family).findIndex((c) => c.id === id);
    if (id === undefined || cause >= 0) {
      const { car } = caseOf({
        family,
        vehicle,
        faults: [{ cause: Math.max(0, cause), size: 5 / 7 }],
        symptoms: 0,
        misleads: false,
      });
      return id === undefined ? { ...car, faults: [] } : car;
    }
  }
  throw new Error(`No car of ${family} has ${id}`);
}
const EVERY = CODE_FAMILIES.flatMap((family) => {
  const causes = Array.from({ length: 40 }, (_, v) => playableCauses(vehicleFor(family, seededNoise(v)), family)).flat();
  return [...new Map(causes.map((c) => [c.id, c])).values()].map((cause) => ({ family, cause }));
});

describe("a practice car read by every check", () => {
  it.each(CODE_FAMILIES)("%s: a sound one fails none, and every record passes its door", (family) => {
    const car = carWith(family, undefined);
    for (const [i, candidate] of candidatesOf(car.context, [family]).entries()) {
      const { outcome, headline, observation } = verdictOf(car, candidate, 900 + i);
      // One look in thirty takes something sound for bad: this one's seed does not.
      if (candidate.check !== "look") expect([outcome, observation], `${candidate.name}: ${headline}`).not.toContain("fail");
    }
  });

  it("offers forty distinct faults and more, each family its own", () => {
    expect(new Set(EVERY.map((e) => e.cause.id)).size).toBeGreaterThanOrEqual(40);
    for (const family of CODE_FAMILIES) expect(EVERY.filter((e) => e.family === family).length).toBeGreaterThanOrEqual(5);
  });

  /** The check that is made for a kind of fault, and what it must say of it. */
  const MADE_FOR: Partial<Record<Trait, readonly [CheckId, RegExp]>> = {
    "manifold-leak": ["trims", /lean-fades/],
    "branch-leak": ["pinch", /pinch-recovers/],
    "booster-leak": ["trims", /lean-fades/],
    "duct-leak": ["smoke", /smoke-at/],
    "charge-leak": ["pressure-test", /escape-at/],
    "purge-leak": ["valve", /valve-leaks:purge-valve/],
    "pcv-passes": ["crankcase", /crankcase-suction/],
    "crankcase-blocked": ["crankcase", /crankcase-positive/],
    "inside-leak": ["egr", /egr-passes/],
    "exhaust-air": ["trims", /lean-fades/],
    restriction: ["airflow", /airflow-restricted/],
    "exhaust-restriction": ["back-pressure", /back-high/],
    "ports-coked": ["borescope", /ports-blocked/],
    "meter-low": ["trims", /lean-constant/],
    "meter-range": ["trims", /grows/],
    "fuel-pressure": ["trims", /lean-constant/],
    "fuel-supply": ["trims", /grows/],
    "sensor-bias": ["exhaust-gas", /gas-rich/],
    "engine-mechanical": ["vacuum", /vacuum-flick/],
    "idle-control": ["output", /output-dead/],
    "device-stuck": ["chain", /chain-broken/],
    "boost-lazy": ["boost", /boost-short/],
    "boost-over": ["boost", /boost-over/],
    "boost-sensor": ["boost", /boost-sensor/],
    "supply-weak": ["boost", /boost-short/],
    "egr-blocked": ["egr", /egr-no-answer/],
    "egr-cooler-leak": ["egr", /egr-cooler/],
    "vapour-leak": ["decay", /decay-leaks/],
    "vent-open": ["valve", /valve-leaks:vent-valve/],
    "vent-blocked": ["vent-path", /vent-blocked/],
    "purge-blocked": ["pulldown", /pulldown-none/],
    "tank-sensor": ["tank-sensor", /sensor-off/],
    "filter-loaded": ["filter", /filter-loaded/],
    "filter-broken": ["filter", /filter-none/],
    "filter-pipe": ["filter", /filter-pipe|filter-none/],
    "filter-sensor": ["filter", /filter-zero-off/],
    "air-leak": ["secondary-air", /air-escapes|air-blocked/],
    "air-pump-dead": ["secondary-air", /air-pump-dead/],
    "air-valve-stuck": ["secondary-air", /air-blocked/],
    "air-valve-back": ["secondary-air", /air-back/],
    "air-ports": ["borescope", /ports-blocked/],
    "circuit-dead": ["circuit", /circuit-dead/],
    "valve-stuck": ["valve", /valve-stuck/],
    "actuator-leak": ["hold", /hold-leaks/],
  };
  const SHOWN = Object.entries(MADE_FOR) as [Trait, readonly [CheckId, RegExp]][];
  it.each(SHOWN)("%s shows itself to the check that is made for it", (trait, [check, says]) => {
    const hits = EVERY.filter((e) => e.cause.trait === trait);
    expect(hits.length).toBeGreaterThan(0);
    const shown = hits.some(({ family, cause }, i) => {
      const car = carWith(family, cause.id);
      return candidatesOf(car.context, [family])
        .filter((c) => c.check === check)
        .some((c) => says.test(verdictOf(car, c, 40 + i).observation ?? ""));
    });
    expect(shown).toBe(true);
  });

  it("leaves no kind of fault that a case can hide without a check that shows it", () => {
    const open = EVERY.map((e) => e.cause.trait).filter((t) => !MADE_FOR[t] && !["crankcase-leak"].includes(t));
    expect([...new Set(open)]).toEqual([]);
  });

  it("is as bad as it is: a larger fault makes a larger hole", () => {
    for (const { cause } of EVERY) {
      const vehicle = vehicleFor("engine", seededNoise(3));
      const at = (size: number) => holeOf({ cause, size }, { displacement: vehicle.displacement });
      if (at(0) > 0) expect(at(1)).toBeGreaterThan(at(0));
    }
  });
});
