import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, smokeRun } from "../../core.fixture";
import { layoutOf, usualSetup } from "../../vehicle";
import { judgeSmoke, proposeSections, readSections, type SmokeRun } from ".";

const context = contextOf(NATURAL);
const { layout } = context;
const whole = usualSetup(layout, "air-meter");
const read = (...runs: SmokeRun[]) =>
  readSections(
    runs.map((run) => ({ run, verdict: judgeSmoke(run, context) })),
    layout,
  );
/** Smoke came to what such a cut leaves in the fill. */
const arrivals = [{ zone: "manifold", at: 30 }] as const;
const blocked = (...ids: string[]) => ["tailpipe", ...ids];

describe("sections", () => {
  it("proposes cuts that split the suspicion, each with what it takes out and what it costs", () => {
    const odds = new Map([
      ["manifold-gasket", 0.5],
      ["oil-cap", 0.2],
      ["dipstick", 0.2],
      ["duct-split", 0.1],
    ]);
    const [best] = proposeSections(layout, whole, odds);
    expect(best?.bits).toBeGreaterThan(0.9);
    expect(
      proposeSections(layout, whole, odds).some((s) => s.takesOut.includes("oil-cap") && s.takesOut.includes("dipstick")),
    ).toBe(true);
    for (const section of proposeSections(layout, whole, odds)) {
      expect(section.cuts.length).toBeGreaterThan(0);
      expect(section.takesOut.some((id) => section.cuts.includes(id))).toBe(false);
      expect(section.bits).toBeGreaterThan(0);
      expect(section.bits).toBeLessThanOrEqual(1);
    }
  });

  it("proposes nothing where there is no suspicion to split", () => {
    expect(proposeSections(layout, whole, new Map())).toEqual([]);
    expect(proposeSections(layout, whole, new Map([["manifold-gasket", 1]]))).toEqual([]);
  });

  it("puts the opening into what was shut off when the reading falls", () => {
    const reading = read(smokeRun(7), smokeRun(4.2, { blocked: blocked("pcv-valve", "breather-duct"), arrivals }));
    expect(reading?.within).toContain("oil-cap");
    expect(reading?.within).not.toContain("manifold-gasket");
    expect(reading?.cleared).toContain("manifold-gasket");
    expect(reading?.says[0]).toMatch(/the opening falls by/);
  });

  it("puts it into what is still smoked when the reading stays", () => {
    const reading = read(smokeRun(7), smokeRun(6.95, { blocked: blocked("pcv-valve", "breather-duct"), arrivals }));
    expect(reading?.within).toContain("manifold-gasket");
    expect(reading?.cleared).toContain("oil-cap");
    expect(reading?.says[0]).toMatch(/the opening stays/);
  });

  it("leaves out a run that smoke was marked beyond its set-up in", () => {
    const cut = { blocked: blocked("pcv-valve", "breather-duct") };
    expect(read(smokeRun(7), smokeRun(6.95, { ...cut, arrivals }))).toBeDefined();
    expect(read(smokeRun(7), smokeRun(6.95, { ...cut, arrivals: [{ zone: "crankcase", at: 40 }] }))).toBeUndefined();
  });

  it("calls what weeps by design a weep, not a finding", () => {
    const fitted = contextOf({ ...NATURAL, fitted: [...NATURAL.fitted, "idle-air"] });
    // Into the manifold, throttle shut, duct end open: what passes the bypass comes out there, as it is meant to.
    const at = (flow: number, blocks: string[]) =>
      smokeRun(flow, { entry: "gauge-port", heldOpen: [], blocked: ["tailpipe", "snorkel", ...blocks] });
    const runs = [at(7, []), at(4.5, ["idle-air"])];
    const reading = readSections(
      runs.map((run) => ({ run, verdict: judgeSmoke(run, fitted) })),
      layoutOf(fitted.vehicle),
    );
    expect(reading?.says[0]).toMatch(/Idle air control valve weeps by design: .* mm of the opening; .* mm is left without it/);
    expect(reading?.within).toEqual([]);
  });

  it("reads nothing out of void runs or runs that cannot be compared", () => {
    expect(read(smokeRun(7), smokeRun(4, { blocked: blocked("pcv-valve", "breather-duct"), heaterOnAt: -290 }))).toBeUndefined();
    expect(read(smokeRun(7), smokeRun(4))).toBeUndefined();
  });
});
