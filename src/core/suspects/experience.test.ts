import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../core.fixture";
import { causesOf } from "../faults";
import { engineOf } from "../vehicle";
import { experienceOf, type Proved, withExperience } from "./experience";
import { tableShares } from "./priors";
import { weighSuspects } from "./weigh";

const ENGINE = engineOf({ ...NATURAL, make: "Ondrell" });
const job = (change: Partial<Proved> = {}): Proved => ({
  engine: ENGINE,
  families: ["engine"],
  found: ["pcv-hose"],
  age: 10,
  ...change,
});
const jobs = (n: number, change: Partial<Proved> = {}) => Array.from({ length: n }, () => job(change));
const car = { engine: ENGINE, families: ["engine"], age: 10 };
const causes = causesOf(contextOf(NATURAL).layout, NATURAL, ["engine"]);

describe("what a shop has met before", () => {
  it("counts of one engine from five jobs on, else of cars about as old, else of the family, else not at all", () => {
    const other = { engine: "ostrin 1.6 petrol natural" };
    expect(experienceOf(jobs(5), car)).toEqual({ jobs: 5, found: { "pcv-hose": 5 }, of: "of this engine here" });
    expect(experienceOf(jobs(4), car)).toBeUndefined();
    expect(experienceOf(jobs(15, other), car)).toMatchObject({ jobs: 15, of: "of cars about as old here" });
    expect(experienceOf(jobs(15, { ...other, age: 25 }), car)).toBeUndefined();
    expect(experienceOf(jobs(30, { ...other, age: 25 }), car)).toMatchObject({ jobs: 30, of: "of this kind here" });
    expect(experienceOf(jobs(40, { ...other, families: ["evap"] }), car)).toBeUndefined();
    expect(experienceOf(jobs(40, { engine: "" }), { ...car, engine: "", families: [] })).toBeUndefined();
    expect(experienceOf(jobs(500), car)?.jobs).toBe(200);
  });

  it("moves a prior as counts over weights that are worth twenty jobs, and says so", () => {
    const learned = withExperience(causes, experienceOf([...jobs(4), ...jobs(15, { found: ["oil-cap"] })], car));
    const of = (id: string) => learned.find((c) => c.id === id);
    expect(of("pcv-hose")?.learned?.says).toBe("found 4 times in the last 19 jobs of this engine here");
    expect(of("oil-cap")?.learned?.says).toBe("found 15 times in the last 19 jobs of this engine here");
    const faults = causes.filter((c) => c.trait !== "healthy");
    const share = tableShares(faults)[faults.findIndex((c) => c.id === "pcv-hose")] as number;
    expect(of("pcv-hose")?.learned?.factor).toBeCloseTo(Math.min(4, (4 + 20 * share) / 39 / share), 9);
    const plain = weighSuspects(causes, []);
    const odds = (list: ReturnType<typeof weighSuspects>, id: string) => list.find((s) => s.cause.id === id)?.odds ?? 0;
    const weighed = weighSuspects(learned, []);
    expect(odds(weighed, "oil-cap")).toBeGreaterThan(odds(plain, "oil-cap"));
    const because = weighed.find((s) => s.cause.id === "oil-cap")?.because ?? [];
    expect(because[0]).toMatchObject({ entry: "experience", says: expect.stringMatching(/found 15 times/) });
  });

  it("never moves a cause by more than four times, nor what is not wrong, and leaves weights that are weights", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.array(fc.constantFrom(...causes.map((c) => c.id)), { maxLength: 200 }),
        (n, ids) => {
          const found: Record<string, number> = {};
          for (const id of ids.slice(0, n)) found[id] = (found[id] ?? 0) + 1;
          const learned = withExperience(causes, { jobs: n, found, of: "of this engine here" });
          for (const c of learned) {
            const factor = c.learned?.factor ?? 1;
            expect(factor).toBeGreaterThanOrEqual(0.25 - 1e-12);
            expect(factor).toBeLessThanOrEqual(4 + 1e-12);
            if (c.trait === "healthy") expect(factor).toBe(1);
          }
          const sum = weighSuspects(learned, []).reduce((s, one) => s + one.odds, 0);
          expect(sum).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it("changes nothing where there is none", () => expect(withExperience(causes, undefined)).toEqual(causes));

  it("tells engines apart by maker, size, fuel and breathing, and not by spelling", () => {
    const of = (change: object) => engineOf({ ...NATURAL, make: "Ondrell", ...change });
    expect(of({ make: " ONDRELL " })).toBe(ENGINE);
    expect(of({ model: "Another" })).toBe(ENGINE);
    for (const change of [
      { make: "Ostrin" },
      { fuel: "diesel" },
      { induction: "turbo" },
      { displacement: { value: 2.6, unit: "L" } },
    ])
      expect(of(change)).not.toBe(ENGINE);
    expect(of({ make: "" })).toBe("");
  });
});
