import { describe, expect, it } from "vitest";
import { contextOf, DIESEL, NATURAL } from "../../core.fixture";
import { BadInput, validate } from "../../input";
import type { Quantity } from "../../units";
import { CHECKS, judgeCheck } from "..";
import { filter as sound } from "../records.fixture";
import { type FilterRecord, filterSchema, judgeFilterCheck } from ".";

const context = contextOf(DIESEL);
const hPa = (value: number): Quantity => ({ value, unit: "hPa", kind: "gauge" });
const at = (held: number, rpm = 3000) => ({ ...sound.held, rpm, pressure: hPa(held) });
const judge = (change: Partial<FilterRecord>) => judgeFilterCheck({ ...sound, ...change }, context);
const why = (change: Partial<FilterRecord>) => judge(change).reasons.join("; ");
const asked = (change: Partial<FilterRecord>) =>
  CHECKS.filter.asks({ ...sound, ...change }, judge(change), context).map((a) => `${a.atom} ${a.says}`);

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
    ["only idle was read", { held: undefined as never }, /hold 3000 1\/min/],
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
      validate(filterSchema, { ...sound, ...change });
      expect.unreachable();
    } catch (error) {
      if (!(error instanceof BadInput)) throw error;
      expect(error.message).toMatch(message);
    }
  });
});
