import { describe, expect, it } from "vitest";
import { VAPOUR } from "@/core/core.fixture";
import { validate } from "@/core/input";
import { type EvapFacts, evapSchema } from "@/core/vehicle";
import { draftOfEvap, EMPTY_EVAP, type EvapDraft, evapOf } from "./evap-form";
import { dayWords } from "./stations/day-words";

const facts = (draft: EvapDraft): EvapFacts | undefined => {
  const read = evapOf(draft);
  if ("error" in read) throw new Error(read.error);
  return read.evap;
};
const wrong = (change: Partial<EvapDraft>): string => {
  const read = evapOf({ ...draftOfEvap(VAPOUR.evap), ...change });
  return "error" in read ? read.error : "taken";
};

describe("the vapour system in the vehicle form", () => {
  it("comes back as it was typed, and passes the door", () => {
    const full: EvapFacts = {
      ...(VAPOUR.evap as EvapFacts),
      monitor: "canister-pump",
      referenceOrifice: { value: 0.5, unit: "mm" },
      requiredLeak: { value: 0.02, unit: "in" },
    };
    for (const evap of [VAPOUR.evap as EvapFacts, full]) {
      const read = facts(draftOfEvap(evap));
      expect(read).toEqual(evap);
      expect(validate(evapSchema, read)).toEqual(evap);
    }
  });
  it("is none where no tank was typed", () => {
    expect(facts(EMPTY_EVAP)).toBeUndefined();
    expect(draftOfEvap(undefined)).toEqual(EMPTY_EVAP);
  });
  it.each<[Partial<EvapDraft>, RegExp]>([
    [{ tank: "a lot" }, /^Fuel tank: /],
    [{ tank: "50 furlongs" }, /^Fuel tank: /],
    [{ sensorZero: "" }, /needs its volts at zero and its volts per unit/],
    [{ sensorPerUnit: "" }, /needs its volts at zero and its volts per unit/],
    [{ sensorPerUnit: "some" }, /^Sensor, volts per unit: /],
    [{ requiredLeak: "0.5 L" }, /^Leak to be caught: /],
    [{ referenceOrifice: "x" }, /^Reference orifice: /],
    [{ sensorZero: "1,5 V", sensorPerUnit: "0,6" }, /^taken$/],
  ])("%j", (change, message) => {
    expect(wrong(change)).toMatch(message);
  });
});

describe("a time as the workshop says it", () => {
  const at = (day: number, hour: number, minute = 0) => new Date(2026, 2, day, hour, minute).getTime();
  it.each([
    [at(2, 18, 5), "18:05 today"],
    [at(3, 6, 40), "06:40 tomorrow"],
    [at(5, 14), "14:00 on Thu 5 Mar"],
  ])("%s is %s", (ms, words) => {
    expect(dayWords(ms, at(2, 8))).toBe(words);
  });
});
