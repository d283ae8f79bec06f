import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL } from "../../core.fixture";
import { type BadInput, validate } from "../../input";
import { readScanLog } from "../../scan-log";
import { CHECKS } from "..";
import { exhaustGas as sound } from "../records.fixture";
import { type GasPoint, type GasRecord, gasFields, gasTrace, judgeExhaustGas } from ".";

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
    const asked = CHECKS["exhaust-gas"].claims(sound, judge({}), context).map((a) => a.atom);
    expect(asked).toEqual(["gas@tail/idle", "gas@tail/2500"]);
  });

  it.each<[object, RegExp]>([
    [{ idle: { ...lean, co2: 0 } }, /CO₂/],
    [{ idle: { ...lean, co2: 20, o2: 18 } }, /cannot be of one gas/],
    [{ idle: { ...lean, ecuLambda: 14.7 } }, /No sensor shows/],
    [{ idle: undefined, raised: undefined }, /idle, at about 2500/],
  ])("is refused at the door: %j", (change, message) => {
    try {
      validate(gasFields.schema, { ...sound, ...change });
      expect.unreachable();
    } catch (error) {
      expect((error as BadInput).message).toMatch(message);
    }
  });
});

describe("what is taken from an analyser's file", () => {
  type Stage = readonly [seconds: number, rpm: number, co: number, co2: number, o2: number];
  const trace = (header: string, ...stages: readonly Stage[]) => {
    let t = 0;
    const speed = header.includes("RPM");
    const rows = stages.flatMap(([seconds, rpm, co, co2, o2]) =>
      Array.from({ length: seconds }, () => [t++, ...(speed ? [rpm] : []), co, co2, o2, 30, 1.07].join(";")),
    );
    return gasTrace(readScanLog(new TextEncoder().encode([header, ...rows].join("\n"))));
  };
  const FILE = "Time (s);RPM;CO (%);CO2 (%);O2 (%);HC (ppm);Lambda";
  it("is a mean at each speed, from when its gas has arrived", () => {
    const found = trace(
      FILE,
      [10, 800, 0, 0.1, 20.8],
      [10, 800, 3, 10, 8],
      [20, 800, 0.2, 14.8, 0.4],
      [10, 2500, 0.2, 14.8, 0.4],
      [20, 2500, 0.1, 15, 0.2],
    );
    expect(found?.raised).toEqual({ co: 0.1, co2: 15, o2: 0.2, hc: 30 });
    expect(found?.idle).toEqual({ co: 0.2, co2: 14.8, o2: 0.4, hc: 30 });
  });
  it("takes the analyser's own λ for none of the ECU's", () => {
    expect(JSON.stringify(trace(FILE, [30, 800, 0.2, 14.8, 0.4]))).not.toMatch(/1\.07|ecuLambda/);
  });
  it("is of no state that nobody knows: without engine speed it is asked", () => {
    const found = trace("Time (s);CO (%);CO2 (%);O2 (%);HC (ppm);Lambda", [8, 0, 0, 0.1, 20.8], [30, 0, 0.2, 14.8, 0.4]);
    expect(found).toEqual({ unplaced: { co: 0.2, co2: 14.8, o2: 0.4, hc: 30 } });
  });
  it("is nothing where a gas is missing, the probe hung in the air, or no stretch was long enough", () => {
    expect(trace("Time (s);RPM;CO (%);CO2 (%);X;HC (ppm);Y", [30, 800, 0.2, 14.8, 0.4])).toBeUndefined();
    expect(trace(FILE, [30, 800, 0, 0.1, 20.8])).toBeUndefined();
    expect(trace(FILE, [8, 800, 0.2, 14.8, 0.4])).toBeUndefined();
  });
});
