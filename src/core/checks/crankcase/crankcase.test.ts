import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import type { Quantity } from "../../units";
import { crankcase as reading } from "../records.fixture";
import { judgeCrankcase } from ".";

const hPa = (value: number): Quantity => ({ value, unit: "hPa", kind: "gauge" });
const banded = contextOf({ ...NATURAL, crankcaseBand: { low: hPa(-6), high: hPa(-1) } });
const says = (idle: number, context = banded, raised?: number) =>
  judgeCrankcase({ ...reading, idle: hPa(idle), ...(raised === undefined ? {} : { raised: hPa(raised) }) }, context);

describe("crankcase pressure", () => {
  it.each([
    [-3, "pass", "crankcase-normal"],
    [-45, "fail", "crankcase-suction"],
    [0.5, "fail", "crankcase-positive"],
    [-0.3, "fail", "crankcase-positive"],
  ])("%f hPa gauge against a band of −6 to −1: %s", (idle, outcome, observation) => {
    expect(says(idle)).toMatchObject({ outcome, observation });
  });

  it("says what too much suction means, and what it does not", () => {
    const verdict = says(-45);
    expect(verdict.reasons[0]).toMatch(/PCV diaphragm/);
    expect(verdict.reasons[1]).toMatch(/unmetered air only where/);
    expect(verdict.tested).toContain("pcv-diaphragm");
  });

  it("tells blow-by by its growth with speed", () => {
    expect(says(1, banded, 6).reasons[0]).toMatch(/blow-by/);
    expect(says(1, banded, 0.5).reasons[0]).toMatch(/clear the breather first/);
  });

  it("judges only the sign where the engine's band is not known", () => {
    const unknown = contextOf(NATURAL);
    expect(says(-3, unknown)).toMatchObject({ outcome: "unsure", observation: "crankcase-sign-right" });
    expect(says(2, unknown)).toMatchObject({ outcome: "fail", observation: "crankcase-positive" });
    expect(says(-40, unknown)).toMatchObject({ outcome: "fail", observation: "crankcase-suction" });
  });
});
