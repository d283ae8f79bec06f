import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { ambientAtAltitude } from "../../gas/atmosphere";
import { vacuum as reading } from "../records.fixture";
import { expectedVacuum, judgeVacuum, type VacuumReading } from ".";

const context = contextOf(NATURAL);
const says = (change: Partial<VacuumReading>) => judgeVacuum({ ...reading, ...change }, context);
const INHG = 3386.389;

describe("intake vacuum", () => {
  it("expects 17 to 22 inHg at sea level, less the drop of ambient pressure with altitude", () => {
    const sea = expectedVacuum(context, { ambient: 101325, rpm: 750 });
    expect([sea.low / INHG, sea.high / INHG]).toEqual([expect.closeTo(17, 6), expect.closeTo(22, 6)]);
    const pass = ambientAtAltitude(1500);
    const high = expectedVacuum(context, { ambient: pass, rpm: 750 });
    expect((sea.low - high.low) / INHG).toBeCloseTo((101325 - pass) / INHG, 6);
  });

  it("reads the same needle as low at the coast and as right in the mountains", () => {
    const vacuum = { value: 15, unit: "inHg", kind: "vacuum" } as const;
    expect(says({ vacuum }).observation).toBe("vacuum-low");
    const ambient = { value: ambientAtAltitude(1000) / 100, unit: "hPa", kind: "absolute" } as const;
    expect(says({ vacuum, ambient })).toMatchObject({ outcome: "pass", observation: "vacuum-normal" });
  });

  it("passes without clearing the manifold", () => {
    const verdict = says({});
    expect(verdict.outcome).toBe("pass");
    expect(verdict.reasons[0]).toMatch(/does not clear the manifold/);
    expect(verdict.zones).toEqual([]);
  });

  it("sees through a high idle: the gauge reads fine, the leak hides", () => {
    const verdict = says({ rpm: 1250, vacuum: { value: 20.5, unit: "inHg", kind: "vacuum" } });
    expect(verdict).toMatchObject({ outcome: "unsure", observation: "vacuum-fine-idle-high" });
    expect(verdict.reasons[0]).toMatch(/high idle hides a leak/);
  });

  it.each<[Partial<VacuumReading>, string]>([
    [{ needle: "regular-flick" }, "vacuum-flick"],
    [{ needle: "fast-flutter" }, "vacuum-flutter"],
    [{ needle: "drifting" }, "vacuum-drifts"],
    [{ snap: "slow-return" }, "vacuum-slow-return"],
    [{ vacuum: { value: 9, unit: "inHg", kind: "vacuum" } }, "vacuum-low"],
  ])("%j means %s", (change, observation) => {
    expect(says(change)).toMatchObject({ outcome: "fail", observation });
  });

  it("goes by the maker's own idle and band where the vehicle gives them", () => {
    const limits = { idleSpeed: { value: 1100, source: "maker's figure, entered by Maren Oake" } };
    const own = contextOf({ ...NATURAL, limits });
    expect(judgeVacuum({ ...reading, rpm: 1150 }, own).outcome).toBe("pass");
    expect(judgeVacuum({ ...reading, rpm: 1150 }, context).outcome).toBe("unsure");
  });
});
