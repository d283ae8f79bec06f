import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL } from "../../core.fixture";
import { BadInput, validate } from "../../input";
import { readScanLog } from "../../scan-log";
import { DEFAULT_LIMITS } from "../../shop/settings";
import type { Quantity } from "../../units";
import { CHECKS, judgeCheck } from "..";
import { filter as sound } from "../records.fixture";
import { type FilterRecord, filterFields, filterTrace, judgeFilterCheck } from ".";

const context = contextOf(DIESEL);
const hPa = (value: number): Quantity => ({ value, unit: "hPa", kind: "gauge" });
const at = (held: number, rpm = 3000) => ({ ...sound.held, rpm, pressure: hPa(held) });
const judge = (change: Partial<FilterRecord>) => judgeFilterCheck({ ...sound, ...change }, context);
const why = (change: Partial<FilterRecord>) => judge(change).reasons.join("; ");
const asked = (change: Partial<FilterRecord>) =>
  CHECKS.filter.claims({ ...sound, ...change }, judge(change), context).map((a) => `${a.atom} ${a.says}`);

describe("filter pressure", () => {
  it.each<[string, Partial<FilterRecord>, string, string | undefined]>([
    ["within limits", {}, "pass", "filter-within"],
    ["loaded at the held speed", { held: at(110) }, "fail", "filter-loaded"],
    ["loaded at idle", { idle: { rpm: 800, pressure: hPa(14) }, held: at(60) }, "fail", "filter-loaded"],
    ["between good and most", { held: at(65) }, "unsure", undefined],
    ["with its zero off", { keyOn: hPa(9) }, "fail", "filter-zero-off"],
    ["read backwards", { idle: { rpm: 800, pressure: hPa(-6) }, held: at(-32) }, "fail", "filter-backwards"],
    ["with next to nothing", { idle: { rpm: 800, pressure: hPa(0) }, held: at(1) }, "fail", "filter-none"],
    ["with a split pipe", { pipes: "front-bad" }, "fail", "filter-pipe:filter-pipe-front"],
    ["with swapped pipes", { pipes: "swapped" }, "fail", "filter-pipe:filter-pipe-front"],
  ])("%s: %s", (_, change, outcome, observation) => {
    expect([judge(change).outcome, judge(change).observation]).toEqual([outcome, observation]);
  });

  it.each<[string, Partial<FilterRecord>, RegExp]>([
    [
      "its pipes were not looked at: one that is blocked reads a loaded filter good",
      { pipes: "not-looked" },
      /blow both pressure pipes free/,
    ],
    ["only idle was read", { held: undefined as never }, /hold 3000 rpm/],
    ["its zero was not read", { keyOn: undefined as never }, /its zero with the key on was not read/],
    ["idle was typed in the wrong unit", { idle: { rpm: 800, pressure: { value: 6, unit: "kPa" } } }, /do not fit each other/],
    [
      "the held reading was typed in the wrong unit",
      { held: { rpm: 3000, pressure: { value: 2.5, unit: "psi" } } },
      /do not fit each other/,
    ],
    [
      "the display is too coarse for idle and no speed was held",
      { division: { value: 1, unit: "kPa" }, held: undefined as never },
      /too coarse/,
    ],
  ])("clears nothing where %s", (_, change, reason) => {
    expect(judge(change).outcome).toBe("unsure");
    expect(why(change)).toMatch(reason);
  });

  it("says nothing cold, and nothing of a car without a filter", () => {
    expect(judge({ warm: false }).outcome).toBe("void");
    expect(judgeFilterCheck(sound, contextOf(NATURAL)).outcome).toBe("void");
    expect(CHECKS.filter.plan(contextOf(NATURAL), undefined).refused).toMatch(/No particulate filter/);
    // Fitted is not known of a car that nobody described: it clears nothing.
    const { fitted: _, ...unsaid } = DIESEL;
    expect(judgeCheck("filter", sound, contextOf(unsaid)).outcome).toBe("unsure");
  });

  it("goes by what the maker says of this car, and lets a coarse display decide by the raised speed", () => {
    const strict = contextOf({
      ...DIESEL,
      limits: { filterMost: { value: 3000, source: "maker's figure" }, filterGood: { value: 2500, source: "maker's figure" } },
    });
    expect(judgeFilterCheck(sound, strict).outcome).toBe("fail");
    const coarse = {
      division: { value: 1, unit: "kPa" } as Quantity,
      idle: { rpm: 800, pressure: { value: 1, unit: "kPa" } as Quantity },
    };
    expect(judge(coarse).outcome).toBe("pass");
    expect(why(coarse)).toMatch(/raised speed decides/);
  });

  it("says where soot by the model and by the pressure lie apart", () => {
    expect(why({ sootModel: 8, sootMeasured: 30, held: at(110) })).toMatch(/ash/);
    expect(why({ sootModel: 40, sootMeasured: 6 })).toMatch(/never set back/);
    expect(why({})).not.toMatch(/by the model/);
  });

  it("owes the pressure and the sensor's zero apart", () => {
    expect(asked({})).toEqual(["pressure@filter-core good", "zero@filter-sensor good"]);
    expect(asked({ keyOn: hPa(9) })).toEqual(["pressure@filter-core open", "zero@filter-sensor bad"]);
    expect(asked({ held: at(110), keyOn: undefined as never })).toEqual(["pressure@filter-core bad"]);
    expect(asked({ warm: false })).toEqual([]);
  });

  it.each<[object, RegExp]>([
    [{ idle: undefined, held: undefined }, /without a running engine it says nothing/],
    [{ held: { rpm: 700, pressure: hPa(30) } }, /no higher than the idle/],
    [{ held: { rpm: 3000, pressure: { value: 35, unit: "bar" } } }, /out of range.*Did you mean/],
    [{ pipes: "fine" }, /one of/],
    [{ sootModel: -4 }, /negative/],
  ])("is refused at the door: %j", (change, message) => {
    try {
      validate(filterFields.schema, { ...sound, ...change });
      expect.unreachable();
    } catch (error) {
      if (!(error instanceof BadInput)) throw error;
      expect(error.message).toMatch(message);
    }
  });
});

describe("what is taken from a log", () => {
  const HEADER =
    "Time (s),RPM,DPF differential pressure (hPa),MAF (g/s),EGT (°C),ECT (°C),Vehicle speed (km/h),Commanded EGR (%)";
  type Stage = readonly [seconds: number, rpm: number, hPa: number, rest?: { coolant?: number; speed?: number; egr?: number }];
  const trace = (...stages: readonly Stage[]) => {
    let t = 0;
    const rows = stages.flatMap(([seconds, rpm, dp, { coolant = 88, speed = 0, egr = 0 } = {}]) =>
      Array.from({ length: seconds * 2 }, () => {
        t += 0.5;
        return [t, rpm, dp, rpm / 65, rpm > 1500 ? 200 : 120, coolant, speed, egr].join(",");
      }),
    );
    return filterTrace(readScanLog(new TextEncoder().encode([HEADER, ...rows].join("\n"))), DEFAULT_LIMITS);
  };
  const ZERO: Stage = [8, 0, 0.5];
  it("is its zero, idle and the held speed, with air and temperature of each", () => {
    const found = trace(ZERO, [20, 810, 6], [20, 3010, 38]);
    expect(found?.keyOn).toEqual({ value: expect.closeTo(0.5, 6), unit: "hPa", kind: "gauge" });
    expect(found?.idle).toMatchObject({ rpm: 810, pressure: { value: expect.closeTo(6, 6), unit: "hPa" } });
    expect(found?.held).toMatchObject({ rpm: 3010, maf: { unit: "g/s" }, exhaustTemperature: { value: expect.closeTo(200, 6) } });
    expect(found?.egr).toBe("shut");
    const { egr, ...read } = found as NonNullable<typeof found>;
    expect(validate(filterFields.schema, { ...sound, ...read, egr })).toBeTruthy();
  });
  it("is nothing of a car that is driven, of a cold engine, or where no difference was logged", () => {
    expect(trace(ZERO, [20, 3010, 38, { speed: 90 }])).toBeUndefined();
    expect(trace([20, 3010, 38, { coolant: 40 }])).toBeUndefined();
    expect(
      filterTrace(readScanLog(new TextEncoder().encode("Time (s),RPM\n0,800\n1,800\n2,800")), DEFAULT_LIMITS),
    ).toBeUndefined();
  });
  it("keeps what is missing missing, and says where exhaust was led back", () => {
    const found = trace([20, 3010, 38, { egr: 25 }]);
    expect(found).not.toHaveProperty("keyOn");
    expect(found).not.toHaveProperty("idle");
    expect(found?.egr).toBe("open");
    // Sweeping up is no held speed.
    expect(trace(ZERO, ...Array.from({ length: 20 }, (_, i): Stage => [2, 1500 + 140 * i, 20]))).toBeUndefined();
  });
});
