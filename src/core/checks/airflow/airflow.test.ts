import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO } from "../../core.fixture";
import { readScanLog } from "../../scan-log";
import { DEFAULT_HOUSE, DEFAULT_LIMITS } from "../../shop/settings";
import { airflow as record } from "../records.fixture";
import { type AirflowPoint, airflowPoints, judgeAirflow, readAirflow } from ".";

const context = contextOf(NATURAL);
const open = (maf: number | undefined, map: number | undefined, rpm = 4500): AirflowPoint => ({
  state: "wide-open",
  rpm,
  ...(maf === undefined ? {} : { maf: { value: maf, unit: "g/s" } }),
  ...(map === undefined ? {} : { map: { value: map, unit: "kPa", kind: "absolute" } }),
});
const says = (point: AirflowPoint, at = context) =>
  judgeAirflow({ ...record, points: [record.points[0] as AirflowPoint, point] }, at);

describe("airflow", () => {
  it("gives the volumetric efficiency of the textbook example", () => {
    // 1.6 L at 4500 1/min sweeps 1.6e-3·4500/120 = 0.06 m³/s; at 1.2041 kg/m³ that is 72.2 g/s
    const [reading] = readAirflow({ ...record, points: [open(57.8, 98)] }, context);
    expect(reading?.onAmbient).toBeCloseTo(0.8, 2);
    expect(reading?.pressureShare).toBeCloseTo(98 / 101.325, 4);
  });

  it("passes an engine that breathes freely", () => {
    expect(says(open(60, 98))).toMatchObject({ outcome: "pass", observation: "airflow-normal" });
  });

  it("calls a restriction one: low on ambient density, right on manifold density", () => {
    const verdict = says(open(42, 72));
    expect(verdict).toMatchObject({ outcome: "fail", observation: "airflow-restricted" });
    expect(verdict.headline).toMatch(/58 % at wide open throttle/);
    expect(verdict.reasons.join()).toMatch(/filter first/);
  });

  it("tells a disturbed duct or a lying meter from it: low on both, and the manifold is full", () => {
    const verdict = says(open(42, 98));
    expect(verdict).toMatchObject({ outcome: "fail", observation: "airflow-reads-low" });
    expect(verdict.reasons.join()).toMatch(/disturbed duct/);
  });

  it("does not guess which without manifold pressure, nor from a slow pull, nor from idle alone", () => {
    expect(says(open(42, undefined)).outcome).toBe("unsure");
    expect(says(open(20, 80, 1800)).outcome).toBe("unsure");
    expect(judgeAirflow({ ...record, points: [record.points[0] as AirflowPoint] }, context).outcome).toBe("unsure");
  });

  it("cross-checks a speed-density engine by what reaches its manifold", () => {
    const speedDensity = contextOf({ ...NATURAL, metering: "map" });
    expect(says(open(undefined, 80), speedDensity).observation).toBe("airflow-restricted");
    expect(says(open(undefined, 98), speedDensity).observation).toBe("airflow-normal");
    expect(says(open(undefined, undefined), speedDensity).outcome).toBe("unsure");
  });

  it("holds no unblown limit against a turbo engine", () => {
    const turbo = contextOf(TURBO);
    expect(says(open(110, 180), turbo)).toMatchObject({ outcome: "pass" });
    expect(says(open(60, 180), turbo)).toMatchObject({ observation: "airflow-reads-low" });
  });

  it("asks for the cheap thing by the house's school", () => {
    const swap = contextOf(NATURAL, { house: { ...DEFAULT_HOUSE, cheapSuspect: "swap" } });
    expect(says(open(42, 72), swap).reasons.join()).toMatch(/swap the filter at once/);
    expect(says(open(42, 72)).reasons.join()).toMatch(/filter out of its box/);
  });

  it("finds idle and the pull in a log", () => {
    const rows = ["Time (s),RPM,MAF (g/s),MAP (kPa),Throttle (%),Coolant (°C)"];
    for (let i = 0; i < 120; i++) {
      const t = i * 0.25;
      const pull = t > 15 && t < 21;
      const rpm = pull ? 2000 + 450 * (t - 15) : 740;
      rows.push([t, rpm, pull ? rpm * 0.0133 : 1.9, pull ? 97 : 33, pull ? 99 : 4, 90].join(","));
    }
    const log = readScanLog(new TextEncoder().encode(rows.join("\n")));
    const points = airflowPoints(log, DEFAULT_LIMITS, 101325);
    expect(points.map((p) => p.state)).toEqual(["idle", "wide-open"]);
    expect(points[0]?.rpm).toBe(740);
    expect(points[1]?.rpm).toBeGreaterThan(4200);
    expect(points[1]?.map?.value).toBeCloseTo(97, 6);
  });
});
