import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { DEFAULT_HOUSE } from "../../shop/settings";
import { probe as record } from "../records.fixture";
import { houseAgent, judgeProbe, planProbe, readTaps } from ".";

const context = contextOf(NATURAL);

describe("enrichment probe", () => {
  it("names the spot that reacts, by how much and how late", () => {
    const verdict = judgeProbe(record(), context);
    expect(verdict).toMatchObject({ outcome: "fail", observation: "probe-at:vacuum-branch" });
    expect(verdict.tested).toEqual(["manifold-gasket", "vacuum-branch", "pcv-hose"]);
    expect(verdict.zones).toMatchObject([{ zone: "manifold", state: "leaking", joint: "vacuum-branch" }]);
    const tap = readTaps(record(), context)[1];
    expect(tap?.trim?.change).toBeLessThan(-6);
    expect(tap?.trim?.delay).toBeGreaterThan(1.5);
    expect(tap?.trim?.delay).toBeLessThan(4.5);
  });

  it("finds the reacting spot among the quiet ones in at least 19 of 20 noisy logs", () => {
    const right = Array.from({ length: 40 }, (_, seed) => judgeProbe(record({ seed: seed + 1 }), context).observation);
    expect(right.filter((o) => o === "probe-at:vacuum-branch").length).toBeGreaterThanOrEqual(38);
  });

  it("stays quiet on a log without any reaction, and says what that is worth", () => {
    const quiet = Array.from({ length: 40 }, (_, seed) => judgeProbe(record({ reaction: 0, seed: seed + 1 }), context));
    expect(quiet.filter((v) => v.observation === "probe-quiet").length).toBeGreaterThanOrEqual(38);
    expect(quiet.find((v) => v.outcome === "pass")?.reasons[0]).toMatch(/not proved tight/);
    expect(quiet.every((v) => v.zones.every((z) => z.state !== "tight"))).toBe(true);
  });

  it("is not fooled by a drift that was there before the tap", () => {
    const verdicts = Array.from({ length: 20 }, (_, seed) =>
      judgeProbe(record({ reaction: 0, drift: 25, seed: seed + 1 }), context),
    );
    expect(verdicts.filter((v) => v.outcome === "fail").length).toBeLessThanOrEqual(1);
  });

  it("ranks two spots, and says that neighbours feed each other", () => {
    const both = record();
    const verdict = judgeProbe({ ...both, taps: [...both.taps, { joint: "gauge-port", at: 32.2 + 12.1 }] }, context);
    expect(verdict.observation).toBe("probe-at:vacuum-branch");
  });

  it("takes a tap after another only when there was time between", () => {
    const readings = readTaps(
      {
        ...record(),
        taps: [
          { joint: "pcv-hose", at: 26 },
          { joint: "vacuum-branch", at: 32 },
        ],
      },
      context,
    );
    expect(readings.map((r) => r.outcome)).toEqual(["quiet", "void"]);
    expect(readings[1]?.why).toMatch(/only 6.0 s after the tap before it: wait 12 s/);
  });

  it("works by hand: before and after typed", () => {
    const typed = (trimAfter: number, rpmAfter = 745) => ({
      joint: "pcv-hose",
      typed: { trimBefore: 15, trimAfter, rpmBefore: 740, rpmAfter },
    });
    const by = (tap: ReturnType<typeof typed>) =>
      judgeProbe({ agent: "gas", source: { kind: "typed" }, closedLoop: true, taps: [tap] }, context).outcome;
    expect(by(typed(6))).toBe("fail");
    expect(by(typed(14))).toBe("pass");
    expect(by(typed(15, 800))).toBe("fail");
    // Gas cannot make the mixture leaner: a rise is no reaction to it, but it is one to water.
    expect(by(typed(24))).toBe("pass");
    const water = { agent: "water" as const, source: { kind: "typed" as const }, closedLoop: true, taps: [typed(24)] };
    expect(judgeProbe(water, context).outcome).toBe("fail");
  });

  it("follows the house's school, with that school's cautions", () => {
    expect(houseAgent(DEFAULT_HOUSE)).toBe("gas");
    expect(houseAgent({ ...DEFAULT_HOUSE, firstLocator: "spray" })).toBe("water");
    expect(planProbe(context, { agent: "gas" }).cautions).toContain("enrichment-gas");
    expect(planProbe(context, { agent: "soap" }).cautions).toContain("spray");
    expect(planProbe(contextOf({ ...NATURAL, fuel: "diesel" }), { agent: "gas" }).refused).toMatch(/no fuel trims/);
  });
});
