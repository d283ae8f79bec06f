import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { VAPOUR } from "../core.fixture";
import { airMapOf } from "./air-map";
import { FITTED_SYSTEMS, TAPPABLE, type VehicleFacts } from "./facts";
import { layoutOf, ZONE_IDS, ZONE_NAMES } from "./layout";
import { hoseEnds, reachOf, sidesOf } from "./reach";

const described = VAPOUR.evap as NonNullable<VehicleFacts["evap"]>;
/** Any vehicle that the facts can describe. */
const vehicles = fc
  .record({
    induction: fc.constantFrom("natural" as const, "turbo" as const),
    metering: fc.constantFrom("maf" as const, "map" as const),
    banks: fc.constantFrom(1 as const, 2 as const),
    fitted: fc.subarray([...FITTED_SYSTEMS]),
    tapped: fc.option(fc.subarray([...TAPPABLE]), { nil: undefined }),
    evap: fc.option(
      fc.record({
        neck: fc.constantFrom("cap" as const, "capless" as const),
        neckFlap: fc.boolean(),
        tankOneWay: fc.boolean(),
        servicePort: fc.boolean(),
        monitor: fc.constantFrom(described.monitor, "canister-pump" as const),
      }),
      { nil: undefined },
    ),
  })
  .map(({ evap, ...facts }): VehicleFacts => ({ ...VAPOUR, ...facts, evap: evap && { ...described, ...evap } }));

describe("the circuits of any vehicle (properties)", () => {
  it("name only zones and joints that it has, each once", () => {
    fc.assert(
      fc.property(vehicles, (facts) => {
        const { zones, joints } = layoutOf(facts);
        const zoneIds = zones.map((z) => z.id);
        const jointIds = joints.map((j) => j.id);
        expect(new Set(zoneIds).size).toBe(zoneIds.length);
        expect(new Set(jointIds).size).toBe(jointIds.length);
        for (const joint of joints) {
          expect(zoneIds, joint.id).toContain(joint.from);
          if (joint.to !== "outside") expect(zoneIds, joint.id).toContain(joint.to);
          if (joint.feeds) expect(zoneIds, joint.id).toContain(joint.feeds);
          for (const other of [joint.end?.at, joint.seatOf, joint.pushedBy])
            if (other) expect(jointIds, joint.id).toContain(other);
        }
      }),
    );
  });

  it("leave no zone without a way from the outside, and none but tightly bounded volumes", () => {
    fc.assert(
      fc.property(vehicles, (facts) => {
        const { zones, joints } = layoutOf(facts);
        for (const zone of zones) {
          expect(zone.volume).toBeGreaterThan(0);
          expect(zone.volume).toBeLessThan(0.2);
          expect(
            joints.some((j) => j.from === zone.id || j.to === zone.id),
            zone.id,
          ).toBe(true);
        }
      }),
    );
  });

  it("let smoke in from every hose's end into each of its sides, and reach that side first", () => {
    fc.assert(
      fc.property(vehicles, (facts) => {
        const layout = layoutOf(facts);
        const open = layout.joints.filter((j) => j.rest !== "open").map((j) => j.id);
        for (const end of [...hoseEnds(layout), ...hoseEnds(layout, "evap")]) {
          for (const into of sidesOf(layout, end)) {
            const { zones } = reachOf(layout, { entry: end.id, into, blocked: [], heldOpen: open });
            expect(zones, `${end.id} into ${into}`).toContain(into);
          }
        }
      }),
      { numRuns: 30 },
    );
  });

  it("stand on the air map, every zone and every joint", () => {
    fc.assert(
      fc.property(vehicles, (facts) => {
        const layout = layoutOf(facts);
        const map = airMapOf(layout);
        expect(map.zones.map((z) => z.zone).sort()).toEqual(layout.zones.map((z) => z.id).sort());
        expect(map.joints.map((p) => p.joint.id).sort()).toEqual(layout.joints.map((j) => j.id).sort());
        for (const { x, y, joint } of map.joints) {
          expect(x >= 0 && x <= map.width && y >= 0 && y <= map.height, joint.id).toBe(true);
        }
      }),
    );
  });

  it("have a name for every zone there is", () => {
    expect(Object.keys(ZONE_NAMES).sort()).toEqual([...ZONE_IDS].sort());
    expect(ZONE_NAMES["metered-duct"]).toBe("Metered duct");
  });
});
