import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, smokeRun, TURBO, TWO_BANKS } from "../core.fixture";
import { causesOf } from "../faults";
import { type Evidence, likelihood, weighSuspects } from "../suspects";
import { layoutOf } from "../vehicle";
import { CHECK_IDS, CHECKS, verdictWord } from ".";
import { judgeSmoke, type SmokeRun } from "./smoke";
import { judgeTrims, readSurvey, type TrimSurvey } from "./trims";

const bounded = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const surveys = fc
  .array(fc.tuple(bounded(600, 5000), bounded(1.5, 90), bounded(25, 100), bounded(-30, 30), bounded(-30, 30)), {
    minLength: 1,
    maxLength: 6,
  })
  .map(
    (rows): TrimSurvey => ({
      source: { kind: "typed" },
      ambient: { value: 1006, unit: "hPa", kind: "absolute" },
      intakeTemperature: { value: 17, unit: "°C" },
      points: rows.map(([rpm, maf, map, short, long]) => ({
        rpm,
        maf: { value: maf, unit: "g/s" },
        map: { value: map, unit: "kPa", kind: "absolute" },
        banks: [{ short, long }],
      })),
    }),
  );

describe("any trim survey (properties)", () => {
  it("gets odds that add up to one, a known observation and ordered intervals", () => {
    fc.assert(
      fc.property(surveys, (survey) => {
        const [bank] = readSurvey(survey, NATURAL, "product", { good: 0.05, act: 0.1 }).banks;
        const odds = bank?.shapes.map((s) => s.odds) ?? [];
        expect(odds.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 6);
        expect(odds).toEqual(odds.toSorted((a, b) => b - a));
        if (bank?.hole) {
          expect(bank.hole.low).toBeLessThanOrEqual(bank.hole.diameter);
          expect(bank.hole.high).toBeGreaterThanOrEqual(bank.hole.diameter);
        }
        const [cause] = causesOf(layoutOf(NATURAL), NATURAL);
        if (cause && bank) expect(likelihood(bank.observation, cause, undefined)).toBeDefined();
      }),
      { numRuns: 40 },
    );
  });

  it("reads the same whatever order its points are in", () => {
    fc.assert(
      fc.property(surveys, (survey) => {
        const turned = { ...survey, points: survey.points.toReversed() };
        const [a, b] = [survey, turned].map((s) => judgeTrims(s, contextOf(NATURAL)));
        expect(b).toMatchObject({ outcome: a?.outcome, headline: a?.headline });
      }),
      { numRuns: 25 },
    );
  });
});

describe("any spoilt smoke run (properties)", () => {
  const traps: Partial<SmokeRun>[] = [
    { heaterOnAt: -290 },
    { cameUndone: ["tailpipe"] },
    { touchedBefore: ["oil-cap"] },
    { adapterLeaks: true },
    { proof: { pressure: { value: 9, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true } },
    { proof: { pressure: { value: 12.8, unit: "inH2O", kind: "gauge" }, ballAtBottom: false, smokeSeen: true } },
  ];
  it("weighs nothing but smoke that was seen, whatever it showed", () => {
    fc.assert(
      fc.property(fc.constantFrom(...traps), bounded(0.5, 11.5), fc.boolean(), (trap, flow, saw) => {
        const seen = saw ? [{ joint: "pcv-hose", at: 30 }] : [];
        const verdict = judgeSmoke(smokeRun(flow, { ...trap, seen, noSmokeOutside: !saw }), contextOf(NATURAL));
        expect(verdict.measures).toEqual([]);
        expect(verdict.reasons.length).toBeGreaterThan(0);
        if (saw && trap.heaterOnAt === undefined) {
          // What was seen while the machine pushed stays evidence; nothing else of the run does.
          expect(verdict).toMatchObject({ outcome: "fail", observation: "smoke-at:pcv-hose", tested: ["pcv-hose"] });
          expect(verdict.zones.map((z) => z.state)).toEqual(["leaking"]);
        } else {
          expect(verdict).toMatchObject({ outcome: "void", zones: [] });
          expect(verdict.observation).toBeUndefined();
        }
      }),
      { numRuns: 40 },
    );
  });
  it("lets what was seen after the heater had stopped be nothing", () => {
    const late = smokeRun(4, { heaterOnAt: -290, seen: [{ joint: "pcv-hose", at: 60 }], noSmokeOutside: false });
    expect(judgeSmoke(late, contextOf(NATURAL)).outcome).toBe("void");
  });
});

describe("every check", () => {
  it("takes nothing off where it says that it only reads", () => {
    const context = contextOf(TURBO);
    for (const id of CHECK_IDS.filter((id) => CHECKS[id].onlyReads))
      expect(CHECKS[id].plan(context, undefined as never).displaces, id).toEqual([]);
  });

  it("has one shape: a plan with steps, words for its verdicts, a door", () => {
    for (const id of CHECK_IDS) {
      const kind = CHECKS[id];
      expect(kind.id).toBe(id);
      expect(kind.name.length).toBeGreaterThan(3);
      expect(() => kind.fields.schema.validateSync({ nonsense: true }, { strict: true })).toThrow();
      expect([verdictWord(kind, { outcome: "unsure" }), verdictWord(kind, { outcome: "void" })]).toEqual([
        "Not sure yet",
        "Void — proves nothing",
      ]);
    }
    for (const facts of [NATURAL, TURBO, TWO_BANKS]) {
      expect(CHECKS.look.plan(contextOf(facts), undefined).steps.length).toBeGreaterThan(1);
      expect(CHECKS.trims.plan(contextOf(facts), undefined).cautions).toContain("running-engine");
    }
  });
});

describe("any evidence (properties)", () => {
  const observations = [
    "code:lean",
    "symptom:hiss-idle",
    "lean-fades-with-flow",
    "trims-normal",
    "look-clean",
    "smoke-inside-path",
    "smoke-at:oil-cap",
  ];
  it("leaves odds that are a distribution, and speaks louder when it is repeated by another check", () => {
    fc.assert(
      fc.property(fc.subarray(observations), (some) => {
        const evidence = some.map((observation): Evidence => ({ observation, entry: observation }));
        const suspects = weighSuspects(causesOf(layoutOf(TURBO), TURBO), evidence);
        expect(suspects.reduce((sum, s) => sum + s.odds, 0)).toBeCloseTo(1, 9);
        for (const s of suspects) expect(s.odds >= 0 && s.odds <= 1).toBe(true);
      }),
    );
  });
});
