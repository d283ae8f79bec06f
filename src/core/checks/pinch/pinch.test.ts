import { describe, expect, it } from "vitest";
import { contextOf, NATURAL } from "../../core.fixture";
import { validate } from "../../input";
import { pinch as record } from "../records.fixture";
import { behind, judgePinch, type PinchRecord, pinch, pinchFields } from ".";

const context = contextOf(NATURAL);
const says = (change: Partial<PinchRecord>) => judgePinch({ ...record, ...change }, context);

describe("pinch or cap off", () => {
  it("confirms by recovery, and by coming back on release", () => {
    expect(says({})).toMatchObject({ outcome: "fail", observation: "pinch-recovers", tested: ["vacuum-branch"] });
    expect(says({ released: 3 })).toMatchObject({ outcome: "unsure" });
  });

  it("clears what lies behind a proved blank when nothing changes", () => {
    const verdict = says({ joint: "booster-hose", shut: 16.8, released: 17 });
    expect(verdict).toMatchObject({ outcome: "pass", observation: "pinch-no-change" });
    expect(verdict.tested).toEqual(expect.arrayContaining(["booster-hose", "booster-diaphragm", "booster-check-valve"]));
  });

  it("names a second leak when only a part recovers", () => {
    const verdict = says({ before: 24, shut: 14, released: 23.5 });
    expect(verdict).toMatchObject({ outcome: "fail", observation: "pinch-partly" });
    expect(verdict.headline).toMatch(/something else does too/);
  });

  it.each<[Partial<PinchRecord>, string]>([
    [{ reads: "rpm", before: 1280, shut: 790, released: 1260 }, "pinch-recovers"],
    [{ reads: "rpm", before: 1280, shut: 1100, released: 1270 }, "pinch-partly"],
    [{ reads: "flow", unit: "L/min", before: 7.2, shut: 4.1, released: 7.1 }, "pinch-recovers"],
    [{ reads: "flow", unit: "L/min", before: 7.2, shut: 7.0, released: 7.2 }, "pinch-no-change"],
    [{ reads: "vacuum", unit: "inHg", before: 12, shut: 18, released: 12.3 }, "pinch-recovers"],
  ])("%j: %s", (change, observation) => {
    expect(says(change).observation).toBe(observation);
  });

  it("plugs the idle-air bypass: its own flow is by design, a high idle that goes with it is not", () => {
    const at = contextOf({ ...NATURAL, fitted: [...NATURAL.fitted, "idle-air"] });
    const plugged = (change: Partial<PinchRecord>) => judgePinch({ ...record, joint: "idle-air", how: "cap", ...change }, at);
    expect(plugged({}).outcome).toBe("void");
    const flow = { reads: "flow", unit: "L/min" } as const;
    expect(plugged({ ...flow, before: 7.2, shut: 4.1, released: 7.1 })).toMatchObject({ outcome: "unsure", zones: [] });
    expect(plugged({ reads: "rpm", before: 780, shut: 640, released: 770 }).outcome).toBe("unsure");
    expect(plugged({ reads: "rpm", before: 1280, shut: 790, released: 1270 })).toMatchObject({
      outcome: "fail",
      tested: ["idle-air"],
    });
    expect(plugged({ reads: "rpm", before: 1280, shut: 1275, released: 1280 })).toMatchObject({ outcome: "pass" });
    expect(pinch.places?.(at)).toContain("idle-air");
    expect(pinch.places?.(context)).not.toContain("idle-air");
  });

  it("knows what hangs on each hose", () => {
    expect(behind(context.layout, "pcv-hose")).toEqual(
      expect.arrayContaining(["pcv-valve", "pcv-diaphragm", "oil-cap", "dipstick"]),
    );
    expect(behind(context.layout, "gauge-port")).toEqual(["gauge-port"]);
  });

  it("asks for the unit of a flow", () => {
    expect(() => validate(pinchFields.schema, { ...record, reads: "flow" })).toThrow(/needs its unit/);
  });
});
