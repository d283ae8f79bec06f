import { describe, expect, it } from "vitest";
import { NATURAL, TURBO, TWO_BANKS } from "../core.fixture";
import { validate } from "../input";
import { airMapOf, FITTED_SYSTEMS, layoutOf, reachOf, usualSetup, type VehicleFacts, vehicleFields } from ".";

const ALL: VehicleFacts = { ...TURBO, fitted: [...FITTED_SYSTEMS] };

describe("vacuum branches on the map", () => {
  it.each([
    ["natural", { ...NATURAL, fitted: [...FITTED_SYSTEMS] }],
    ["turbo", ALL],
    ["two banks", TWO_BANKS],
    ["speed-density", { ...NATURAL, metering: "map" as const }],
  ] as const)("stand inside it, %s, each zone and joint once", (_name, facts) => {
    const layout = layoutOf(facts);
    const map = airMapOf(layout);
    expect(map.zones.map((z) => z.zone)).toEqual(layout.zones.map((z) => z.id));
    expect(map.joints.map((p) => p.joint.id)).toEqual(layout.joints.map((j) => j.id));
    for (const { zone, boxes } of map.zones) {
      for (const b of boxes) {
        expect(b.x >= 0 && b.x + b.w <= map.width, zone).toBe(true);
        expect(b.y >= 0 && b.y + b.h <= map.height, zone).toBe(true);
      }
    }
    for (const { joint, x, y } of map.joints) {
      expect(x >= 0 && x <= map.width && y >= 0 && y <= map.height, joint.id).toBe(true);
    }
  });

  it("do not lie on one another", () => {
    const boxes = airMapOf(layoutOf(ALL)).zones.flatMap((z) => z.boxes.map((b) => ({ zone: z.zone, ...b })));
    for (const a of boxes) {
      for (const b of boxes) {
        if (a.zone === b.zone) continue;
        const apart = a.x + a.w <= b.x + 1 || b.x + b.w <= a.x + 1 || a.y + a.h <= b.y + 1 || b.y + b.h <= a.y + 1;
        expect(apart, `${a.zone} on ${b.zone}`).toBe(true);
      }
    }
  });

  it("one layout is made for one set of facts", () => {
    expect(layoutOf(ALL)).toBe(layoutOf(ALL));
    expect(layoutOf({ ...ALL })).not.toBe(layoutOf(ALL));
  });
});

describe("what a fill puts to the test", () => {
  const flaps: VehicleFacts = { ...NATURAL, fitted: [...NATURAL.fitted, "runner-flaps"] };
  const tested = (entry: string, facts = NATURAL) =>
    reachOf(layoutOf(facts), usualSetup(layoutOf(facts), entry)).tested.map((j) => j.id);

  it("ends at the engine's valves: the intake run says nothing of the exhaust, the tailpipe's nothing of the intake", () => {
    expect(tested("air-meter")).toContain("manifold-gasket");
    expect(tested("air-meter")).not.toContain("exhaust-gasket");
    expect(tested("tailpipe")).toContain("exhaust-gasket");
    expect(tested("tailpipe")).not.toContain("manifold-gasket");
  });

  it("does not pass a check valve towards the flaps, nor their solenoid at rest", () => {
    const reach = reachOf(layoutOf(flaps), usualSetup(layoutOf(flaps), "air-meter"));
    expect(reach.zones).not.toContain("vacuum-supply");
    expect(reach.zones).not.toContain("flap-actuator");
    expect(reach.stopped).toContainEqual(
      expect.objectContaining({ zone: "vacuum-supply", by: expect.objectContaining({ id: "flap-check-valve" }) }),
    );
  });

  it("passes an idle-air bypass at rest, which weeps by design", () => {
    const facts: VehicleFacts = { ...NATURAL, fitted: [...NATURAL.fitted, "idle-air"] };
    const layout = layoutOf(facts);
    const shut = { entry: "gauge-port", blocked: ["snorkel", "tailpipe"], heldOpen: [] };
    expect(reachOf(layout, shut).zones).toContain("metered-duct");
    expect(layout.joints.find((j) => j.id === "idle-air")?.weeps).toBe(true);
  });
});

describe("what the maker says of a vehicle", () => {
  const hPa = (value: number) => ({ value, unit: "hPa", kind: "gauge" });
  const says = (change: object) => {
    try {
      validate(vehicleFields.schema, { ...NATURAL, ...change });
      return "taken";
    } catch (error) {
      return (error as Error).message;
    }
  };

  it.each<[object, RegExp]>([
    [{ crankcaseBand: { low: hPa(-6), high: hPa(-1) } }, /^taken$/],
    [{ crankcaseBand: { low: hPa(-1), high: hPa(-6) } }, /lower end is above its upper end/],
    [{ crankcaseBand: { low: hPa(-6) } }, /upper end/],
    [{ limits: { idleSpeed: { value: 820, source: "maker's figure, entered by Maren Oake" } } }, /^taken$/],
    [{ limits: { idleSpeed: { value: 820, source: " " } } }, /where this limit comes from/],
    [{ limits: { courage: { value: 1, source: "us" } } }, /courage/],
    [{ fitted: ["sails"] }, /fitted/],
  ])("%j", (change, message) => {
    expect(says(change)).toMatch(message);
  });
});
