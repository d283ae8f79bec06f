import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { contextOf, SEALED_NECK, VAPOUR } from "../core.fixture";
import { simulateTank } from "../gas/simulated-tank.fixture";
import { validate } from "../input";
import { EVAP_ZONES, entriesOf, reachOf } from "../vehicle";
import { judgeCap } from "./cap";
import { judgeDecay } from "./decay";
import { capRecord, decayRecord, evapSmokeRun, pulldownTrace, ventPathRecord } from "./evap.fixture";
import { judgeEvapSmoke } from "./evap-smoke";
import { CHECKS } from "./index";
import { judgePulldown, readPulldown } from "./pulldown";
import { judgeVentPath } from "./vent-path";

const cars = [contextOf(VAPOUR), contextOf(SEALED_NECK)];
const bounded = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const seals = cars[0]?.layout.joints.filter((j) => j.kind === "seal" && EVAP_ZONES.includes(j.from)).map((j) => j.id) ?? [];

/** Any run a technician could record, sound or spoilt. */
const runs = fc
  .record({
    flow: bounded(0, 11),
    entry: fc.constantFrom(...entriesOf((cars[0] as (typeof cars)[number]).layout, "evap").map((e) => e.id)),
    blocked: fc.subarray(["vent-valve", "vent-filter", "purge-valve"]),
    heldOpen: fc.subarray(["neck-flap", "purge-valve"]),
    arrivals: fc.subarray(["purge-line", "canister", "tank", "neck"] as const),
    seen: fc.subarray(seals, { maxLength: 2 }),
    touched: fc.subarray(seals, { maxLength: 1 }),
    fuelLevel: bounded(0, 100),
    looked: fc.boolean(),
    adapterLeaks: fc.boolean(),
    zeroed: fc.boolean(),
    required: fc.option(bounded(0.2, 1.1)),
  })
  .map((r) =>
    evapSmokeRun(r.flow, {
      entry: r.entry,
      blocked: r.blocked,
      heldOpen: r.heldOpen,
      arrivals: r.arrivals.map((zone, i) => ({ zone, at: 30 + i })),
      seen: r.seen.map((joint) => ({ joint, at: 80 })),
      noSmokeOutside: r.looked && r.seen.length === 0,
      touchedBefore: r.touched,
      fuelLevel: r.fuelLevel,
      adapterLeaks: r.adapterLeaks,
      zeroed: r.zeroed,
      required: r.required === null ? undefined : { size: { value: r.required, unit: "mm" }, source: "maker" },
    }),
  );

describe("any EVAP smoke run (properties)", () => {
  it("passes its door, is judged, and claims nothing that smoke was not shown to have reached", () => {
    fc.assert(
      fc.property(runs, fc.constantFrom(...cars), (run, context) => {
        validate(CHECKS["evap-smoke"].fields.schema, run);
        const verdict = judgeEvapSmoke(run, context);
        const reach = reachOf(context.layout, run);
        const shown = new Set<string>([...run.arrivals.map((a) => a.zone)]);
        for (const z of verdict.zones.filter((x) => x.state === "tight")) {
          expect(reach.zones).toContain(z.zone);
          const entryZone = context.layout.joints.find((j) => j.id === run.entry)?.from;
          expect(shown.has(z.zone) || z.zone === entryZone, z.zone).toBe(true);
        }
        for (const id of verdict.tested ?? []) {
          expect([...reach.tested.map((j) => j.id), ...run.seen.map((s) => s.joint)]).toContain(id);
          expect(id).not.toBe(run.entry);
        }
      }),
      { numRuns: 120 },
    );
  });

  it("is worth nothing where it is void, and never tight where smoke was seen or the cap was touched", () => {
    fc.assert(
      fc.property(runs, fc.constantFrom(...cars), (run, context) => {
        const verdict = judgeEvapSmoke(run, context);
        if (verdict.outcome === "void") {
          expect(verdict).toMatchObject({ measures: [], zones: [] });
          expect(verdict.observation).toBeUndefined();
          expect(verdict.reasons.length).toBeGreaterThan(0);
        }
        if (run.touchedBefore.length > 0 || run.adapterLeaks) {
          expect(verdict.outcome).toBe(run.seen.some((s) => s.joint !== run.entry) ? "fail" : "void");
          expect(verdict.zones.map((z) => z.state)).not.toContain("tight");
        }
        if (run.seen.length > 0 || !run.noSmokeOutside) expect(verdict.outcome).not.toBe("pass");
        if (!run.zeroed || run.required === undefined) expect(verdict.outcome).not.toBe("pass");
      }),
      { numRuns: 120 },
    );
  });

  it("never calls a flow tight that is above the size to be caught", () => {
    fc.assert(
      fc.property(bounded(0.7, 8), (flow) => {
        expect(judgeEvapSmoke(evapSmokeRun(flow), cars[0] as (typeof cars)[number]).outcome).not.toBe("pass");
      }),
      { numRuns: 40 },
    );
  });
});

describe("decay, pull-down, cap and vent path (properties)", () => {
  const [context] = cars as [(typeof cars)[number]];
  it("a larger hole is never judged tighter by decay", () => {
    const order = { pass: 0, unsure: 1, fail: 2, void: 3 } as const;
    const outcomes = [0, 0.2, 0.4, 0.7, 1.0].map((hole) => order[judgeDecay(decayRecord(hole, {}, 0.508), context).outcome]);
    expect(outcomes).toEqual(outcomes.toSorted((a, b) => a - b));
  });

  it("a trace is read the same in any unit", () => {
    const trace = pulldownTrace({ leak: 0.8e-3, purgeOpen: 0.7e-3 });
    const inKpa = { ...trace, unit: "kPa" as const, points: trace.points.map(([t, p]): [number, number] => [t, p / 1000]) };
    const [a, b] = [trace, inKpa].map((t) => readPulldown(t, context));
    expect(b?.depth).toBeCloseTo(a?.depth as number, 6);
    expect(b?.lost).toBeCloseTo(a?.lost as number, 6);
    expect(judgePulldown(inKpa, context).outcome).toBe(judgePulldown(trace, context).outcome);
  });

  it("a trace shifted in time, or standing off zero, is read the same", () => {
    fc.assert(
      fc.property(bounded(-50, 200), bounded(-60, 60), (later, offset) => {
        const trace = pulldownTrace();
        const moved = {
          ...trace,
          points: trace.points.map(([t, p]): [number, number] => [t + later, p + offset]),
          ventShutAt: trace.ventShutAt + later,
          purgeOpenAt: trace.purgeOpenAt + later,
          purgeShutAt: trace.purgeShutAt + later,
          ventOpenAt: trace.ventOpenAt + later,
          vent: { by: "plug" } as const,
        };
        const [a, b] = [trace, moved].map((t) => readPulldown(t, context));
        expect(b).toMatchObject({ pullDown: a?.pullDown, hold: a?.hold, relief: a?.relief });
      }),
      { numRuns: 15 },
    );
  });

  it("a cap that lost more is never judged better", () => {
    const rank = { pass: 0, unsure: 1, fail: 2, void: 3 } as const;
    fc.assert(
      fc.property(bounded(0, 30), bounded(0, 30), (a, b) => {
        const [more, less] = [Math.min(a, b), Math.max(a, b)];
        expect(rank[judgeCap(capRecord({ end: more }), context).outcome]).toBeGreaterThanOrEqual(
          rank[judgeCap(capRecord({ end: less }), context).outcome],
        );
      }),
    );
  });

  it("the vent path stops at the first blocked part, whatever lies behind it", () => {
    fc.assert(
      fc.property(fc.array(bounded(20, 3000), { minLength: 4, maxLength: 4 }), (back) => {
        const verdict = judgeVentPath(ventPathRecord(back), context);
        const blocked = verdict.measures.find((m) => m.value.value < 6);
        if (verdict.outcome === "fail")
          expect(verdict.headline.toLowerCase()).toContain(blocked?.name.split(",")[0]?.toLowerCase());
        else expect(blocked).toBeUndefined();
      }),
    );
  });
});

describe("the simulated tank that these rest on", () => {
  const tank = {
    volume: 0.03,
    diameter: 0.508e-3,
    held: 120,
    drift: 0,
    pressure: 10 * 249.0889,
    ambient: 101325,
    temperature: 293.15,
    duration: 120,
    every: 30,
  };
  it("keeps to the isothermal figures where its walls take all heat at once", () => {
    const { pressures } = simulateTank({ ...tank, wallTime: 0.1 });
    const inH2O = pressures.map((p) => p / 249.0889);
    for (const [i, figure] of [
      [1, 7.03],
      [2, 4.58],
      [4, 1.25],
    ] as const)
      expect(inH2O[i]).toBeCloseTo(figure, 1);
  });
  it("loses nothing when it is tight and was held long enough", () => {
    const { pressures } = simulateTank({ ...tank, diameter: 0, wallTime: 20, held: 240 });
    for (const p of pressures) expect(p).toBeCloseTo(tank.pressure, 0);
  });
  it("falls slower where its walls yield, and follows its walls' temperature", () => {
    const end = (more: object) => simulateTank({ ...tank, wallTime: 20, ...more }).pressures.at(-1) as number;
    expect(end({ compliance: 0.3 })).toBeGreaterThan(end({}));
    const warmed = end({ diameter: 0, drift: 1, held: 240 }) - tank.pressure;
    // 1 K on the walls brings p·ΔT/T ≈ 354 Pa, less what has not come through them yet.
    expect(warmed).toBeGreaterThan(250);
    expect(warmed).toBeLessThan(360);
  });
});
