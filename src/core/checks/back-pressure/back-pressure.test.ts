import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { validate } from "../../input";
import type { Quantity } from "../../units";
import { backPressure as sound } from "../records.fixture";
import { type BackPressure, backPressureFields, judgeBackPressure } from ".";

const context = contextOf(NATURAL);
const kPa = (value: number): Quantity => ({ value, unit: "kPa", kind: "gauge" });
const judge = (change: Partial<BackPressure>) => judgeBackPressure({ ...sound, ...change }, context);

describe("exhaust back pressure", () => {
  it.each<[string, Partial<BackPressure>, string]>([
    ["within limits", {}, "pass"],
    ["too high at the raised speed", { raised: kPa(34) }, "fail"],
    ["too high at idle", { idle: kPa(12) }, "fail"],
    ["read at idle only", { raised: undefined as never }, "unsure"],
    ["without a snap", { snap: undefined as never }, "unsure"],
    ["on a gauge too coarse for it", { instrument: { ...sound.instrument, division: { value: 5, unit: "kPa" } } }, "unsure"],
    ["on a gauge off its zero", { instrument: { ...sound.instrument, zero: { value: 2, unit: "kPa" } } }, "unsure"],
    ["that shoots up in a snap", { snap: kPa(110) }, "unsure"],
    ["whose snap was not caught at its top", { snap: kPa(2) }, "unsure"],
    ["cold", { warm: false }, "void"],
  ])("%s", (_, change, outcome) => {
    expect(judge(change).outcome).toBe(outcome);
  });
  it("tells what swings shut in a snap", () => {
    expect(judge({ raised: kPa(24), snap: kPa(110) }).reasons.join()).toMatch(/swings shut/);
  });
  it("is refused at the door where nothing or nonsense was read", () => {
    expect(() => validate(backPressureFields.schema, { ...sound, idle: undefined, raised: undefined })).toThrow(/at 2500/);
    expect(() => validate(backPressureFields.schema, { ...sound, raised: { value: 6, unit: "bar" } })).toThrow(/out of range/);
  });
});
