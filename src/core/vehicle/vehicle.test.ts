import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NATURAL, TURBO, TWO_BANKS, VAPOUR } from "../core.fixture";
import { airMapOf } from "./air-map";
import { anyCar } from "./cars.fixture";
import { mapAround } from "./extract";
import { type VehicleFacts, vehicleFields } from "./facts";
import { EVAP_ZONES, layoutOf } from "./layout";
import { entriesOf, hiddenAt, reachOf, usualSetup } from "./reach";
import { vinCheckDigit, vinModelYear } from "./vin";

const CARS: [string, VehicleFacts][] = [
  ["natural", NATURAL],
  ["turbo", TURBO],
  ["two banks", TWO_BANKS],
  ["bare", { ...NATURAL, fitted: [] }],
];

describe("layout", () => {
  it.each(CARS)("%s: every joint ties zones that exist, ids are unique", (_name, facts) => {
    const layout = layoutOf(facts);
    const zones = new Set(layout.zones.map((z) => z.id));
    for (const joint of layout.joints) {
      expect(zones.has(joint.from), joint.id).toBe(true);
      if (joint.to !== "outside") expect(zones.has(joint.to), joint.id).toBe(true);
      for (const id of hiddenAt(layout, joint)) expect(layout.joints.map((j) => j.id)).toContain(id);
    }
    expect(new Set(layout.joints.map((j) => j.id)).size).toBe(layout.joints.length);
  });

  it("has an MAF only where the air is metered by one", () => {
    const joint = (facts: VehicleFacts) => layoutOf(facts).joints.find((j) => j.id === "air-meter");
    expect(joint(NATURAL)).toMatchObject({ name: "MAF", kind: "meter" });
    expect(joint({ ...NATURAL, metering: "map" })).toMatchObject({ name: "Duct at the filter box", kind: "pipe" });
    expect(layoutOf({ ...NATURAL, metering: "map" }).zones.map((z) => z.name)).toContain("Intake duct");
  });

  it("draws what is fitted and no more", () => {
    const ids = (facts: VehicleFacts) => layoutOf(facts).zones.map((z) => z.id);
    expect(ids(NATURAL)).not.toContain("cooler");
    expect(ids(TURBO)).toContain("cooler");
    expect(ids({ ...NATURAL, fitted: [] })).not.toContain("crankcase");
    expect(layoutOf(TWO_BANKS).joints.map((j) => j.id)).toEqual(
      expect.arrayContaining(["manifold-gasket-1", "manifold-gasket-2"]),
    );
  });
});

describe("what a fill reaches", () => {
  const layout = layoutOf(NATURAL);
  it("stops at a shut throttle and passes a held one", () => {
    const shut = reachOf(layout, { entry: "air-meter", blocked: ["breather-duct"], heldOpen: [] });
    expect(shut.zones).toEqual(["metered-duct"]);
    expect(shut.stopped.map((s) => s.by.id)).toContain("throttle");
    expect(reachOf(layout, { entry: "air-meter", blocked: [], heldOpen: ["throttle"] }).zones).toContain("manifold");
  });

  it("does not enter a branch behind a check valve from the manifold", () => {
    const { zones, stopped } = reachOf(layout, usualSetup(layout, "gauge-port"));
    expect(zones).not.toContain("booster-branch");
    expect(stopped.find((s) => s.zone === "booster-branch")?.by.id).toBe("booster-check-valve");
  });

  it("leaves the other side of what is taken apart", () => {
    expect(reachOf(layout, usualSetup(layout, "air-meter")).zones).not.toContain("filter-box");
    const turbo = layoutOf(TURBO);
    const { zones } = reachOf(turbo, { entry: "hot-pipe-clamp", blocked: ["pcv-valve"], heldOpen: ["throttle"] });
    expect(zones).toEqual(expect.arrayContaining(["hot-pipe", "cooler", "cold-pipe", "manifold"]));
    expect(zones).not.toContain("metered-duct");
  });

  it("never puts the entry, a blocked joint or what it severs to the test", () => {
    for (const entry of entriesOf(layout)) {
      const setup = usualSetup(layout, entry.id);
      const tested = reachOf(layout, setup).tested.map((j) => j.id);
      for (const id of [...hiddenAt(layout, entry), ...setup.blocked]) expect(tested).not.toContain(id);
    }
  });

  it("counts what lies behind the engine's valves apart", () => {
    const reach = reachOf(layout, usualSetup(layout, "air-meter"));
    expect(reach.behindEngine).toEqual(["cylinders", "exhaust-manifold", "front-pipe", "tail"]);
    expect(reach.intakeVolume).toBeLessThan(reach.volume);
  });

  it("seals in the usual setup every end that would leak", () => {
    for (const [, facts] of CARS) {
      const l = layoutOf(facts);
      for (const entry of entriesOf(l)) expect(reachOf(l, usualSetup(l, entry.id)).openEnds).toEqual([]);
    }
  });

  it("reaches no less when more is held open, no more when more is blocked (property)", () => {
    const ids = layout.joints.map((j) => j.id);
    fc.assert(
      fc.property(
        fc.constantFrom(...entriesOf(layout).map((j) => j.id)),
        fc.subarray(ids),
        fc.subarray(ids),
        fc.constantFrom(...ids),
        (entry, blocked, heldOpen, more) => {
          const base = reachOf(layout, { entry, blocked, heldOpen }).zones;
          const opened = reachOf(layout, { entry, blocked, heldOpen: [...heldOpen, more] }).zones;
          const shut = reachOf(layout, { entry, blocked: [...blocked, more], heldOpen }).zones;
          expect(base.every((z) => opened.includes(z))).toBe(true);
          expect(shut.every((z) => base.includes(z))).toBe(true);
        },
      ),
    );
  });

  it("refuses an entry that is not there", () => {
    expect(() => reachOf(layout, { entry: "nowhere", blocked: [], heldOpen: [] })).toThrow(/no entry "nowhere"/);
  });
});

describe("air map", () => {
  it("places every zone and joint of any car inside the map (property)", () => {
    fc.assert(
      fc.property(anyCar, (more) => {
        const layout = layoutOf({ ...NATURAL, ...more });
        const map = airMapOf(layout);
        expect(map.zones.length).toBe(layout.zones.length);
        expect(map.joints.length).toBe(layout.joints.length);
        for (const { boxes } of map.zones) {
          for (const b of boxes) {
            expect(b.x).toBeGreaterThanOrEqual(0);
            expect(b.x + b.w).toBeLessThanOrEqual(map.width);
            expect(b.y + b.h).toBeLessThanOrEqual(map.height);
          }
        }
        for (const { x, y } of map.joints) expect(x >= 0 && x <= map.width && y >= 8 && y <= map.height).toBe(true);
      }),
    );
  });

  it("lays no zone over another (property)", () => {
    fc.assert(
      fc.property(anyCar, (more) => {
        const boxes = airMapOf(layoutOf({ ...NATURAL, ...more })).zones.flatMap((z) =>
          z.boxes.map((b) => ({ ...b, zone: z.zone })),
        );
        for (const a of boxes)
          for (const b of boxes) {
            if (a.zone === b.zone) continue;
            const apart = a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y;
            expect(apart, `${a.zone} over ${b.zone}`).toBe(true);
          }
      }),
    );
  });

  it("lets air flow left to right", () => {
    const x = (id: string) => airMapOf(layoutOf(TURBO)).zones.find((z) => z.zone === id)?.boxes[0]?.x as number;
    const row = ["filter-box", "metered-duct", "hot-pipe", "cooler", "cold-pipe", "manifold", "cylinders", "tail"].map(x);
    expect(row).toEqual(row.toSorted((a, b) => a - b));
  });

  it("cuts the part around a joint and names only what stands in it whole", () => {
    const map = airMapOf(layoutOf(NATURAL));
    const part = mapAround(map, "pcv-hose");
    expect(part?.view.x).toBeGreaterThanOrEqual(0);
    expect(part?.zones.map((z) => z.text)).toContain("Manifold");
    expect(part?.zones.map((z) => z.text)).not.toContain("Tail");
    expect(part?.name.text).toBe("PCV hose");
    expect(mapAround(map, "nowhere")).toBeUndefined();
  });
});

describe("the vapour system on the map", () => {
  const joints = (evap: Partial<NonNullable<VehicleFacts["evap"]>>) =>
    layoutOf({ ...VAPOUR, evap: { ...(VAPOUR.evap as NonNullable<VehicleFacts["evap"]>), ...evap } }).joints;
  it("has what this car has: a port or none, a cap or a capless seal, a flap or an open neck", () => {
    const ids = (evap: Parameters<typeof joints>[0]) => joints(evap).map((j) => j.id);
    expect(ids({ servicePort: false })).not.toContain("service-port");
    expect(ids({})).toEqual(expect.arrayContaining(["service-port", "filler-cap", "neck-tank", "purge-valve", "vent-valve"]));
    expect(ids({ neckFlap: true })).toContain("neck-flap");
    expect(ids({ neckFlap: true })).not.toContain("neck-tank");
    expect(joints({ neck: "capless" }).find((j) => j.id === "filler-cap")?.name).toBe("Capless seal");
    expect(layoutOf({ ...VAPOUR, fitted: [] }).joints.map((j) => j.id)).not.toContain("filler-cap");
  });
  it("lets smoke in at its own entries only, and each hides its own joint from the test", () => {
    const layout = layoutOf(VAPOUR);
    expect(entriesOf(layout).every((e) => !EVAP_ZONES.includes(e.from))).toBe(true);
    const entries = entriesOf(layout, "evap");
    expect(entries.map((e) => e.id).sort()).toEqual(["filler-cap", "purge-line-joint", "service-port"]);
    for (const entry of entries) {
      const reach = reachOf(layout, usualSetup(layout, entry.id));
      expect(reach.tested.map((j) => j.id)).not.toContain(entry.id);
      expect(reach.openEnds, entry.id).toEqual([]);
      expect(reach.zones, entry.id).not.toContain("manifold");
      expect(reach.zones, entry.id).toEqual(expect.arrayContaining(["purge-line", "canister", "tank", "neck"]));
    }
  });
  it("tests the vent valve itself when the vent is plugged behind it, not when it is commanded shut", () => {
    const layout = layoutOf(VAPOUR);
    const reached = (blocked: string[]) => reachOf(layout, { entry: "service-port", blocked, heldOpen: [] }).zones;
    expect(reached(["vent-filter"])).toContain("vent-hose");
    expect(reached(["vent-valve"])).not.toContain("vent-hose");
  });
});

describe("facts", () => {
  it.each([
    ["1M8GDM9AXKP042788", "X", true],
    ["11111111111111111", "1", true],
    ["1M8GDM9A1KP042788", "X", false],
  ])("VIN %s: check digit %s", (vin, expected, matches) => {
    expect(vinCheckDigit(vin)).toEqual({ expected, matches });
  });
  it.each([
    ["4ZZPT2B00E1000123", 2014],
    ["4zzpt2109e1000123", 1984],
    ["1ZZPT2101Y1000123", 2000],
    ["4ZZPT2A0911000777", 2031],
    // A wrong check digit, a market that does not use it, and what is no VIN say nothing of the year.
    ["4ZZPT2B01E1000123", undefined],
    ["SZZPT2104E1000123", undefined],
    ["4ZZPT2B00E100012", undefined],
  ])("VIN %s: model year %s", (vin, year) => {
    expect(vinModelYear(vin)).toBe(year);
  });
  it("shows no check digit for what is no VIN", () => {
    expect(vinCheckDigit("FW 31 KLT")).toBeUndefined();
    expect(vinCheckDigit("IOQ45678901234567")).toBeUndefined();
  });

  it.each([
    [{ year: 1800 }, /before the first cars/],
    [{ year: 20.5 }, /whole number/],
    [{ registration: " " }, /Registration is blank/],
    [{ displacement: { value: 1.6, unit: "gal" } }, /^ok$/],
    [{ displacement: { value: 1600, unit: "L" } }, /out of range for engine displacement/],
    [{ fitted: ["warp-drive"] }, /fitted/],
    [{ evap: VAPOUR.evap }, /^ok$/],
    [{ evap: { ...VAPOUR.evap, tank: { value: 5000, unit: "L" } } }, /out of range for fuel tank volume/],
    [{ evap: { ...VAPOUR.evap, monitor: "magic" } }, /monitor/],
    [{ evap: { ...VAPOUR.evap, sensor: { zero: { value: 1.5, unit: "V" }, perUnit: 0, unit: "kPa" } } }, /slope is not zero/],
    [{ evap: { ...VAPOUR.evap, requiredLeak: { value: 0.5, unit: "L" } } }, /unit "L" is not known here/],
    [{ colour: "red" }, /unspecified|unknown/i],
  ])("%j", (change, message) => {
    let said = "ok";
    try {
      vehicleFields.schema.validateSync({ ...NATURAL, ...change }, { strict: true });
    } catch (error) {
      said = (error as Error).message;
    }
    expect(said).toMatch(message);
  });
});
