import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL } from "../../core.fixture";
import { type BadInput, validate } from "../../input";
import { CHECKS } from "..";
import { exhaustGas as sound } from "../records.fixture";
import { type GasPoint, type GasRecord, gasSchema, judgeExhaustGas } from ".";

const context = contextOf(NATURAL);
const judge = (change: Partial<GasRecord>) => judgeExhaustGas({ ...sound, ...change }, context);
const why = (change: Partial<GasRecord>) => judge(change).reasons.join("; ");
const lean: GasPoint = { co: 0, co2: 14.2, o2: 2, hc: 20 };

describe("exhaust gas", () => {
  it.each<[string, Partial<GasRecord>, string, string | undefined]>([
    ["good at both speeds", {}, "pass", "gas-good"],
    ["excess air, nobody knows whence", { raised: lean }, "fail", "gas-lean"],
    ["excess air that the ECU does not see", { raised: { ...lean, ecuLambda: 1 } }, "fail", "gas-air-behind"],
    ["excess air that the ECU sees too", { raised: { ...lean, ecuLambda: 1.1 } }, "fail", "gas-lean-mixture"],
    ["excess air out of closed loop", { raised: { ...lean, ecuLambda: 1 }, loop: "open" }, "fail", "gas-lean"],
    ["rich", { raised: { co: 3, co2: 12.5, o2: 0.1, hc: 300 } }, "fail", "gas-rich"],
    ["unburnt", { idle: { co: 2, co2: 12, o2: 2.5, hc: 900 } }, "fail", "gas-misfire"],
    ["read at one speed only", { raised: undefined as never }, "unsure", undefined],
    ["read with a shallow probe", { probe: "shallow" }, "unsure", undefined],
    ["excess air by a shallow probe", { raised: lean, probe: "shallow" }, "unsure", undefined],
  ])("%s", (_, change, outcome, observation) => {
    expect([judge(change).outcome, judge(change).observation]).toEqual([outcome, observation]);
  });

  it("never says where air came in by the gases alone: a lean mixture and good exhaust thinned read alike", () => {
    const burnt = judge({ raised: { ...lean, hc: 0 } });
    const thinned = judge({ raised: { ...lean, co2: 14.1, o2: 2.1, hc: 0 } });
    for (const verdict of [burnt, thinned]) {
      expect(verdict.observation).toBe("gas-lean");
      expect(verdict.headline).toMatch(/cannot be told apart yet/);
      expect(verdict.reasons.join()).toMatch(/read the ECU's own λ/);
    }
  });

  it("lets the worse of two points decide", () => {
    expect(judge({ idle: lean }).headline).toMatch(/at idle/);
    expect(judge({ idle: lean, raised: { ...lean, o2: 4, co2: 12.6 } }).headline).toMatch(/at 2500/);
  });

  it("proves nothing cold, off zero, or on a diesel", () => {
    expect(judge({ warm: false }).outcome).toBe("void");
    expect(judge({ zeroed: false }).outcome).toBe("void");
    expect(judgeExhaustGas(sound, contextOf(DIESEL)).outcome).toBe("void");
    expect(CHECKS["exhaust-gas"].candidates(contextOf(DIESEL), ["engine"])).toEqual([]);
    expect(why({ warm: false })).toMatch(/three minutes/);
  });

  it("owes each speed by itself", () => {
    const asked = CHECKS["exhaust-gas"].asks(sound, judge({}), context).map((a) => a.atom);
    expect(asked).toEqual(["gas@tail/idle", "gas@tail/2500"]);
  });

  it.each<[object, RegExp]>([
    [{ idle: { ...lean, co2: 0 } }, /CO₂/],
    [{ idle: { ...lean, co2: 20, o2: 18 } }, /cannot be of one gas/],
    [{ idle: { ...lean, ecuLambda: 14.7 } }, /No sensor shows/],
    [{ idle: undefined, raised: undefined }, /idle, at about 2500/],
  ])("is refused at the door: %j", (change, message) => {
    try {
      validate(gasSchema, { ...sound, ...change });
      expect.unreachable();
    } catch (error) {
      expect((error as BadInput).message).toMatch(message);
    }
  });
});
