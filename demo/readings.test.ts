import { describe, expect, it } from "vitest";
import { contextOf, judgeCheck } from "@/core/checks";
import { readAirflow } from "@/core/checks/airflow";
import { lossIn60 } from "@/core/checks/hold";
import { readTaps } from "@/core/checks/probe";
import { probeSeries } from "@/core/checks/probe/extract";
import { readScanLog } from "@/core/scan-log";
import { DEFAULT_SHOP } from "@/core/shop/settings";
import { CARS } from "./cars";
import { writeLog } from "./drive";
import { airflowOf, chainWith, crankcaseOf, holdOn, inUse, recordProbe, valveWith } from "./readings";

const context = (car: keyof typeof CARS) => contextOf(CARS[car].facts, DEFAULT_SHOP);

describe("readings of the demo's cars", () => {
  it("a part loses its vacuum the faster the larger its hole", () => {
    const shares = [5e-6, 30e-6, 60e-6, 120e-6].map(
      (hole) => lossIn60(holdOn("flap-pipe", "line", { still: hole, wiggled: hole }, 3).still, 0.1).share,
    );
    expect(shares.toSorted((a, b) => a - b)).toEqual(shares);
    expect(shares[0]).toBeLessThan(0.03);
    expect(shares[3]).toBeGreaterThan(0.5);
  });

  it("a restriction takes pressure from the manifold, air behind the meter takes it from the meter alone", () => {
    const read = (intake: Parameters<typeof airflowOf>[1]) =>
      readAirflow(airflowOf(CARS.tern.engine, intake, 9), context("tern")).find((r) => r.point.state === "wide-open");
    const free = read({});
    const clogged = read({ intakeBlock: 30 });
    const disturbed = read({ ductHole: 34e-3 });
    expect(free?.pressureShare).toBeGreaterThan(0.95);
    expect(clogged?.pressureShare).toBeLessThan(0.85);
    expect(Math.abs((clogged?.onManifold ?? 0) - (free?.onManifold ?? 0))).toBeLessThan(0.05);
    expect(disturbed?.pressureShare).toBeGreaterThan(0.95);
    expect(disturbed?.onManifold).toBeLessThan(0.7);
  });

  it("a torn diaphragm sucks the crankcase down, a passage throttled as it should be keeps it in its band", () => {
    const torn = crankcaseOf(2.2e-3, 3.4e-3, 4).idle.value;
    const whole = crankcaseOf(1.1e-3, 3.4e-3, 4).idle.value;
    const blocked = crankcaseOf(0.2e-3, 1e-3, 4).idle.value;
    expect(torn).toBeLessThan(-15);
    expect(whole).toBeGreaterThan(torn);
    expect(blocked).toBeGreaterThan(0);
  });

  it("a worn seat leaks at rest and opens all the same", () => {
    const worn = valveWith("purge-valve", 0.9e-3, "fitted", 2);
    expect(worn.rest.end).toBeLessThan(0.5 * worn.rest.start);
    expect(worn.energised.end).toBe(0);
    expect(judgeCheck("valve", worn, context("fulmar")).outcome).toBe("fail");
    expect(judgeCheck("valve", valveWith("purge-valve", 5e-6, "new", 2), context("fulmar")).outcome).toBe("pass");
  });

  it("a wire's resistance takes the voltage from the coil by Ohm's law, and nothing behind it is read", () => {
    const good = chainWith(0.3, 5);
    const dead = chainWith(900, 5);
    expect(judgeCheck("chain", good, context("redshank"))).toMatchObject({ outcome: "pass" });
    expect((dead.links.control?.value ?? 0) / (dead.links.battery?.value ?? 1)).toBeCloseTo(28 / 928, 2);
    expect(dead.links.outlet).toBeUndefined();
  });

  it("gas at the leak makes the mixture rich two seconds later; at a sound joint nothing moves", () => {
    const taps = [
      { at: 14, drinks: false },
      { at: 32, drinks: true },
    ];
    const rows = recordProbe(CARS.sanderling.engine, taps, 50, 8);
    const before = rows.filter((r) => r.seconds > 26 && r.seconds < 32).map((r) => r.trims[0]?.short ?? 0);
    const after = rows.filter((r) => r.seconds > 35 && r.seconds < 38).map((r) => r.trims[0]?.short ?? 0);
    const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
    expect(mean(after) - mean(before)).toBeLessThan(-6);
    const series = probeSeries(readScanLog(writeLog(rows, "comma", false)), [14, 32], "product");
    expect(series).toBeDefined();
    const readings = readTaps(
      {
        agent: "gas",
        source: { kind: "typed" },
        closedLoop: true,
        taps: [
          { joint: "pcv-hose", at: 14 },
          { joint: "vacuum-branch", at: 32 },
        ],
        ...(series ? { series } : {}),
      },
      context("sanderling"),
    );
    expect(readings.map((r) => r.outcome)).toEqual(["quiet", "reacts"]);
  });

  it("come off instruments that stand at zero and are fine enough", () => {
    for (const id of ["pump", "manometer", "meter"]) {
      const { division, zero } = inUse(id);
      expect(Math.abs(zero.value)).toBeLessThanOrEqual(division.value);
    }
  });
});
