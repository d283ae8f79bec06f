import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL } from "../../core.fixture";
import { type BadInput, validate } from "../../input";
import { readScanLog } from "../../scan-log";
import { type Quantity, toSi } from "../../units";
import { CHECKS } from "..";
import { boost as sound } from "../records.fixture";
import { type BoostPointRead, type BoostRecord, boostFields, boostTrace, judgeBoostCheck } from ".";

const context = contextOf(DIESEL);
const judge = (change: Partial<BoostRecord>) => judgeBoostCheck({ ...sound, ...change }, context);
const why = (change: Partial<BoostRecord>) => judge(change).reasons.join("; ");
const isUnder = (p: BoostPointRead) => (p.map as Quantity).value > 120;
const times = (q: Quantity | undefined, factor: number) => ({ ...(q as Quantity), value: (q as Quantity).value * factor });
const plus = (q: Quantity | undefined, kPa: number) => ({ ...(q as Quantity), value: (q as Quantity).value + kPa });
const under = (change: (p: BoostPointRead) => Partial<BoostPointRead>) =>
  sound.points.map((p) => (isUnder(p) ? { ...p, ...change(p) } : p));
/** One steady moment that falls short. */
const dip = sound.points.map((p, i) => (i === 2 ? { ...p, asked: plus(p.asked, 35) } : p));

describe("boost from a log, as a check", () => {
  it.each<[string, Partial<BoostRecord>, string, string | undefined]>([
    ["a sound engine", {}, "pass", "boost-sound"],
    ["a leak after the meter", { points: under((p) => ({ maf: times(p.maf, 1.09) })) }, "fail", "boost-leak"],
    ["boost that falls short", { points: under((p) => ({ asked: plus(p.asked, 35) })) }, "fail", "boost-short"],
    ["boost that goes over", { points: under((p) => ({ asked: plus(p.asked, -35) })) }, "fail", "boost-over"],
    ["a sensor that is off", { keyOn: { map: { value: 108, unit: "kPa", kind: "absolute" } } }, "fail", "boost-sensor"],
    ["boost that hunts", { hunts: true }, "unsure", undefined],
    ["what was asked left out", { points: under(() => ({ asked: undefined })) }, "unsure", undefined],
    ["EGR", { egr: "unknown" }, "unsure", undefined],
    ["points under boost only", { points: sound.points.filter(isUnder) }, "unsure", undefined],
  ])("%s", (_, change, outcome, observation) => {
    expect([judge(change).outcome, judge(change).observation]).toEqual([outcome, observation]);
  });

  const abs = (value: number): Quantity => ({ value, unit: "kPa", kind: "absolute" });
  const dp = (value: number): Quantity => ({ value, unit: "hPa", kind: "gauge" });
  const AIR = toSi(sound.ambient) / 1000;
  it.each<[string, NonNullable<BoostRecord["keyOn"]>, string, string | undefined, RegExp]>([
    [
      "the charge sensor",
      { ambient: abs(AIR), map: abs(AIR), charge: abs(AIR + 6) },
      "fail",
      "boost-sensor",
      /^The charge sensor is off/,
    ],
    [
      "the ECU's ambient sensor",
      { ambient: abs(AIR - 5), map: abs(AIR), charge: abs(AIR) },
      "fail",
      "boost-sensor",
      /^The ambient sensor/,
    ],
    ["the exhaust's", { map: abs(AIR), exhaust: abs(AIR + 8) }, "fail", undefined, /^The exhaust pressure sensor is off/],
    ["the filter's", { map: abs(AIR), filter: dp(9) }, "fail", "standing-filter", /^The filter pressure sensor is off/],
    [
      "none of the car's, where the bay's pressure was mistyped",
      { map: abs(AIR - 5), charge: abs(AIR - 5) },
      "unsure",
      undefined,
      /conditions does not/,
    ],
    [
      "none where all agree",
      { ambient: abs(AIR), map: abs(AIR + 0.4), exhaust: abs(AIR), filter: dp(0.5) },
      "pass",
      "boost-sound",
      /holds/,
    ],
  ])("names with the engine standing %s", (_, keyOn, outcome, observation, headline) => {
    const verdict = judge({ keyOn });
    expect([verdict.outcome, verdict.observation]).toEqual([outcome, observation]);
    expect(verdict.headline).toMatch(headline);
  });

  it("lets no sensor of the exhaust hide a leak, nor take boost that holds into doubt: it is owed by itself", () => {
    const keyOn = { map: abs(AIR), filter: dp(9) };
    const leak = judge({ keyOn, points: under((p) => ({ maf: times(p.maf, 1.09) })) });
    expect(leak.observation).toBe("boost-leak");
    expect(leak.reasons.join()).toMatch(/filter's pressure sensor shows 9\.0 hPa/);
    const claims = (change: Partial<BoostRecord>) =>
      CHECKS.boost.claims({ ...sound, ...change }, judge(change), context).map((a) => `${a.atom} ${a.says}`);
    expect(claims({ keyOn })).toEqual(expect.arrayContaining(["zero@filter-sensor bad", "boost@delivered good"]));
    expect(claims({ keyOn: { map: abs(AIR), filter: dp(0) } })).toContain("zero@filter-sensor good");
    expect(claims({ keyOn: { map: abs(AIR), exhaust: abs(AIR + 9) } })).toContain("zero@exhaust-sensor bad");
    // A manifold sensor that is off leaves nothing of boost to say.
    expect(claims({ keyOn: { map: abs(AIR + 9), charge: abs(AIR), ambient: abs(AIR) } })).toContain("boost@delivered bad");
    expect(claims({}).join()).not.toMatch(/zero@/);
  });

  it("takes nothing of breathing from points at which exhaust was led back, and says so", () => {
    const faked = (egr: number) =>
      sound.points.map((p) => (isUnder(p) ? { ...p, egr: 0 } : { ...p, egr, maf: times(p.maf, egr > 2 ? 0.85 : 1) }));
    expect(judge({ points: faked(0) }).outcome).toBe("pass");
    // Led back wherever there is no boost: less air off boost would read as more under it, which is a leak that is none.
    expect(judge({ points: faked(30) })).toMatchObject({ outcome: "unsure" });
    expect(why({ points: faked(30) })).toMatch(/EGR was open at \d+ of \d+ points/);
    expect(why({ points: sound.points.map((p) => ({ ...p, egr: 30 })) })).toMatch(/EGR was open while it was logged/);
    expect(why({ points: sound.points.map((p) => ({ ...p, egr: 30, maf: undefined as never })) })).toMatch(
      /no air flow was logged/,
    );
  });

  it("lets a dip of a moment be a transient, and clears nothing over one that lasted", () => {
    expect(judge({ points: dip, short: { seconds: 0.8, from: 1500, to: 1700 } }).outcome).toBe("pass");
    const lasting = { points: dip, short: { seconds: 6, from: 1600, to: 2900 } };
    expect([judge(lasting).outcome, judge(lasting).observation]).toEqual(["unsure", undefined]);
    expect(why(lasting)).toMatch(/below requested for 6\.0 s between 1600 and 2900/);
    const peak = sound.points.map((p, i) => (i === 2 ? { ...p, asked: plus(p.asked, -35) } : p));
    expect(judge({ points: peak, over: { seconds: 3, from: 1600, to: 2900 } }).outcome).toBe("unsure");
    // A compressor that takes its time to spin up shows at no steady point.
    expect(judge({ short: { seconds: 3, from: 1300, to: 1800 } }).outcome).toBe("pass");
  });

  it("calls boost short that every steady moment shows short, however brief each pull was", () => {
    const points = under((p) => ({ asked: plus(p.asked, 35) }));
    expect(judge({ points, short: { seconds: 0.8, from: 1500, to: 1700 } })).toMatchObject({
      outcome: "fail",
      observation: "boost-short",
    });
  });

  it("says what limp mode takes away, and that a hiss that stopped is no cure", () => {
    expect(judge({ limp: { at: 412 } }).outcome).toBe("unsure");
    expect(why({ limp: { at: 412, after: { value: 7.2, unit: "km" } } })).toMatch(/after 7 km.*hiss that stopped is no cure/);
  });

  it("proves nothing on an engine without a compressor, or a cold one", () => {
    expect(judgeBoostCheck(sound, contextOf(NATURAL)).outcome).toBe("void");
    expect(CHECKS.boost.plan(contextOf(NATURAL), undefined).refused).toMatch(/no compressor/);
    expect(judge({ warm: false }).outcome).toBe("void");
  });

  it("states what it could have shown, and clears nothing that it could not", () => {
    expect(judge({}).measures.map((m) => m.name)).toContain("Smallest leak it could have shown");
    // Three moments off boost and three under it, at far apart speeds.
    const off = sound.points.filter((p) => !isUnder(p)).slice(0, 3);
    const few = sound.points.filter(isUnder).slice(-3);
    const blunt = { points: [...off, ...few].map((p) => ({ ...p, map: plus(p.map, p.rpm % 2 ? 4 : -4) })) };
    expect(judge(blunt)).toMatchObject({ outcome: "unsure" });
    expect(judge(blunt).reasons[0]).toMatch(/5 % of the flow, must be caught/);
    expect(why({})).toMatch(/a hole below \d\.\d mm does not show in a log: smoke or air/);
  });

  it("owes delivery and a leak by its size: what could have shown one as small answers it, and nothing blunter", () => {
    const asked = (change: Partial<BoostRecord>, within = context) =>
      CHECKS.boost
        .claims({ ...sound, ...change }, judgeBoostCheck({ ...sound, ...change }, within), within)
        .map((a) => `${a.atom.replace("boost@", "")} ${a.says}`);
    const leaking = { points: under((p) => ({ maf: times(p.maf, 1.09) })) };
    expect(asked({})).toContain("delivered good");
    expect(asked({})).toContain("meter/leak of 3 mm good");
    expect(asked({})).not.toContain("meter/leak of 2 mm good");
    const [bad] = asked(leaking).filter((a) => a.endsWith(" bad"));
    expect(bad).toMatch(/meter\/leak of [45] mm bad/);
    expect(asked(leaking)).toContain("delivered open");
    // Not sure by what must be caught, it still answers the leak that it would have shown.
    expect(asked({}, contextOf(DIESEL))).toContain("meter/leak of 4 mm good");
    expect(asked({ limp: { at: 412 } })).toContain("delivered open");
    expect(asked({ points: dip, short: { seconds: 6, from: 1600, to: 2900 } })).toContain("delivered open");
    expect(asked({ egr: "unknown" }).join()).not.toMatch(/leak of/);
    expect(asked({ points: under((p) => ({ asked: plus(p.asked, 35) })) })).toContain("delivered bad");
    expect(asked({ points: under(() => ({ asked: undefined })) }).join()).not.toMatch(/delivered/);
  });

  it("is refused at the door with gauge beside absolute, or a point that says nothing", () => {
    const refused = (change: object) => {
      try {
        validate(boostFields.schema, { ...sound, ...change });
        return "taken";
      } catch (error) {
        return (error as BadInput).message;
      }
    };
    expect(refused({ points: under((p) => ({ asked: plus(p.charge, -160) })) })).toMatch(/gauge pressure beside absolute/);
    // Hot air behind the compressor and high boost are readings; what no engine shows is none.
    const point = (celsius: number, kpa: number) => ({
      points: [
        {
          ...sound.points[0],
          map: { value: kpa, unit: "kPa", kind: "absolute" },
          chargeTemperature: { value: celsius, unit: "°C" },
        },
      ],
    });
    expect(refused(point(150, 430))).toBe("taken");
    expect(refused(point(190, 430))).toMatch(/charge air temperature/);
    expect(refused(point(150, 470))).toMatch(/manifold pressure/i);
    expect(refused({ points: [{ rpm: 2000, chargeTemperature: { value: 40, unit: "°C" } }] })).toMatch(
      /manifold or charge pressure/,
    );
    expect(refused({})).toBe("taken");
  });
});

describe("what is taken from a log", () => {
  /** Ten seconds standing, a slow run, then pulls; limp mode from `limpAt` on. */
  function log({ asks = 60, gives = 60, limpAt = 1e9, swing = 0 } = {}) {
    const lines = [
      "Time (s),Engine RPM (rpm),MAP (kPa),Charge pressure (kPa),Commanded boost pressure (kPa),MAF (g/s),Charge air temperature (°C),Vehicle speed (km/h),Throttle (%)",
    ];
    for (let t = 0; t < 120; t += 0.25) {
      const standing = t < 10;
      const pull = t > 40;
      const limp = t >= limpAt;
      const rpm = standing ? 0 : pull ? 2000 + 8 * (t - 40) : 1500 + 20 * (t - 10);
      const boost = pull && !limp ? gives + swing * Math.sin(t * 3) : 0;
      const asked = pull && !limp ? asks : 0;
      lines.push(
        [
          t,
          rpm,
          101 + boost,
          101.5 + boost,
          101 + asked,
          standing ? 0 : 30 + boost,
          30,
          standing ? 0 : 72,
          pull && (t - 40) % 40 < 30 ? 90 : 12,
        ]
          .map((v) => Number(v).toFixed(2))
          .join(","),
      );
    }
    return boostTrace(readScanLog(new TextEncoder().encode(lines.join("\n"))), 101e3);
  }
  it("is its steady moments, what every sensor showed standing, and no shortfall where there was none", () => {
    const found = log();
    expect(found?.points.length).toBeGreaterThan(20);
    expect(found?.points.length).toBeLessThanOrEqual(60);
    expect(found?.keyOn?.map?.value).toBeCloseTo(101, 0);
    expect(found).not.toHaveProperty("short");
    expect(found).not.toHaveProperty("limp");
    expect(found?.points.some((p) => (p.asked as Quantity).value > 150)).toBe(true);
  });
  it("is every sensor that stands in it, once a run before has died away, and the filter's as a difference", () => {
    const rows = (run: number) =>
      Array.from({ length: 200 }, (_, i) => {
        const t = i / 4;
        const stands = t >= run;
        return [
          t,
          stands ? 0 : 2500,
          stands && t > run + 2 ? 101 : 150,
          100.8,
          stands && t > run + 2 ? 101.2 : 130,
          stands ? 0.5 : 30,
          40,
          12,
        ];
      }).map((r) => r.join(","));
    const header =
      "Time (s),RPM,MAP (kPa),Barometric pressure (kPa),Exhaust pressure (kPa),DPF differential pressure (hPa),Charge air temperature (°C),Commanded EGR (%)";
    const found = boostTrace(readScanLog(new TextEncoder().encode([header, ...rows(30)].join("\n"))), 101e3);
    const keyOn = found?.keyOn;
    expect([keyOn?.map?.value, keyOn?.ambient?.value, keyOn?.exhaust?.value]).toEqual(
      [101, 100.8, 101.2].map((v) => expect.closeTo(v, 6)),
    );
    expect(keyOn?.filter).toEqual({ value: expect.closeTo(0.5, 6), unit: "hPa", kind: "gauge" });
    expect([found?.egr, found?.points[0]?.egr]).toEqual(["open", 12]);
  });
  it("is how long boost fell short and between which speeds, and when it swung", () => {
    expect(log({ asks: 100 })?.short?.seconds).toBeGreaterThan(60);
    expect(log({ gives: 95 })?.over?.seconds).toBeGreaterThan(60);
    expect(log({ swing: 14 })?.hunts).toBe(true);
  });
  it("is when boost was no longer asked for, and after how far", () => {
    const found = log({ limpAt: 80 });
    expect(found?.limp?.at).toBeCloseTo(80, -1);
    // 70 s at 20 m/s.
    expect(found?.limp?.after?.value).toBeCloseTo(1.4, 1);
  });
  it("is no limp mode where the foot came off, nor where nobody logged the pedal", () => {
    const off = (pedal: string) => {
      const rows = Array.from({ length: 240 }, (_, i) => {
        const t = i / 4;
        const pull = t % 20 < 8;
        return [t, 2400, pull ? 180 : 101, pull ? 181 : 101, 40, 30, pull ? 95 : 10].join(",");
      });
      const header = `Time (s),Engine RPM (rpm),MAP (kPa),Commanded boost pressure (kPa),MAF (g/s),Charge air temperature (°C),${pedal}`;
      return boostTrace(readScanLog(new TextEncoder().encode([header, ...rows].join("\n"))), 101e3);
    };
    expect(off("Throttle (%)")).not.toHaveProperty("limp");
    expect(off("Cabin fan (%)")).not.toHaveProperty("limp");
  });
  it("has short- and long-term trim together, mean of the banks, and none while the loop is open", () => {
    const of = (columns: string, values: (t: number) => readonly number[]) => {
      const rows = Array.from({ length: 80 }, (_, i) => [i / 4, 1800, 95, 20, 30, ...values(i / 4)].join(","));
      const header = `Time (s),Engine RPM (rpm),MAP (kPa),MAF (g/s),Charge air temperature (°C),${columns}`;
      return boostTrace(readScanLog(new TextEncoder().encode([header, ...rows].join("\n"))), 101e3)?.points.map((p) => p.trim);
    };
    expect(new Set(of("STFT (%),LTFT (%)", () => [2, 6]))).toEqual(new Set([8]));
    expect(new Set(of("STFT B1 (%),LTFT B1 (%),STFT B2 (%),LTFT B2 (%)", () => [2, 6, 0.5, 9.5]))).toEqual(new Set([9]));
    expect(new Set(of("LTFT (%)", () => [6]))).toEqual(new Set([undefined]));
    const opened = of("STFT (%),LTFT (%)", (t) => (t < 10 ? [1, 6] : [0, 6]));
    expect([opened?.[2], opened?.at(-2)]).toEqual([7, undefined]);
  });
  it("has the time of each point, where it is no longer than a record holds", () => {
    expect(log({})?.points.every((p, i, all) => p.time !== undefined && (i === 0 || p.time !== all[i - 1]?.time))).toBe(true);
  });
  it("is nothing where the log has no pressure", () => {
    expect(
      boostTrace(readScanLog(new TextEncoder().encode("Time (s),Engine RPM (rpm)\n0,800\n1,810\n2,800\n")), 101e3),
    ).toBeUndefined();
  });
});
